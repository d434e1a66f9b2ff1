import { offsetAt, type Hitch, type Offset, type Rider, withKey } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { changeHitch } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../desk-store';

const OFFSETS: readonly { key: keyof Offset; label: string; kind: 'length' | 'angle' }[] = [
  { key: 'along', label: 'Ahead', kind: 'length' },
  { key: 'side', label: 'To the left', kind: 'length' },
  { key: 'rise', label: 'Up', kind: 'length' },
  { key: 'yaw', label: 'Turn left', kind: 'angle' },
  { key: 'pitch', label: 'Nose up', kind: 'angle' },
  { key: 'roll', label: 'Roll right', kind: 'angle' },
];

/** Where the rider sits beside its place on the path; keyed, where it changes over time. */
export function OffsetSection({ rider, hitch }: { rider: Rider; hitch: Hitch }) {
  const edit = useDesk((state) => state.edit);
  const frame = useDesk((state) => state.frame);
  const keyed = hitch.offsetKeys.length > 0;
  const now = offsetAt(hitch, frame);
  const here = hitch.offsetKeys.some((key) => key.frame === frame);
  const key = (offset: Offset, gesture?: string) =>
    edit(
      'Key offset',
      changeHitch(rider.id, (before) => ({
        ...before,
        offsetKeys: withKey(before.offsetKeys, { ...offset, frame, ease: 'smooth' }),
      })),
      gesture,
    );
  const change = (part: Partial<Offset>, gesture?: string) =>
    keyed
      ? key({ ...now, ...part }, gesture)
      : edit(
          'Offset',
          changeHitch(rider.id, (before) => ({ ...before, offset: { ...before.offset, ...part } })),
          gesture,
        );
  const removeHere = () =>
    edit(
      'Delete key',
      changeHitch(rider.id, (before) => ({
        ...before,
        offset: before.offsetKeys.length === 1 ? now : before.offset,
        offsetKeys: before.offsetKeys.filter((other) => other.frame !== frame),
      })),
    );
  return (
    <Section aria-label="Offset from its path">
      <SectionTitle>Offset from its path</SectionTitle>
      <FieldGrid>
        {OFFSETS.map(({ key: part, label, kind }) => (
          <QuantityField
            key={part}
            label={label}
            kind={kind}
            value={now[part]}
            step={kind === 'length' ? 0.05 : 1}
            onChange={(value, gesture) => change({ [part]: value }, gesture)}
          />
        ))}
      </FieldGrid>
      {keyed && (
        <Hint>
          Keys at frames {hitch.offsetKeys.map((other) => showNumber(other.frame, 2)).join(', ')}. A change
          makes one here.
        </Hint>
      )}
      <Buttons>
        {here ? (
          <Button onPress={removeHere}>
            <Trash2 aria-hidden /> Delete the key here
          </Button>
        ) : (
          <Button onPress={() => key(now)}>
            <Plus aria-hidden /> Key offset at frame {Math.round(frame)}
          </Button>
        )}
      </Buttons>
    </Section>
  );
}
