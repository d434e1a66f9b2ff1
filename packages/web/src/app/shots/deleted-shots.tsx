import { Trash2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import { useEmptyBin, type Emptied, type ShotCard } from '../../api/shots';
import { Button, PrimaryButton } from '../../ui/button';
import { Dialog, DialogButtons } from '../../ui/dialog';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Buttons, Hint } from '../../ui/panel';

/** As wide as what it lists; a fold has its own padding. */
const Bin = styled.div`
  max-width: 560px;
  margin: 24px -16px 0;
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 6px 0;
    border-bottom: 1px solid ${({ theme }) => theme.hairline};
  }
  & > li > span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > li > small {
    color: ${({ theme }) => theme.quiet};
  }
`;

/** Deleted shots: each can be brought back or deleted for good, and all together. */
export function DeletedShots(props: { shots: readonly ShotCard[]; onBringBack: (shot: ShotCard) => void }) {
  const { shots, onBringBack } = props;
  const [asked, setAsked] = useState<ShotCard | 'all' | null>(null);
  const empty = useEmptyBin();
  if (shots.length === 0) return null;
  const deleteForGood = () =>
    empty.mutate(asked === 'all' || asked === null ? null : asked.id, {
      onSuccess: (emptied) => notify('done', emptiedInWords(emptied)),
      onError: (error) => notify('error', sentenceOf(error)),
      onSettled: () => setAsked(null),
    });
  const what =
    asked === 'all' ? `${shots.length} ${shots.length === 1 ? 'shot' : 'shots'}` : `"${asked?.name}"`;
  return (
    <Bin>
      <Fold title={`Deleted (${shots.length})`}>
        <List aria-label="Deleted shots">
          {shots.map((shot) => (
            <li key={shot.id}>
              <span title={shot.name}>{shot.name}</span>
              <small>{daysLeft(shot)}</small>
              <Button onPress={() => onBringBack(shot)} aria-label={`Restore ${shot.name}`}>
                <Undo2 aria-hidden /> Restore
              </Button>
              <IconButton label={`Delete ${shot.name} for good`} onPress={() => setAsked(shot)}>
                <Trash2 aria-hidden />
              </IconButton>
            </li>
          ))}
        </List>
        <Hint>Deleted shots are kept for 30 days.</Hint>
        <Buttons>
          <Button onPress={() => setAsked('all')}>
            <Trash2 aria-hidden /> Empty the bin
          </Button>
        </Buttons>
      </Fold>
      <Dialog title={`Delete ${what} for good?`} isOpen={asked !== null} onClose={() => setAsked(null)}>
        <p>This also deletes their checkpoints and unused models. It cannot be undone.</p>
        <DialogButtons>
          <Button onPress={() => setAsked(null)}>Cancel</Button>
          <PrimaryButton isPending={empty.isPending} onPress={deleteForGood}>
            {empty.isPending ? 'Deleting…' : 'Delete for good'}
          </PrimaryButton>
        </DialogButtons>
      </Dialog>
    </Bin>
  );
}

function daysLeft({ deleteAfter }: ShotCard): string {
  if (deleteAfter === null) return '';
  const days = Math.max(0, Math.ceil((Date.parse(deleteAfter) - Date.now()) / 86_400_000));
  return days === 1 ? '1 day left' : `${days} days left`;
}

function emptiedInWords({ shots, checkpoints, models, bytes }: Emptied): string {
  const counted = (count: number, noun: string) => `${count} ${noun}${count === 1 ? '' : 's'}`;
  const freed = bytes >= 1e5 ? `, ${(bytes / 1e6).toFixed(1)} MB freed` : '';
  return `Deleted for good: ${counted(shots, 'shot')}, ${counted(checkpoints, 'checkpoint')}, ${counted(models, 'model')}${freed}.`;
}
