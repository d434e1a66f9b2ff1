import type { ReactNode } from 'react';
import { Checkbox } from 'react-aria-components';
import styled from 'styled-components';

const Box = styled(Checkbox)`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 24px;
  cursor: pointer;
  & > span {
    flex: none;
    width: 14px;
    height: 14px;
    border: 1px solid ${({ theme }) => theme.quiet};
    border-radius: 3px;
    background: ${({ theme }) => theme.panel};
  }
  &[data-selected] > span {
    border-color: ${({ theme }) => theme.ink};
    background: ${({ theme }) => theme.ink};
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.panel};
  }
  &[data-indeterminate] > span {
    box-shadow: inset 0 0 0 4px ${({ theme }) => theme.quiet};
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.signal};
    outline-offset: 2px;
    border-radius: 3px;
  }
`;

/** Something that is so or not so. */
export function Tick(props: {
  children: ReactNode;
  isSelected: boolean;
  isMixed?: boolean;
  isDisabled?: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <Box
      isSelected={props.isSelected}
      isIndeterminate={props.isMixed}
      isDisabled={props.isDisabled}
      onChange={props.onChange}
    >
      <span aria-hidden />
      {props.children}
    </Box>
  );
}
