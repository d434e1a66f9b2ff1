import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../../ui/theme/fonts';
import { showNumber } from '../../../ui/quantity';
import { useDesk, useDeskStore } from '../../../state/desk-store';
import { dragEnd } from '../../../ui/drag-end';

const [WIDTH, HEIGHT, LEFT, FOOT] = [268, 92, 34, 6] as const;

const Drawing = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  touch-action: none;
  & text {
    font: 500 10px ${LABEL_FONT};
    fill: ${({ theme }) => theme.quiet};
  }
  & [role='slider'] {
    cursor: ns-resize;
    outline-offset: -1px;
  }
`;

/** A distance over the frames of the shot, and how much of it is wanted as a level line that is dragged up and down. */
export function LimitChart(props: {
  label: string;
  /** A value a sample, from the first frame on. */
  values: ArrayLike<number>;
  /** Frames from one sample to the next. */
  step: number;
  limit: number | null;
  onLimit: (value: number, gesture?: string) => void;
}) {
  const { label, values, step, limit, onLimit } = props;
  const desk = useDeskStore();
  const first = useDesk(({ shot }) => shot.range.first);
  const frame = useDesk((state) => state.frame);
  const drawing = useRef<SVGSVGElement>(null);
  const held = useRef<string | null>(null);
  const known = Array.from(values).filter((value) => Number.isFinite(value));
  const furthest = known.reduce((most, value) => Math.max(most, value), 0.1);
  // With a limit it is about what comes near that.
  const most =
    1.15 * (limit === null ? furthest : Math.max(limit, Math.min(furthest, Math.max(10, 4 * limit))));
  const x = (i: number) => LEFT + (i / Math.max(1, values.length - 1)) * (WIDTH - LEFT - 4);
  const y = (value: number) =>
    HEIGHT - FOOT - (Math.min(most, Math.max(0, value)) / most) * (HEIGHT - FOOT - 8);
  const line = Array.from(values, (value, i) =>
    Number.isFinite(value)
      ? `${i > 0 && Number.isFinite(values[i - 1]) ? 'L' : 'M'}${x(i).toFixed(1)} ${y(value).toFixed(1)}`
      : '',
  ).join('');
  const valueAt = (event: PointerEvent<SVGElement>): number => {
    const box = (drawing.current as SVGSVGElement).getBoundingClientRect();
    const part = ((event.clientY - box.top) / box.height) * HEIGHT;
    return Math.max(0, Math.round(((HEIGHT - FOOT - part) / (HEIGHT - FOOT - 8)) * most * 20) / 20);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 0.1, ArrowDown: -0.1, PageUp: 1, PageDown: -1 }[event.key];
    if (by === undefined || limit === null) return;
    event.preventDefault();
    onLimit(Math.max(0, Math.round((limit + by * (event.shiftKey ? 10 : 1)) * 100) / 100));
  };
  const now = (frame - first) / step;
  return (
    <Drawing ref={drawing} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="group" aria-label={label}>
      <line x1={LEFT} x2={WIDTH - 4} y1={y(0)} y2={y(0)} stroke="currentColor" strokeOpacity={0.25} />
      <text x={LEFT - 5} y={y(0)} textAnchor="end">
        0 m
      </text>
      <text x={LEFT - 5} y={14} textAnchor="end">
        {showNumber(most, most < 1 ? 2 : 1)} m
      </text>
      <path
        d={line}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.75}
        onPointerDown={(event) => {
          const box = (drawing.current as SVGSVGElement).getBoundingClientRect();
          const px = ((event.clientX - box.left) / box.width) * WIDTH;
          const i = ((px - LEFT) / (WIDTH - LEFT - 4)) * (values.length - 1);
          desk.getState().goToFrame(Math.round(first + i * step));
        }}
      />
      {now >= 0 && now <= values.length - 1 && (
        <line x1={x(now)} x2={x(now)} y1={6} y2={y(0)} stroke="#D3452C" strokeWidth={1} aria-hidden />
      )}
      {limit !== null && (
        <g
          role="slider"
          tabIndex={0}
          aria-label={`${label}, at least`}
          aria-orientation="vertical"
          aria-valuenow={limit}
          aria-valuetext={`${showNumber(limit, 2)} m`}
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            held.current = `limit ${event.timeStamp}`;
          }}
          onPointerMove={(event) => held.current !== null && onLimit(valueAt(event), held.current)}
          {...dragEnd(() => {
            held.current = null;
          })}
        >
          <rect x={LEFT} y={y(limit) - 6} width={WIDTH - LEFT - 4} height={12} fill="transparent" />
          <line
            x1={LEFT}
            x2={WIDTH - 4}
            y1={y(limit)}
            y2={y(limit)}
            stroke="currentColor"
            strokeDasharray="5 3"
          />
          <text x={WIDTH - 6} y={y(limit) - 3} textAnchor="end">
            {showNumber(limit, 2)} m
          </text>
        </g>
      )}
    </Drawing>
  );
}
