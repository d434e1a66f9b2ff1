import { offsetAt, type Attachment, type Offset, type Rider, withKey } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { changeAttachment } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { CHANNELS } from '../../ui/words/channel-names';
import { useDesk } from '../../state/desk-store';
import { KeyList, withCount } from './key-list';

const OFFSETS: readonly { key: keyof Offset; label: string; kind: 'length' | 'angle' }[] = [
  { key: 'along', label: 'Ahead', kind: 'length' },
  { key: 'side', label: 'To the left', kind: 'length' },
  { key: 'rise', label: 'Up', kind: 'length' },
  { key: 'yaw', label: 'Turn left', kind: 'angle' },
  { key: 'pitch', label: 'Nose up', kind: 'angle' },
  { key: 'roll', label: 'Roll right', kind: 'angle' },
];

/** Offset of a rider from its point on the path; keyed, if it changes over time. */
export function OffsetSection({ rider, attachment }: { rider: Rider; attachment: Attachment }) {
  const edit = useDesk((state) => state.edit);
  const frame = useDesk((state) => state.frame);
  const line = useDesk((state) => state.line);
  const set = useDesk((state) => state.set);
  const part = OFFSETS.find(({ key: id }) => id === line)?.key ?? 'side';
  const setPart = (next: keyof Offset) => set({ line: next });
  const keyed = attachment.offsetKeys.length > 0;
  const now = offsetAt(attachment, frame);
  const here = attachment.offsetKeys.some((key) => key.frame === frame);
  const key = (offset: Offset, gesture?: string) =>
    edit(
      'Key offset',
      changeAttachment(rider.id, (before) => ({
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
          changeAttachment(rider.id, (before) => ({ ...before, offset: { ...before.offset, ...part } })),
          gesture,
        );
  const removeHere = () =>
    edit(
      'Delete key',
      changeAttachment(rider.id, (before) => ({
        ...before,
        offset: before.offsetKeys.length === 1 ? now : before.offset,
        offsetKeys: before.offsetKeys.filter((other) => other.frame !== frame),
      })),
    );
  return (
    <Section aria-label="Offset from its path">
      <SectionTitle>Offset from its path</SectionTitle>
      <FieldGrid>
        {OFFSETS.map(({ key: own, label, kind }) => (
          <QuantityField
            key={own}
            label={label}
            kind={kind}
            value={now[own]}
            step={kind === 'length' ? 0.05 : 1}
            onChange={(value, gesture) => change({ [own]: value }, gesture)}
          />
        ))}
      </FieldGrid>
      {keyed && <Hint>Keyed: a change sets a key at this frame.</Hint>}
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
      {keyed && (
        <Fold title={withCount('Keys of the offset', attachment.offsetKeys)}>
          <Select label="Value" options={CHANNEL_NAMES} value={part} onChange={setPart} />
          <KeyList rider={rider} channel={part} name={CHANNELS[part].name.toLowerCase()} />
        </Fold>
      )}
    </Section>
  );
}

const CHANNEL_NAMES = OFFSETS.map(({ key }) => ({ id: key, name: CHANNELS[key].name }));
