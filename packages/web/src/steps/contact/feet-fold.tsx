import type { Foot, Gait } from '@fleet-rail/core';
import { Trash2 } from 'lucide-react';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { FieldPair } from '../../ui/panel';
import { QuantityFields } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import type { ChangeGait } from './change-gait';
import { WheelCard, WheelHead } from './wheel-rows';

const NONE = ' none';

const PART = { kind: 'count', step: 0.01 } as const;

/** A foot whose first stance is another, which lasts for a hundredth of a cycle at least and for a whole one at most. */
function withStance(foot: Foot, { from, to }: Foot['stances'][number]): Foot {
  const lifts = Math.min(from + 1, Math.max(from + 0.01, to));
  return { ...foot, stances: [{ from, to: lifts }, ...foot.stances.slice(1)] };
}

/** Its feet, and when each is down. */
export function FeetFold({
  gait,
  nodes,
  change,
}: {
  gait: Gait;
  nodes: readonly string[];
  change: ChangeGait;
}) {
  const { feet } = gait;
  const free = [...new Set(nodes)].filter((name) => name !== '' && !feet.some(({ node }) => node === name));
  const put = (i: number, foot: Foot, gesture?: string) =>
    change({ feet: feet.map((one, k) => (k === i ? foot : one)) }, gesture);
  return (
    <Fold title={`Feet (${feet.length})`}>
      {feet.map((foot, i) => {
        const [stance] = foot.stances;
        return (
          <WheelCard key={foot.node} role="group" aria-label={foot.node}>
            <WheelHead>
              <strong>{foot.node}</strong>
              <span />
              <IconButton
                label={`Delete ${foot.node}`}
                onPress={() => change({ feet: feet.filter((_, k) => k !== i) })}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </WheelHead>
            {stance && (
              <FieldPair>
                <QuantityFields
                  fields={[
                    { of: 'from', label: 'Plants at', min: 0, max: 1, ...PART },
                    { of: 'to', label: 'Lifts at', min: stance.from + 0.01, max: stance.from + 1, ...PART },
                  ]}
                  value={stance}
                  onChange={(part, gesture) => put(i, withStance(foot, { ...stance, ...part }), gesture)}
                />
              </FieldPair>
            )}
          </WheelCard>
        );
      })}
      {free.length > 0 && (
        <Select
          label="Another foot"
          options={[{ id: NONE, name: 'Choose a part' }, ...free.map((name) => ({ id: name, name }))]}
          value={NONE}
          onChange={(node) =>
            node !== NONE && change({ feet: [...feet, { node, stances: [{ from: 0, to: 0.5 }] }] })
          }
        />
      )}
    </Fold>
  );
}
