import { Shake, defaultsOf, type Rider } from '@fleet-rail/core';
import { changeRider } from '../../edits/rider-edits';
import { Fold } from '../../ui/fold';
import { FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';

/** The little to and fro of what is held by hand: a camera, or what is carried. */
export function ShakeFold({ rider }: { rider: Rider }) {
  const edit = useDesk((state) => state.edit);
  const { shake } = rider;
  const change = (next: Shake | null, gesture?: string) =>
    edit(
      'Handheld',
      changeRider(rider.id, (before) => ({ ...before, shake: next })),
      gesture,
    );
  const part = (own: Partial<Shake>, gesture?: string) => shake && change({ ...shake, ...own }, gesture);
  return (
    <Fold title={shake === null ? 'Handheld' : `Handheld (${shake.rate} a second)`}>
      <Tick isSelected={shake !== null} onChange={(on) => change(on ? defaultsOf(Shake) : null)}>
        Handheld shake
      </Tick>
      {shake && (
        <>
          <FieldPair>
            <QuantityField
              label="Distance"
              kind="length"
              value={shake.place}
              min={0}
              max={100}
              step={0.005}
              onChange={(place, gesture) => part({ place }, gesture)}
            />
            <QuantityField
              label="Angle"
              kind="angle"
              value={shake.turn}
              min={0}
              max={90}
              step={0.1}
              onChange={(turn, gesture) => part({ turn }, gesture)}
            />
            <QuantityField
              label="Frequency"
              kind="count"
              unit="a second"
              value={shake.rate}
              min={0.01}
              max={50}
              step={0.1}
              onChange={(rate, gesture) => part({ rate }, gesture)}
            />
            <QuantityField
              label="Seed"
              kind="count"
              value={shake.seed}
              min={0}
              max={2 ** 31 - 1}
              whole
              onChange={(seed, gesture) => part({ seed }, gesture)}
            />
          </FieldPair>
          <Hint>Never more than these amounts. A loop closes.</Hint>
        </>
      )}
    </Fold>
  );
}
