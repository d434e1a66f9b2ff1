import styled from 'styled-components';
import { Progress } from '../../ui/progress';
import { useDesk } from '../../state/desk-store';

const Strip = styled.div`
  position: absolute;
  bottom: 44px;
  left: 12px;
  width: 190px;
  padding: 6px 10px 8px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  font-size: 12px;
`;

/** While forces are worked out: how far that is. What is on the stage is what they were before. */
export function Settling() {
  const part = useDesk(({ evaluation }) => evaluation?.settling ?? null);
  if (part === null) return null;
  return (
    <Strip role="status">
      Computing forces…
      <Progress label="Computing forces" part={part} />
    </Strip>
  );
}
