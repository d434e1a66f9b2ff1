import {
  POSE,
  compiledPathOf,
  PathError,
  suggestBankWindow,
  type Bank,
  type FrameReference,
  type Rider,
} from '@fleet-rail/core';
import { useMemo } from 'react';
import { changeAttachment } from '../../edits/rider-edits';
import { Choice } from '../../ui/choice';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../../state/desk-store';

const MODES = [
  { id: 'none', name: 'None' },
  { id: 'amount', name: 'By amount' },
  { id: 'physical', name: 'By physics' },
] as const;

/** First value of an unset amount: degrees at a radius of 10 m, or the physical angle itself. */
const FIRST = { none: 1, amount: 12, physical: 1 };

/** Banking into bends. */
export function BankSection({ rider, bank }: { rider: Rider; bank: Bank }) {
  const edit = useDesk((state) => state.edit);
  const change = (part: Partial<Bank>, gesture?: string) =>
    edit(
      'Bank',
      changeAttachment(rider.id, (attachment) => ({ ...attachment, bank: { ...attachment.bank, ...part } })),
      gesture,
    );
  const suggested = useSuggestedWindow(rider);
  return (
    <Section aria-label="Bank">
      <SectionTitle>Bank into bends</SectionTitle>
      <Choice
        label="Bank"
        options={MODES}
        value={bank.mode}
        onChange={(mode) =>
          change({
            mode,
            amount: FIRST[mode],
            ...(bank.mode === 'none' && suggested !== null ? { window: suggested } : {}),
          })
        }
      />
      {bank.mode !== 'none' && (
        <>
          <FieldGrid>
            <QuantityField
              label={bank.mode === 'amount' ? 'Angle at 10 m radius' : 'Multiplier'}
              kind={bank.mode === 'amount' ? 'angle' : 'count'}
              value={bank.amount}
              step={bank.mode === 'amount' ? 1 : 0.05}
              onChange={(amount, gesture) => change({ amount }, gesture)}
            />
            <QuantityField
              label="Limit"
              kind="angle"
              value={bank.limit}
              min={0}
              max={180}
              onChange={(limit, gesture) => change({ limit }, gesture)}
            />
            <QuantityField
              label="Smooth over"
              kind="length"
              value={bank.window}
              min={0}
              max={1e6}
              step={0.25}
              onChange={(window, gesture) => change({ window }, gesture)}
            />
          </FieldGrid>
          {suggested !== null && suggested > bank.window && (
            <Buttons>
              <Button onPress={() => change({ window: suggested })}>
                Smooth over {showNumber(suggested, 1)} m: this path is rough
              </Button>
            </Buttons>
          )}
          <Hint>
            {bank.mode === 'amount'
              ? 'Bank in a bend of 10 m radius, at any speed.'
              : 'From bends and speeds of this shot: no sideways force on the seat.'}{' '}
            Or drag {rider.badge} sideways on the stage.
          </Hint>
        </>
      )}
    </Section>
  );
}

/** The smoothing under which a bank does not wobble on the rider's path at the highest speed it goes; null where it rides none. */
function useSuggestedWindow({ id, attachment }: Rider): number | null {
  const path = useDesk(({ shot }) => shot.paths.find((one) => one.id === attachment?.path));
  const poses = useDesk(({ evaluation }) => evaluation?.riders.get(id)?.poses);
  const reference: FrameReference = attachment?.facing.reference === 'path' ? 'path' : 'world';
  return useMemo(() => {
    const curve = path && compiledPathOf(path);
    if (!curve || curve instanceof PathError || !poses) return null;
    let fastest = 0;
    for (let i = POSE.speed; i < poses.length; i += POSE.size)
      fastest = Math.max(fastest, Math.abs(poses[i]));
    return fastest > 0 ? suggestBankWindow(curve, reference, fastest) : null;
  }, [path, poses, reference]);
}
