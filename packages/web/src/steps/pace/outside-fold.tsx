import {
  OUTSIDES,
  Variation,
  defaultsOf,
  fitKeys,
  keyedStretch,
  type Outside,
  type Pace,
  type Rider,
} from '@fleet-rail/core';
import { changePace } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';

const NAMES: Readonly<Record<Outside, string>> = {
  hold: 'Hold',
  repeat: 'Repeat',
  accumulate: 'Repeat and accumulate',
  mirror: 'Back and forth',
  run: 'Continue at speed',
};
const WAYS = OUTSIDES.map((id) => ({ id, name: NAMES[id] }));
const CYCLES: readonly Outside[] = ['repeat', 'accumulate', 'mirror'];

/** Invisible difference, metres. */
const SAME = 1e-4;

/** Motion before and after a ride, and the variation of its cycles. */
export function OutsideFold({ rider, pace }: { rider: Rider; pace: Pace }) {
  const edit = useDesk((state) => state.edit);
  const change = (part: Partial<Pace>, gesture?: string) =>
    edit(
      'Before and after',
      changePace(rider.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  const { variation } = pace;
  const vary = (part: Partial<Variation>, gesture?: string) =>
    change({ variation: { ...(variation ?? defaultsOf(Variation)), ...part } }, gesture);
  const length = useDesk((state) => state.evaluation?.paths.get(rider.attachment?.path ?? '')?.length ?? 0);
  const { within } = pace;
  const reaches = within && keyedStretch(pace, { length });
  const cycles = CYCLES.includes(pace.before) || CYCLES.includes(pace.after);
  return (
    <Fold title="Before and after">
      <FieldPair>
        {(['before', 'after'] as const).map((end) => (
          <Select
            key={end}
            label={end === 'before' ? 'Before' : 'After'}
            // On a part of its path nothing can carry on: it goes back and forth there.
            options={within ? WAYS.filter(({ id }) => id !== 'accumulate') : WAYS}
            value={within && pace[end] === 'accumulate' ? 'mirror' : pace[end]}
            onChange={(way) => change({ [end]: way })}
          />
        ))}
      </FieldPair>
      {cycles && (
        <Tick
          isSelected={variation !== null}
          onChange={(on) => change({ variation: on ? { time: 0.1, amount: 0.1, seed: 1 } : null })}
        >
          Vary each cycle
        </Tick>
      )}
      {cycles && variation && (
        <>
          <FieldGrid>
            <QuantityField
              label="Time"
              kind="count"
              unit="%"
              value={variation.time * 100}
              min={0}
              max={50}
              onChange={(time, gesture) => vary({ time: time / 100 }, gesture)}
            />
            <QuantityField
              label="Amount"
              kind="count"
              unit="%"
              value={variation.amount * 100}
              min={0}
              max={50}
              onChange={(amount, gesture) => vary({ amount: amount / 100 }, gesture)}
            />
            <QuantityField
              label="Seed"
              kind="count"
              whole
              value={variation.seed}
              min={0}
              max={2 ** 31 - 1}
              onChange={(seed, gesture) => vary({ seed }, gesture)}
            />
          </FieldGrid>
          <Hint>The keyed cycle stays; the others vary by the seed.</Hint>
        </>
      )}
      <Tick
        isSelected={within !== null}
        onChange={(on) => change({ within: on ? [0, Math.max(0.01, Number(length.toFixed(3)))] : null })}
      >
        Stay on a part of the path
      </Tick>
      {within && (
        <FieldPair>
          <QuantityField
            label="From distance"
            kind="length"
            value={within[0]}
            max={within[1]}
            step={0.1}
            onChange={(from, gesture) => change({ within: [from, within[1]] }, gesture)}
          />
          <QuantityField
            label="To distance"
            kind="length"
            value={within[1]}
            min={within[0]}
            step={0.1}
            onChange={(to, gesture) => change({ within: [within[0], to] }, gesture)}
          />
        </FieldPair>
      )}
      {within && reaches && (reaches[0] < within[0] - SAME || reaches[1] > within[1] + SAME) && (
        <>
          <Hint>
            The keys go from {reaches[0].toFixed(2)} to {reaches[1].toFixed(2)} m; beyond this part the rider
            holds at its ends.{' '}
          </Hint>
          <Button onPress={() => change(fitKeys(pace, { length }, within))}>Fit the keys to this part</Button>
        </>
      )}
    </Fold>
  );
}
