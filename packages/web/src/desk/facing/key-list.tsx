import { withKey } from '@fleet-rail/core';
import type { KeyEase } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import type { QuantityKind } from '../../ui/quantity';
import { Select } from '../../ui/select';
import { EASES } from '../eases';
import { useDesk } from '../desk-store';

const Line = styled.div`
  display: grid;
  grid-template-columns: 68px 64px minmax(0, 1fr) 28px;
  align-items: end;
  gap: 6px;
`;

interface ValueKey {
  readonly frame: number;
  readonly value: number;
  readonly ease: KeyEase;
}

/** A heading that tells how many keys there are. */
export function withCount(title: string, { length }: readonly unknown[]): string {
  return length === 0 ? title : `${title} (${length} ${length === 1 ? 'key' : 'keys'})`;
}

/** Keys of one value over frames: a table that can be edited, and a button for one at the playhead. */
export function KeyList(props: {
  name: string;
  keys: readonly ValueKey[];
  /** What is keyed at a frame where the button is pressed. */
  valueAt: (frame: number) => number;
  onChange: (keys: ValueKey[], gesture?: string) => void;
  kind?: QuantityKind;
  unit?: string;
  min?: number;
  max?: number;
  step?: number;
}) {
  const { name, keys, valueAt, onChange, kind = 'count', unit, min, max, step = 0.05 } = props;
  const frame = useDesk((state) => state.frame);
  const fps = useDesk((state) => state.shot.fps);
  const put = (i: number, part: Partial<ValueKey>, gesture?: string) =>
    onChange(
      keys.map((key, n) => (n === i ? { ...key, ...part } : key)),
      gesture,
    );
  return (
    <>
      {keys.map((key, i) => (
        <Line key={i} role="group" aria-label={`${name}, key ${i + 1}`}>
          <QuantityField
            label="Frame"
            kind="frame"
            fps={fps}
            value={key.frame}
            // Between its neighbours, so that keys stay in order while one is dragged.
            min={i > 0 ? keys[i - 1].frame + 0.01 : undefined}
            max={i < keys.length - 1 ? keys[i + 1].frame - 0.01 : undefined}
            onChange={(next, gesture) => put(i, { frame: next }, gesture)}
          />
          <QuantityField
            label="Value"
            kind={kind}
            unit={unit}
            value={key.value}
            min={min}
            max={max}
            step={step}
            onChange={(value, gesture) => put(i, { value }, gesture)}
          />
          <Select label="Ease" options={EASES} value={key.ease} onChange={(ease) => put(i, { ease })} />
          <IconButton label={`Delete key ${i + 1}`} onPress={() => onChange(keys.filter((_, n) => n !== i))}>
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      <Buttons>
        <Button
          onPress={() =>
            onChange(withKey(keys, { frame, value: Number(valueAt(frame).toFixed(6)), ease: 'smooth' }))
          }
        >
          <Plus aria-hidden /> Key {name} at frame {Math.round(frame)}
        </Button>
      </Buttons>
    </>
  );
}
