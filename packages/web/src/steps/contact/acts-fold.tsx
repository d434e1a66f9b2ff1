import { Act, defaultsOf, type FoundGait, type Gait, type Rider } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { useDeskStore } from '../../state/desk-store';
import type { ChangeGait } from './change-gait';
import { WheelCard, WheelHead } from './wheel-rows';
import { attemptAsked } from '../../commands/attempt';

const FITS: readonly { id: Act['fit']; name: string }[] = [
  { id: 'stretch', name: 'The stop' },
  { id: 'repeat', name: 'Repeats' },
];

/** Acts at its stops. */
export function ActsFold({
  rider,
  gait,
  gaits,
  change,
}: {
  rider: Rider;
  gait: Gait;
  gaits: readonly FoundGait[];
  change: ChangeGait;
}) {
  const desk = useDeskStore();
  const { acts } = gait;
  const put = (i: number, part: Partial<Act>, gesture?: string) =>
    change({ acts: acts.map((act, k) => (k === i ? { ...act, ...part } : act)) }, gesture);
  return (
    <Fold
      title={acts.length === 0 ? 'Acts at stops' : `Acts at stops (${acts.length})`}
      isOpen={acts.length > 0}
    >
      {acts.map((act, i) => {
        const clip = gaits.find((one) => one.clip === act.clip);
        const end = act.to ?? clip?.seconds ?? act.from + 1;
        return (
          <WheelCard key={i} role="group" aria-label={`Act at stop ${act.stop + 1}`}>
            <WheelHead>
              <strong>Stop {act.stop + 1}</strong>
              <span />
              <IconButton
                label={`Delete the act at stop ${act.stop + 1}`}
                onPress={() => change({ acts: acts.filter((_, k) => k !== i) })}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </WheelHead>
            <FieldPair>
              <QuantityField
                label="At stop"
                kind="count"
                whole
                min={1}
                max={10_000}
                value={act.stop + 1}
                onChange={(stop, gesture) => put(i, { stop: stop - 1 }, gesture)}
              />
              <Select
                label="Clip"
                options={gaits.map((one) => ({ id: one.clip, name: one.clip }))}
                value={act.clip}
                onChange={(name) => put(i, { clip: name, from: 0, to: null })}
              />
            </FieldPair>
            <FieldGrid>
              <QuantityFields
                fields={[
                  {
                    of: 'from',
                    label: 'From',
                    kind: 'time',
                    min: 0,
                    max: Math.max(0, end - 0.01),
                    step: 0.1,
                  },
                  { of: 'to', label: 'To', kind: 'time', min: act.from + 0.01, step: 0.1 },
                ]}
                value={{ from: act.from, to: end }}
                onChange={(part, gesture) => put(i, part, gesture)}
              />
              <Select label="Duration" options={FITS} value={act.fit} onChange={(fit) => put(i, { fit })} />
            </FieldGrid>
            <Buttons>
              <Button
                onPress={() => void attemptAsked(desk, 'Fit stop to its act', 'stopAsLongAs', rider.id, act)}
              >
                Fit the stop to it
              </Button>
            </Buttons>
          </WheelCard>
        );
      })}
      <Buttons>
        <Button
          isDisabled={gaits.length === 0}
          onPress={() => {
            const stop = acts.reduce((most, act) => Math.max(most, act.stop + 1), 0);
            const other = gaits.find((one) => one.clip !== gait.clip && one.clip !== gait.idle) ?? gaits[0];
            change({ acts: [...acts, { ...defaultsOf(Act), stop, clip: other.clip }] });
          }}
        >
          <Plus aria-hidden /> Add an act
        </Button>
      </Buttons>
    </Fold>
  );
}
