import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';

const Track = styled.div`
  height: 6px;
  border-radius: 3px;
  background: ${({ theme }) => theme.hairline};
  overflow: hidden;
  & > div {
    height: 100%;
    background: ${({ theme }) => theme.ink};
  }
`;

/** How far long work is, 0 to 1. */
export function Progress({ label, part }: { label: string; part: number }) {
  return (
    <ProgressBar aria-label={label} value={100 * part}>
      <Track>
        <div style={{ width: `${100 * part}%` }} />
      </Track>
    </ProgressBar>
  );
}
