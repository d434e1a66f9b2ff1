import type { ReactNode } from 'react';
import { Tooltip, TooltipTrigger, type ButtonProps } from 'react-aria-components';
import styled from 'styled-components';
import { QuietButton } from './button';

const Square = styled(QuietButton)`
  width: 28px;
  padding: 0;
`;

const Tip = styled(Tooltip)`
  padding: 4px 8px;
  border-radius: 4px;
  background: ${({ theme }) => theme.ink};
  color: ${({ theme }) => theme.panel};
  font-size: 12px;
`;

/** An icon with its name as label and tooltip. */
export function IconButton({
  label,
  children,
  ...rest
}: { label: string; children: ReactNode } & ButtonProps) {
  return (
    <TooltipTrigger delay={400}>
      <Square aria-label={label} {...rest}>
        {children}
      </Square>
      <Tip offset={6}>{label}</Tip>
    </TooltipTrigger>
  );
}
