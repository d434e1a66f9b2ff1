import { Header, MenuItem, Popover } from 'react-aria-components';
import styled from 'styled-components';

/** Content of an open menu. */
export const MenuSheet = styled(Popover)`
  max-height: 360px;
  overflow: auto;
  min-width: 200px;
  padding: 4px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
`;

/** An item of a menu. */
export const MenuEntry = styled(MenuItem)`
  padding: 4px 8px;
  border-radius: 4px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
`;

/** Title of a section of a menu. */
export const MenuTitle = styled(Header)`
  padding: 6px 8px 2px;
  color: ${({ theme }) => theme.quiet};
  font-size: 11px;
`;
