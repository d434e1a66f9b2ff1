import { numberedName, type Attachment, type Rider } from '@fleet-rail/core';
import { Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { changeAttachment } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, Hint } from '../../ui/panel';
import { useDesk } from '../../state/desk-store';

const MOST = 20;

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  & > b {
    flex: 1;
    font-weight: 500;
  }
`;

/** Timings kept to compare with: both are seen, and either can be kept. */
export function TakesFold({ rider, attachment }: { rider: Rider; attachment: Attachment }) {
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const shown = useDesk((state) => state.take);
  const { takes } = attachment;
  const change = (label: string, next: (before: Attachment) => Attachment) =>
    edit(label, changeAttachment(rider.id, next));
  const keep = () => {
    const count = takes.length;
    const name = numberedName('Take', takes);
    change('Keep a take', (before) => ({ ...before, takes: [...before.takes, { name, pace: before.pace }] }));
    set({ take: count });
  };
  const swap = (i: number) =>
    change('Swap takes', (before) => ({
      ...before,
      pace: before.takes[i].pace,
      takes: before.takes.map((take, k) => (k === i ? { ...take, pace: before.pace } : take)),
    }));
  const remove = (i: number) => {
    change('Delete take', (before) => ({ ...before, takes: before.takes.filter((_, k) => k !== i) }));
    set({ take: null });
  };
  return (
    <Fold
      title={takes.length === 0 ? 'Compare takes' : `Compare takes (${takes.length})`}
      isOpen={takes.length > 0}
    >
      <Hint>Keep this pace, then change it: the take stays visible as a dotted line and ghost.</Hint>
      {takes.map((take, i) => (
        <Line key={i} role="group" aria-label={take.name}>
          <b>{take.name}</b>
          <Button onPress={() => set({ take: shown === i ? null : i })}>
            {shown === i ? 'Hide' : 'Show'}
          </Button>
          <Button onPress={() => swap(i)}>Swap</Button>
          <IconButton label={`Delete ${take.name}`} onPress={() => remove(i)}>
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      <Buttons>
        <Button isDisabled={takes.length >= MOST} onPress={keep}>
          Keep a take
        </Button>
      </Buttons>
    </Fold>
  );
}
