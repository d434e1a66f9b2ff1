import { GridList, GridListItem } from 'react-aria-components';
import styled from 'styled-components';

/** A selectable list, navigated by arrow keys. */
export const RowList = styled(GridList)`
  display: flex;
  flex-direction: column;
  max-height: 260px;
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
` as typeof GridList;

export const Row = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 32px;
  padding: 2px 4px 2px 10px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  cursor: pointer;
  &:last-child {
    border-bottom: 0;
  }
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-selected] {
    background: ${({ theme }) => theme.wash};
    box-shadow: inset 3px 0 ${({ theme }) => theme.ink};
  }
  &[data-focus-visible] {
    outline-offset: -2px;
  }
`;

export const RowName = styled.span`
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

export const RowFigure = styled.span`
  color: ${({ theme }) => theme.quiet};
  white-space: nowrap;
`;
