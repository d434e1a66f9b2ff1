import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import { createShot } from '../../api/shots';
import { Button, PrimaryButton } from '../../ui/button';
import { notify } from '../../ui/notices';
import { useDeskStore } from '../../state/desk-store';
import { dropDraft } from './drafts';
import { useAutosave, useSaveState } from './save-context';

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  padding: 8px 16px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  border-left: 4px solid ${({ theme }) => theme.signal};
  background: ${({ theme }) => theme.panel};
  & > p {
    flex: 1 1 360px;
  }
`;

/** Told when the shot was saved elsewhere, or is not taken by the server: what there is to choose. */
export function ConflictBanner({ shotId }: { shotId: string }) {
  const autosave = useAutosave();
  const desk = useDeskStore();
  const save = useSaveState();
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  if (save.kind !== 'conflict' && save.kind !== 'refused') return null;
  const act = async (action: () => Promise<void>) => {
    setBusy(true);
    try {
      await action();
    } catch (error) {
      notify('error', sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  const saveCopy = async () => {
    const { shot } = desk.getState();
    const copy = await createShot({ document: { ...shot, name: `${shot.name.slice(0, 180)} (my copy)` } });
    await dropDraft(shotId);
    navigate(`/shots/${copy.id}/path`);
  };
  if (save.kind === 'refused') {
    return (
      <Strip role="alert">
        <p>The server rejected this shot: {save.message} Undo or correct the last step. Nothing is lost.</p>
      </Strip>
    );
  }
  return (
    <Strip role="alert">
      <p>{save.message} Your edits are safe and nothing was overwritten. Which version do you keep?</p>
      <PrimaryButton isPending={busy} onPress={() => void act(saveCopy)}>
        Save mine as a copy
      </PrimaryButton>
      <Button isPending={busy} onPress={() => void act(() => autosave.takeSaved())}>
        Use the saved one (undo restores mine)
      </Button>
    </Strip>
  );
}
