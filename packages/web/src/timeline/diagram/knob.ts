import styled from 'styled-components';

/** A key that is taken hold of. */
export const Knob = styled.circle<{ $chosen?: boolean }>`
  fill: ${({ theme, $chosen }) => ($chosen ? theme.ink : theme.panel)};
  stroke-width: 3;
  cursor: grab;
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 2px;
  }
`;
