import styled from 'styled-components';

export const WheelCard = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 8px 0 2px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

export const WheelHead = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  & > strong {
    font-weight: 600;
    white-space: nowrap;
  }
  & > span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: ${({ theme }) => theme.quiet};
  }
`;

/** A measure, a button that takes it anew, and a tick. */
export const WheelLine = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 28px minmax(0, 1fr);
  align-items: end;
  gap: 8px;
`;
