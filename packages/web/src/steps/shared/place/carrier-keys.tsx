import { withRider, type ParentKey, type Rider } from '@fleet-rail/core';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../ui/button';
import { IconButton } from '../../../ui/icon-button';
import { Buttons, FieldPair, Hint } from '../../../ui/panel';
import { showNumber } from '../../../ui/quantity';
import { QuantityField } from '../../../ui/quantity-field';
import { Select } from '../../../ui/select';
import { attempt, attemptAsked } from '../../../commands/attempt';
import { useDesk, useDeskStore } from '../../../state/desk-store';

/** Carriers of a rider by frame: a switch keeps its position. */
export function CarrierKeys({ rider }: { rider: Rider }) {
  const desk = useDeskStore();
  const riders = useDesk(({ shot }) => shot.riders);
  const frame = useDesk((state) => Math.round(state.frame));
  const others = riders.filter(({ id }) => id !== rider.id);
  const [carrier, setCarrier] = useState(others[0]?.id ?? '');
  const { parentKeys } = rider;
  const badge = (id: string | null) => riders.find((one) => one.id === id)?.badge ?? 'nobody';
  const setKeys = (label: string, next: ParentKey[], gesture?: string) =>
    attempt(
      desk,
      label,
      (shot) => withRider(shot, rider.id, (one) => ({ ...one, parentKeys: next })),
      gesture,
    );
  const hand = (to: string | null) =>
    void attemptAsked(
      desk,
      to === null ? 'Detach' : `Switch carrier to ${badge(to)}`,
      'handTo',
      rider.id,
      to,
      desk.getState().frame,
      to === null ? 0.5 : 0,
    );
  if (others.length === 0) return null;
  const last = parentKeys[parentKeys.length - 1];
  return (
    <>
      <Hint>From a switch on, the carrier takes the rider along from where it is.</Hint>
      {parentKeys.map((key, i) => (
        <FieldPair
          key={key.frame}
          role="group"
          aria-label={`Carrier switch at frame ${showNumber(key.frame, 2)}`}
        >
          <QuantityField
            label={key.rider === null ? 'Detach at' : `To ${badge(key.rider)} at`}
            kind="frame"
            value={key.frame}
            min={i > 0 ? parentKeys[i - 1].frame + 1 : undefined}
            max={i + 1 < parentKeys.length ? parentKeys[i + 1].frame - 1 : undefined}
            onChange={(at, gesture) =>
              setKeys(
                'Switch carrier',
                parentKeys.map((one, n) => (n === i ? { ...one, frame: at } : one)),
                gesture,
              )
            }
          />
          <QuantityField
            label="Blend"
            kind="time"
            value={key.blend}
            min={0}
            max={60}
            step={0.1}
            onChange={(blend, gesture) =>
              setKeys(
                'Switch carrier',
                parentKeys.map((one, n) => (n === i ? { ...one, blend } : one)),
                gesture,
              )
            }
          />
          <IconButton
            label={`Delete the carrier switch at frame ${showNumber(key.frame, 2)}`}
            onPress={() =>
              setKeys(
                'Delete',
                parentKeys.filter((_, n) => n !== i),
              )
            }
          >
            <Trash2 aria-hidden />
          </IconButton>
        </FieldPair>
      ))}
      <FieldPair>
        <Select
          label="Switch to"
          options={others.map(({ id, badge: code, name }) => ({ id, name: `${code} ${name}` }))}
          value={carrier}
          onChange={setCarrier}
        />
      </FieldPair>
      <Buttons>
        <Button isDisabled={carrier === ''} onPress={() => hand(carrier)}>
          Switch at frame {frame}
        </Button>
        {last && last.rider !== null && frame > last.frame && (
          <Button onPress={() => hand(null)}>Detach at frame {frame}</Button>
        )}
      </Buttons>
    </>
  );
}
