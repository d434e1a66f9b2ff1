import styled from 'styled-components';
import { LABEL_FONT } from '../../theme/global-style';

export const AxisText = styled.text`
  font: 500 11px ${LABEL_FONT};
  fill: ${({ theme }) => theme.quiet};
`;

/** A name on the lines, legible over them. */
export const MarkText = styled.text`
  font: 500 12px ${LABEL_FONT};
  fill: ${({ theme }) => theme.ink};
  paint-order: stroke;
  stroke: ${({ theme }) => theme.panel};
  stroke-width: 3px;
  pointer-events: none;
`;

/** What is being dragged, in numbers. */
export const Told = styled(MarkText)`
  font-weight: 600;
  stroke-width: 4px;
`;
