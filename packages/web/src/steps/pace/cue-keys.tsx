import type { Cue, CueKey } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons } from '../../ui/panel';
import type { QuantityKind } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { KEY_EASE_LABELS } from '../../ui/words/eases';
import { KeyLine } from './rows';

const VALUES = {
  turn: { label: 'Turned', kind: 'angle', step: 5 },
  move: { label: 'Moved', kind: 'length', step: 0.05 },
  part: { label: 'How much', kind: 'count', step: 0.1, min: 0, max: 1 },
} as const;

/** The curve from what is listened to, to how far the part is turned or moved, or how much of something there is. */
export function CueKeys(props: {
  cue: Cue;
  unit: QuantityKind;
  onChange: (keys: CueKey[], gesture?: string) => void;
}) {
  const { cue, unit, onChange } = props;
  const { keys, action } = cue;
  const put = (i: number, part: Partial<CueKey>, gesture?: string) =>
    onChange(
      keys.map((key, k) => (k === i ? { ...key, ...part } : key)),
      gesture,
    );
  return (
    <>
      {keys.map((key, i) => (
        <KeyLine key={i} role="group" aria-label={`${cue.name}, key ${i + 1}`}>
          <QuantityField
            label="At"
            kind={unit}
            value={key.at}
            step={unit === 'time' ? 0.1 : 0.5}
            min={i > 0 ? keys[i - 1].at + 0.01 : undefined}
            max={i + 1 < keys.length ? keys[i + 1].at - 0.01 : undefined}
            onChange={(at, gesture) => put(i, { at }, gesture)}
          />
          <QuantityField
            {...VALUES[action.kind === 'turn' || action.kind === 'move' ? action.kind : 'part']}
            value={key.value}
            onChange={(value, gesture) => put(i, { value }, gesture)}
          />
          <Select
            label="Ease"
            options={KEY_EASE_LABELS}
            value={key.ease}
            onChange={(ease) => put(i, { ease })}
          />
          <IconButton label={`Delete key ${i + 1}`} onPress={() => onChange(keys.filter((_, k) => k !== i))}>
            <Trash2 aria-hidden />
          </IconButton>
        </KeyLine>
      ))}
      <Buttons>
        <Button
          onPress={() => {
            const last = keys[keys.length - 1];
            onChange([...keys, { at: (last?.at ?? 0) + 4, value: last?.value ?? 0, ease: 'smooth' }]);
          }}
        >
          <Plus aria-hidden /> Key
        </Button>
      </Buttons>
    </>
  );
}
