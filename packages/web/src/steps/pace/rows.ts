import styled from 'styled-components';

/** A key in a table: two numbers, how it runs on, and a button. */
export const KeyLine = styled.div`
  display: grid;
  grid-template-columns: 66px 66px minmax(0, 1fr) 28px;
  align-items: end;
  gap: 6px;
`;

/** One of several items, with its fields. */
export const Card = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 0;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

export const CardHead = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
`;
