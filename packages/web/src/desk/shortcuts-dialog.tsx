import styled from 'styled-components';
import { Dialog } from '../ui/dialog';

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

const KEYS = [
  ['1 – 7', 'Go to a step'],
  ['Space', 'Play, pause'],
  [', and .', 'One frame back, on'],
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
  ['Enter, Backspace, Esc', 'While drawing: finish, take the last point back, cancel'],
  ['Shift', 'While drawing: the next run straight. On points: add to the chosen ones, or drag a box'],
  ['Double click', 'On the selected path: a point there. In the run diagram: a key there'],
  [
    'Arrow keys, Page Up, Page Down',
    'On the stage: move the chosen points by the grid, lift them; in the list of points with Alt',
  ],
  ['Delete', 'Take the chosen points out; on a key of the diagram, the chosen keys'],
  ['Wheel, Shift wheel', 'Over the run diagram: nearer in time, nearer in distance'],
  ['Shift drag', 'Over the run diagram: choose the keys in a box'],
  ['Space', 'On a key of the diagram: choose it too, or no longer'],
  ['Enter, Esc', 'While something is shown first: accept, cancel'],
  ['Arrow keys', 'In a number or on a key of the diagram: step; with Shift ten times as far'],
] as const;

/** Which keys do what. */
export function HelpDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" isOpen onClose={onClose}>
      <Table>
        {KEYS.map(([key, does]) => (
          <div key={key} style={{ display: 'contents' }}>
            <dt>{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </Table>
    </Dialog>
  );
}
