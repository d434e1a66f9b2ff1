import type { Bank, Rider } from '@fleet-rail/core';
import { changeHitch } from '../../edits/rider-edits';
import { Choice } from '../../ui/choice';
import { FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../desk-store';

const MODES = [
  { id: 'none', name: 'None' },
  { id: 'amount', name: 'By amount' },
  { id: 'physical', name: 'By physics' },
] as const;

/** What an amount that is not set yet begins with: degrees at a radius of 10 m, or the physical angle itself. */
const FIRST = { none: 1, amount: 12, physical: 1 };

/** Leaning into bends. */
export function BankSection({ rider, bank }: { rider: Rider; bank: Bank }) {
  const edit = useDesk((state) => state.edit);
  const change = (part: Partial<Bank>, gesture?: string) =>
    edit(
      'Bank',
      changeHitch(rider.id, (hitch) => ({ ...hitch, bank: { ...hitch.bank, ...part } })),
      gesture,
    );
  return (
    <Section aria-label="Bank">
      <SectionTitle>Bank into bends</SectionTitle>
      <Choice
        label="Bank"
        options={MODES}
        value={bank.mode}
        onChange={(mode) => change({ mode, amount: FIRST[mode] })}
      />
      {bank.mode !== 'none' && (
        <>
          <FieldGrid>
            <QuantityField
              label={bank.mode === 'amount' ? 'At 10 m' : 'Times'}
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
          <Hint>
            {bank.mode === 'amount'
              ? 'So many degrees in a bend of 10 m radius, whatever the speed.'
              : 'From the bends and the speeds of this shot: gravity presses straight down on the seat.'}{' '}
            Or drag {rider.badge} sideways on the stage.
          </Hint>
        </>
      )}
    </Section>
  );
}
