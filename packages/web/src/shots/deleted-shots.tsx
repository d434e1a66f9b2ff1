import { Undo2 } from 'lucide-react';
import styled from 'styled-components';
import type { ShotCard } from '../api/shots';
import { Button } from '../ui/button';
import { Fold } from '../ui/fold';

/** As wide as what it lists; a fold has its own padding. */
const Bin = styled.div`
  max-width: 520px;
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
`;

/** Shots that were deleted: each can be brought back. */
export function DeletedShots(props: { shots: readonly ShotCard[]; onBringBack: (shot: ShotCard) => void }) {
  const { shots, onBringBack } = props;
  if (shots.length === 0) return null;
  return (
    <Bin>
      <Fold title={`Deleted (${shots.length})`}>
        <List>
          {shots.map((shot) => (
            <li key={shot.id}>
              <span>{shot.name}</span>
              <Button onPress={() => onBringBack(shot)} aria-label={`Bring back ${shot.name}`}>
                <Undo2 aria-hidden /> Bring back
              </Button>
            </li>
          ))}
        </List>
      </Fold>
    </Bin>
  );
}
