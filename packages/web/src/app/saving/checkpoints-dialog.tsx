import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import { restoreCheckpoint, useNewCheckpoint, useCheckpoints } from '../../api/shots';
import { Button, PrimaryButton } from '../../ui/button';
import { Dialog, DialogButtons } from '../../ui/dialog';
import { TextField } from '../../ui/fields';
import { notify } from '../../ui/notices';
import { Hint } from '../../ui/panel';
import { useAutosave } from './save-context';

const List = styled.ul`
  display: flex;
  flex-direction: column;
  max-height: 280px;
  margin: 0;
  padding: 0;
  overflow: auto;
  & > li {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 6px 0;
    border-top: 1px solid ${({ theme }) => theme.hairline};
  }
  & > li > div {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  & small {
    display: block;
    color: ${({ theme }) => theme.quiet};
    font-size: 12px;
  }
`;

const Line = styled.form`
  display: flex;
  align-items: end;
  gap: 8px;
  & > :first-child {
    flex: 1;
  }
`;

/** Keep the present shot under a name, or restore an earlier one. */
export function CheckpointsDialog({ shotId, onClose }: { shotId: string; onClose: () => void }) {
  const autosave = useAutosave();
  const checkpoints = useCheckpoints(shotId);
  const checkpoint = useNewCheckpoint(shotId);
  const [name, setName] = useState('');
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await autosave.flush();
      await checkpoint.mutateAsync(name.trim() || 'Checkpoint');
      setName('');
    } catch (error) {
      notify('error', sentenceOf(error));
    }
  };
  const restore = async (id: string, checkpointName: string) => {
    try {
      await autosave.flush();
      const shot = await restoreCheckpoint(shotId, id, autosave.basedOn);
      await autosave.adoptSaved(`Back to "${checkpointName}"`, shot.revision, shot.document);
      notify(
        'done',
        `Back at "${checkpointName}". The previous state is kept as a checkpoint; undo restores it too.`,
      );
      onClose();
    } catch (error) {
      notify('error', sentenceOf(error));
    }
  };
  return (
    <Dialog title="Checkpoints" isOpen onClose={onClose}>
      <Line onSubmit={(event) => void keep(event)}>
        <TextField
          label="Name of the new checkpoint"
          value={name}
          onChange={setName}
          maxLength={200}
          autoFocus
        />
        <PrimaryButton type="submit" isPending={checkpoint.isPending}>
          Keep
        </PrimaryButton>
      </Line>
      {checkpoints.data?.length === 0 && <Hint>No checkpoints yet. Keep one before a risky change.</Hint>}
      <List aria-label="Checkpoints">
        {checkpoints.data?.map((checkpoint) => (
          <li key={checkpoint.id}>
            <div>
              {checkpoint.name}
              <small>{new Date(checkpoint.createdAt).toLocaleString()}</small>
            </div>
            <Button onPress={() => void restore(checkpoint.id, checkpoint.name)}>Restore</Button>
          </li>
        ))}
      </List>
      <DialogButtons>
        <Button onPress={onClose}>Close</Button>
      </DialogButtons>
    </Dialog>
  );
}
