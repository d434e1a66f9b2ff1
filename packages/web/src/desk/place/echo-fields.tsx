import { detachHere, type Echo, type Rider } from '@fleet-rail/core';
import { Unlink } from 'lucide-react';
import { changeRider } from '../../edits/rider-edits';
import { sceneAssets } from '../../scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { attempt } from '../attempt';
import { useDesk, useDeskStore } from '../desk-store';

const FIELDS: readonly NumberOf<Echo>[] = [
  { of: 'behind', label: 'Behind', kind: 'length', step: 0.1 },
  { of: 'side', label: 'To the left', kind: 'length', step: 0.1 },
  { of: 'rise', label: 'Up', kind: 'length', step: 0.1 },
  { of: 'delay', label: 'Later by', kind: 'frame', step: 1 },
];

/** Where a rider goes that goes after another. */
export function EchoFields({ rider, echo }: { rider: Rider; echo: Echo }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const leader = useDesk(({ shot }) => shot.riders.find(({ id }) => id === echo.rider));
  return (
    <>
      <Hint>
        {rider.badge} goes where {leader?.badge} went, whatever moves that.
      </Hint>
      <FieldGrid>
        <QuantityFields
          fields={FIELDS}
          value={echo}
          onChange={(part, gesture) =>
            edit(
              'Place behind',
              changeRider(rider.id, (one) => ({ ...one, echo: one.echo && { ...one.echo, ...part } })),
              gesture,
            )
          }
        />
      </FieldGrid>
      <Buttons>
        <Button
          onPress={() =>
            attempt(desk, `Leave ${rider.badge} here`, (shot) =>
              detachHere(shot, sceneAssets(desk.getState()), [rider.id], desk.getState().frame),
            )
          }
        >
          <Unlink aria-hidden /> Leave it here
        </Button>
      </Buttons>
    </>
  );
}
