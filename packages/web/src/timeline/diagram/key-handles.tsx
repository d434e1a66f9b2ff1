import type { PaceKey } from '@fleet-rail/core';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import type { KeyedLine } from './keyed-line';
import type { PaceGeometry } from './pace-geometry';
import { svgPlace } from './svg-place';
import { dragEnd } from '../../ui/drag-end';

const Arm = styled.line`
  stroke: ${({ theme }) => theme.quiet};
  stroke-width: 1;
  pointer-events: none;
`;

const End = styled.rect`
  fill: ${({ theme }) => theme.quiet};
  cursor: grab;
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 2px;
  }
`;

type Side = 'in' | 'out';

/** The handles of stretches that are drawn by them. */
export function KeyHandles({ line }: { line: KeyedLine }) {
  const { pace, geometry } = line;
  const drag = useRef<{ i: number; side: Side; gesture: string; geometry: PaceGeometry } | null>(null);
  const put = (i: number, side: Side, handle: [number, number], gesture?: string) => {
    const sign = side === 'out' ? 1 : -1;
    // A handle never points back in time.
    const held: [number, number] = [sign * Math.max(0, sign * handle[0]), handle[1]];
    line.change(
      'Move handle',
      (before) => ({
        ...before,
        keys: before.keys.map((key, k): PaceKey => (k === i ? { ...key, [side]: held } : key)),
      }),
      gesture,
    );
  };
  const move = (event: PointerEvent<SVGElement>) => {
    const start = drag.current;
    if (start === null) return;
    const { px, py } = svgPlace(event);
    const key = pace.keys[start.i];
    const frames = start.geometry.frameAt(px) - key.frame;
    const value = start.geometry.valueAt(py) - key.value;
    put(start.i, start.side, [Number(frames.toFixed(2)), Number(value.toFixed(4))], start.gesture);
  };
  const nudge = (event: KeyboardEvent, i: number, side: Side) => {
    const [frames, value] = pace.keys[i][side];
    const many = event.shiftKey ? 10 : 1;
    const across = ({ ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0) * many;
    const up = ({ ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0) * many;
    if (across === 0 && up === 0) return;
    event.preventDefault();
    event.stopPropagation();
    put(i, side, [frames + across, value + up * line.step]);
  };
  const ends = pace.keys.flatMap((key, i): [number, Side][] => {
    const before = pace.keys[i - 1];
    return [
      ...(before?.ease === 'handles' ? [[i, 'in'] as [number, Side]] : []),
      ...(key.ease === 'handles' && i + 1 < pace.keys.length ? [[i, 'out'] as [number, Side]] : []),
    ];
  });
  return (
    <g>
      {ends.map(([i, side]) => {
        const key = pace.keys[i];
        const handle = key[side];
        const from = geometry.across(key.frame);
        const to = geometry.across(key.frame + handle[0]);
        if (from === null || to === null) return null;
        const [y0, y1] = [geometry.up(key.value), geometry.up(key.value + handle[1])];
        return (
          <g key={`${i} ${side}`}>
            <Arm x1={from} y1={y0} x2={to} y2={y1} />
            <End
              x={to - 4}
              y={y1 - 4}
              width={8}
              height={8}
              tabIndex={0}
              role="button"
              aria-label={`Handle ${side === 'in' ? 'into' : 'out of'} key ${i + 1}`}
              onPointerDown={(event) => {
                if (event.button !== 0) return;
                event.stopPropagation();
                event.currentTarget.setPointerCapture(event.pointerId);
                drag.current = { i, side, gesture: `handle ${event.timeStamp}`, geometry };
              }}
              onPointerMove={move}
              {...dragEnd(() => {
                drag.current = null;
              })}
              onKeyDown={(event) => nudge(event, i, side)}
            />
          </g>
        );
      })}
    </g>
  );
}
