import { Button as AriaButton, type ButtonProps } from 'react-aria-components';
import styled, { css } from 'styled-components';

const base = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  height: 28px;
  padding: 0 10px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
  font-weight: 500;
  white-space: nowrap;
  cursor: pointer;
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-pressed] {
    background: ${({ theme }) => theme.hairline};
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
  & svg {
    flex: none;
    width: 15px;
    height: 15px;
    stroke-width: 1.75;
  }
`;

/** The ordinary action. */
export const Button = styled(AriaButton)`
  ${base}
`;

/** The one action that comes next. */
export const PrimaryButton = styled(AriaButton)`
  ${base}
  background: ${({ theme }) => theme.signal};
  border-color: ${({ theme }) => theme.signal};
  color: #fff;
  font-weight: 600;
  &[data-hovered],
  &[data-pressed] {
    background: #b93a23;
  }
`;

/** An action in a bar or row, without an edge of its own. */
export const QuietButton = styled(AriaButton)`
  ${base}
  border-color: transparent;
  background: transparent;
  padding: 0 8px;
`;

export type { ButtonProps };
