import type { Follow, Rider } from '@fleet-rail/core';
import { Unlink } from 'lucide-react';
import { changeRider } from '../../../edits/rider-edits';
import { Button } from '../../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../../ui/panel';
import { QuantityFields, type NumberOf } from '../../../ui/quantity-fields';
import { useDesk, useDeskStore } from '../../../state/desk-store';
import { attemptAsked } from '../../../commands/attempt';

const FIELDS: readonly NumberOf<Follow>[] = [
  { of: 'behind', label: 'Behind', kind: 'length', step: 0.1 },
  { of: 'side', label: 'To the left', kind: 'length', step: 0.1 },
  { of: 'rise', label: 'Up', kind: 'length', step: 0.1 },
  { of: 'delay', label: 'Delay', kind: 'frame', step: 1 },
];

/** Position of a rider that follows another. */
export function FollowFields({ rider, echo }: { rider: Rider; echo: Follow }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const leader = useDesk(({ shot }) => shot.riders.find(({ id }) => id === echo.rider));
  return (
    <>
      <Hint>
        {rider.badge} follows {leader?.badge} in space.
      </Hint>
      <FieldGrid>
        <QuantityFields
          fields={FIELDS}
          value={echo}
          onChange={(part, gesture) =>
            edit(
              'Follow offset',
              changeRider(rider.id, (one) => ({ ...one, follow: one.follow && { ...one.follow, ...part } })),
              gesture,
            )
          }
        />
      </FieldGrid>
      <Buttons>
        <Button
          onPress={() =>
            void attemptAsked(
              desk,
              `Detach ${rider.badge} here`,
              'detachHere',
              [rider.id],
              desk.getState().frame,
            )
          }
        >
          <Unlink aria-hidden /> Detach it here{' '}
        </Button>
      </Buttons>
    </>
  );
}
