import { scaleKeys, type Pace } from '@fleet-rail/core';
import { useRef, type PointerEvent } from 'react';
import styled from 'styled-components';
import { useDesk } from '../../state/desk-store';
import type { KeyedLine } from './keyed-line';
import type { PaceGeometry } from './pace-geometry';
import { svgPlace } from './svg-place';
import { dragEnd } from '../../ui/drag-end';

const Outline = styled.rect`
  fill: none;
  stroke: ${({ theme }) => theme.quiet};
  stroke-dasharray: 4 3;
  pointer-events: none;
`;

const Grip = styled.rect<{ $cursor: string }>`
  fill: ${({ theme }) => theme.panel};
  stroke: ${({ theme }) => theme.quiet};
  cursor: ${({ $cursor }) => $cursor};
`;

const PAD = 10;

/** A box round the chosen keys, whose right and upper edge scale them in time and in distance. */
export function KeyBox({ line }: { line: KeyedLine }) {
  const { pace, geometry } = line;
  const chosen = useDesk((state) => state.keys);
  const drag = useRef<{ pace: Pace; gesture: string; geometry: PaceGeometry; way: 'time' | 'value' } | null>(
    null,
  );
  const keys = [...chosen].sort((a, b) => a - b).flatMap((i) => pace.keys[i] ?? []);
  if (keys.length < 2) return null;
  const [first, last] = [keys[0], keys[keys.length - 1]];
  const values = keys.map(({ value }) => value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const [x0, x1] = [geometry.across(first.frame), geometry.across(last.frame)];
  if (x0 === null || x1 === null) return null;
  const [y0, y1] = [geometry.up(high), geometry.up(low)];
  const begin = (event: PointerEvent<SVGElement>, way: 'time' | 'value') => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { pace, gesture: `scale ${event.timeStamp}`, geometry, way };
  };
  const move = (event: PointerEvent<SVGElement>) => {
    const start = drag.current;
    if (start === null) return;
    const { px, py } = svgPlace(event);
    const before = [...chosen].sort((a, b) => a - b).map((i) => start.pace.keys[i]);
    const [from, to] = [before[0], before[before.length - 1]];
    const bottom = Math.min(...before.map(({ value }) => value));
    const top = Math.max(...before.map(({ value }) => value));
    const frame = Math.round(start.geometry.frameAt(px - PAD));
    const value = start.geometry.valueAt(py + PAD);
    const scale =
      start.way === 'time'
        ? { frames: (frame - from.frame) / (to.frame - from.frame), value: 1 }
        : { frames: 1, value: top > bottom ? (value - bottom) / (top - bottom) : 1 };
    line.change(
      'Scale keys',
      () => scaleKeys(start.pace, chosen, { frame: from.frame, value: bottom }, scale),
      start.gesture,
    );
  };
  const end = () => {
    drag.current = null;
  };
  const events = { onPointerMove: move, ...dragEnd(end) };
  return (
    <g aria-hidden>
      <Outline x={x0 - PAD} y={y0 - PAD} width={x1 - x0 + 2 * PAD} height={y1 - y0 + 2 * PAD} />
      <Grip
        $cursor="ew-resize"
        x={x1 + PAD - 4}
        y={(y0 + y1) / 2 - 10}
        width={8}
        height={20}
        rx={3}
        data-scale="time"
        onPointerDown={(event) => begin(event, 'time')}
        {...events}
      />
      <Grip
        $cursor="ns-resize"
        x={(x0 + x1) / 2 - 10}
        y={y0 - PAD - 4}
        width={20}
        height={8}
        rx={3}
        data-scale="value"
        onPointerDown={(event) => begin(event, 'value')}
        {...events}
      />
    </g>
  );
}
