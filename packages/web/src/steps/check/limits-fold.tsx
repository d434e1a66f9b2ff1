import { CheckLimits, defaultsOf } from '@fleet-rail/core';
import { changeLimit } from '../../edits/check-edits';
import { Fold } from '../../ui/fold';
import { FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../../state/desk-store';
import { LIMIT_FIELDS } from '../../ui/words/finding-words';

const STANDARD = defaultsOf(CheckLimits);

/** Limits of findings, for this shot. */
export function LimitsFold() {
  const limits = useDesk((state) => state.shot.checks.limits);
  const edit = useDesk((state) => state.edit);
  const changed = LIMIT_FIELDS.filter(({ key }) => limits[key] !== STANDARD[key]).length;
  return (
    <Fold title={changed === 0 ? 'Limits' : `Limits (${changed} of this shot’s own)`}>
      <Hint>Reported from this value on.</Hint>
      <FieldPair>
        {LIMIT_FIELDS.map(({ key, name, kind, unit }) => (
          <QuantityField
            key={key}
            label={name}
            kind={kind}
            unit={unit}
            value={limits[key]}
            min={0}
            onChange={(value, gesture) => edit('Check limit', changeLimit(key, value), gesture)}
          />
        ))}
      </FieldPair>
    </Fold>
  );
}
