import { X } from 'lucide-react';
import styled from 'styled-components';
import { create } from 'zustand';
import { QuietButton } from './button';
import { IconButton } from './icon-button';

interface Notice {
  readonly id: number;
  readonly kind: 'error' | 'done';
  readonly text: string;
  readonly action?: { readonly name: string; readonly run: () => void };
  /** Items of a notice, one by one. */
  readonly list: readonly string[];
}

const useNotices = create<{ notices: Notice[] }>(() => ({ notices: [] }));
let count = 0;

/** Says something at the foot of the page; what went wrong stays until it is closed. */
export function notify(
  kind: Notice['kind'],
  text: string,
  action?: Notice['action'],
  list: Notice['list'] = [],
): void {
  const notice = { id: ++count, kind, text, action, list };
  // A repeated message is shown once.
  const said = (one: Omit<Notice, 'id'>) => [one.kind, one.text, ...one.list].join('\n');
  const others = useNotices.getState().notices.filter((one) => said(one) !== said(notice));
  useNotices.setState({ notices: [...others, notice] });
  if (kind === 'done') setTimeout(() => dismiss(notice.id), action ? 12_000 : 5_000);
}

/** Reports files that were skipped, in one notice. */
export function notifyRefused(sentences: readonly string[], of: number): void {
  if (sentences.length === 1) notify('error', sentences[0]);
  if (sentences.length > 1)
    notify('error', `${sentences.length} of ${of} were skipped:`, undefined, sentences);
}

function dismiss(id: number): void {
  useNotices.setState(({ notices }) => ({ notices: notices.filter((notice) => notice.id !== id) }));
}

const Stack = styled.div`
  position: fixed;
  left: 50%;
  bottom: 16px;
  z-index: 200;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 8px;
  transform: translateX(-50%);
`;

const Slip = styled.div<{ $kind: Notice['kind'] }>`
  display: flex;
  align-items: center;
  gap: 8px;
  max-width: 640px;
  padding: 8px 8px 8px 12px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-left: 4px solid ${({ theme, $kind }) => ($kind === 'error' ? theme.signal : theme.settled)};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  overflow-wrap: anywhere;
`;

const List = styled.ul`
  max-height: 30vh;
  margin: 4px 0 0;
  padding-left: 18px;
  overflow-y: auto;
`;

const More = styled.small`
  color: ${({ theme }) => theme.quiet};
`;

/** List of notices. */
export function Notices() {
  const notices = useNotices((state) => state.notices);
  // One refusal at a time, the latest; the others wait behind it and are counted.
  const errors = notices.filter(({ kind }) => kind === 'error');
  const latest = errors.at(-1);
  const waiting = errors.length - 1;
  const shown = notices.filter((notice) => notice.kind === 'done' || notice === latest);
  return (
    <Stack>
      {shown.map(({ id, kind, text, action, list }) => (
        <Slip key={id} $kind={kind} role={kind === 'error' ? 'alert' : 'status'}>
          <div>
            {text}
            {list.length > 0 && (
              <List>
                {list.map((one, i) => (
                  <li key={i}>{one}</li>
                ))}
              </List>
            )}
            {kind === 'error' && waiting > 0 && <More> {waiting} more.</More>}
          </div>
          {action && (
            <QuietButton
              onPress={() => {
                dismiss(id);
                action.run();
              }}
            >
              {action.name}
            </QuietButton>
          )}
          <IconButton label="Close message" onPress={() => dismiss(id)}>
            <X aria-hidden />
          </IconButton>
        </Slip>
      ))}
    </Stack>
  );
}
