import styled from 'styled-components';
import { Dialog } from '../../ui/dialog';
import { SHORTCUTS } from './shortcuts';

const Table = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 16px;
  margin: 0;
  & dt {
    font-weight: 600;
    white-space: nowrap;
  }
  & dd {
    margin: 0;
  }
`;

/** Which keys do what. */
export function ShortcutsDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Shortcuts" isOpen onClose={onClose}>
      <Table>
        {SHORTCUTS.map(({ keys, does }) => (
          <div key={does} style={{ display: 'contents' }}>
            <dt>{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </Table>
    </Dialog>
  );
}
