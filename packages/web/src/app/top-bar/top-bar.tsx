import {
  Check,
  CircleAlert,
  Flag,
  Loader,
  Moon,
  PackageCheck,
  Pencil,
  Redo2,
  Sun,
  Undo2,
  Keyboard,
} from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled, { useTheme } from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { useSwapTheme } from '../../ui/theme/theme-provider';
import { QuietButton } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { NameDialog } from '../../ui/name-dialog';
import { useDesk } from '../../state/desk-store';
import { HistoryMenu } from './history-menu';
import { ShortcutsDialog } from '../shortcuts/shortcuts-dialog';
import { useSaveState } from '../saving/save-context';
import type { SaveState } from '../saving/autosave';
import { useAskBeforeClosing } from '../../ui/use-ask-before-closing';
import { CheckpointsDialog } from '../saving/checkpoints-dialog';

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 4px;
  height: 44px;
  padding-right: 10px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  background: ${({ theme }) => theme.panel};
`;

const Home = styled(Link)`
  display: grid;
  place-items: center;
  align-self: stretch;
  width: 56px;
  border-right: 1px solid ${({ theme }) => theme.hairline};
  color: ${({ theme }) => theme.ink};
  font: 600 18px/1 ${LABEL_FONT};
  text-decoration: none;
  &:hover {
    background: ${({ theme }) => theme.wash};
  }
  &:focus-visible {
    outline-offset: -3px;
  }
`;

const Name = styled.h1`
  max-width: 300px;
  margin-left: 12px;
  overflow: hidden;
  font-size: 15px;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const HandOver = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: 28px;
  margin-left: 4px;
  padding: 0 12px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  color: ${({ theme }) => theme.ink};
  font-weight: 500;
  text-decoration: none;
  & svg {
    width: 15px;
    height: 15px;
    stroke-width: 1.75;
  }
  &:hover {
    background: ${({ theme }) => theme.wash};
  }
`;

const Saved = styled.span<{ $kind: SaveState['kind'] }>`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  min-width: 96px;
  margin: 0 8px;
  color: ${({ theme, $kind }) => ($kind === 'saved' ? theme.settled : $kind === 'conflict' || $kind === 'refused' ? theme.signalText : theme.attention)};
  & svg {
    width: 14px;
    height: 14px;
  }
`;

const Spacer = styled.span`
  flex: 1;
`;

const SAYS: Record<SaveState['kind'], string> = {
  saved: 'saved',
  unsaved: 'not saved yet',
  saving: 'saving…',
  slow: 'no answer yet; kept here',
  waiting: 'waiting for the server',
  conflict: 'newer version saved',
  refused: 'rejected',
};

/** The shot's name and state, undo, checkpoints, day and night. */
export function TopBar({ shotId }: { shotId: string }) {
  const theme = useTheme();
  const swapTheme = useSwapTheme();
  const saved = useSaveState();
  const pending = useDesk((state) => state.pendingEdits.size > 0);
  const save: SaveState = saved.kind === 'saved' && pending ? { kind: 'unsaved' } : saved;
  useAskBeforeClosing(pending);
  const name = useDesk((state) => state.shot.name);
  const undone = useDesk((state) => state.past.at(-1)?.label);
  const redone = useDesk((state) => state.future[0]?.label);
  const edit = useDesk((state) => state.edit);
  const undo = useDesk((state) => state.undo);
  const redo = useDesk((state) => state.redo);
  const [open, setOpen] = useState<'checkpoints' | 'shortcuts' | 'name' | null>(null);
  const SaveIcon =
    save.kind === 'saved' ? Check : ['saving', 'slow', 'unsaved'].includes(save.kind) ? Loader : CircleAlert;
  return (
    <Bar>
      <Home to="/" aria-label="All shots" title="All shots">
        FR
      </Home>
      <Name title={name}>{name}</Name>
      <IconButton label="Rename the shot" onPress={() => setOpen('name')}>
        <Pencil aria-hidden />
      </IconButton>
      <Saved
        $kind={save.kind}
        role="status"
        aria-label="Save state"
        title={'message' in save ? save.message : undefined}
      >
        <SaveIcon aria-hidden /> {SAYS[save.kind]}
      </Saved>
      <IconButton label={undone ? `Undo: ${undone}` : 'Undo'} isDisabled={!undone} onPress={undo}>
        <Undo2 aria-hidden />
      </IconButton>
      <IconButton label={redone ? `Redo: ${redone}` : 'Redo'} isDisabled={!redone} onPress={redo}>
        <Redo2 aria-hidden />
      </IconButton>
      <HistoryMenu />
      <QuietButton onPress={() => setOpen('checkpoints')}>
        <Flag aria-hidden /> Checkpoints
      </QuietButton>
      <Spacer />
      <QuietButton onPress={swapTheme}>
        {theme.mode === 'day' ? <Moon aria-hidden /> : <Sun aria-hidden />}{' '}
        {theme.mode === 'day' ? 'Night' : 'Day'}
      </QuietButton>
      <IconButton label="Shortcuts" onPress={() => setOpen('shortcuts')}>
        <Keyboard aria-hidden />
      </IconButton>
      <HandOver to={`/shots/${shotId}/hand-over`}>
        <PackageCheck aria-hidden /> Hand over
      </HandOver>
      {open === 'checkpoints' && <CheckpointsDialog shotId={shotId} onClose={() => setOpen(null)} />}
      {open === 'name' && (
        <NameDialog
          title="Rename the shot"
          label="Name"
          start={name}
          action="Rename"
          onName={(next) => {
            edit('Rename the shot', (shot) => ({ ...shot, name: next }));
            setOpen(null);
          }}
          onClose={() => setOpen(null)}
        />
      )}
      {open === 'shortcuts' && <ShortcutsDialog onClose={() => setOpen(null)} />}
    </Bar>
  );
}
