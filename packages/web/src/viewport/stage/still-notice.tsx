import styled from 'styled-components';
import { Button } from '../../ui/button';

const Strip = styled.div`
  position: absolute;
  bottom: 52px;
  left: 12px;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 6px 6px 12px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  font-size: 12px;
`;

/** Says that a still stage is older than the shot, and offers to draw it. */
export function StillNotice({ onDraw }: { onDraw: () => void }) {
  return (
    <Strip role="note" aria-label="Still stage">
      Not drawn since the last change.
      <Button onPress={onDraw}>Draw the stage (Shift S)</Button>
    </Strip>
  );
}
