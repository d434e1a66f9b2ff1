import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { MARGIN } from './diagram-scales';

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

const Told = styled(MarkText)`
  font-weight: 600;
  stroke-width: 4px;
`;

/** Beyond here a text is before its point, so that it is not cut. */
const FAR = 420;

/** Value being dragged, beside the pointer. */
export function Telling({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <Told x={x + 12} y={y - 12} textAnchor={x > FAR ? 'end' : 'start'}>
      {text}
    </Told>
  );
}

/** A level line from edge to edge. */
export function LevelLine(props: { y: number; width: number; stroke: string; strokeDasharray?: string }) {
  const { y, width, ...line } = props;
  return <line x1={MARGIN.left} x2={width - MARGIN.right} y1={y} y2={y} {...line} />;
}
