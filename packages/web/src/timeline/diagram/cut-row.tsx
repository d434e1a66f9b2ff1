import type { ScaleLinear } from 'd3-scale';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { moveCut, removeCut } from '../../edits/rider-edits';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';
import { shownCuts } from '../../viewport/views/looked-through';
import { MARGIN } from './diagram-scales';
import { svgPlace } from './svg-place';
import { dragEnd } from '../../ui/drag-end';

const HEIGHT = 16;

const Band = styled.g`
  cursor: ew-resize;
  & text {
    font: 600 11px ${LABEL_FONT};
    fill: ${({ theme }) => theme.ink};
    pointer-events: none;
  }
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.ink};
  }
`;

/** Which camera is looked through when: bands over the diagram, whose starts are dragged or nudged by arrow keys. */
export function CutRow({ x, width }: { x: ScaleLinear<number, number>; width: number }) {
  const own = useDesk((state) => state.shot.cuts);
  /** With those that cues make: these are where their cues have them. */
  const cuts = useDesk(shownCuts);
  const riders = useDesk((state) => state.shot.riders);
  const range = useDesk((state) => state.shot.range);
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  /** By its place in the row: a cut is never driven over another. */
  const drag = useRef<{ index: number; grabbed: number; gesture: string } | null>(null);
  const right = width - MARGIN.right;

  const frameUnder = (event: PointerEvent<SVGGElement>): number => x.invert(svgPlace(event).px);
  const down = (event: PointerEvent<SVGGElement>, index: number) => {
    if (event.button !== 0 || index < 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const { frame, camera } = own[index];
    drag.current = { index, grabbed: frameUnder(event) - frame, gesture: `cut ${event.timeStamp}` };
    set({ riderId: camera });
  };
  const moved = (event: PointerEvent<SVGGElement>) => {
    if (drag.current === null) return;
    const { index, grabbed, gesture } = drag.current;
    edit('Move cut', moveCut(own[index].frame, frameUnder(event) - grabbed), gesture);
  };
  const key = (event: KeyboardEvent, frame: number) => {
    if (!own.some((cut) => cut.frame === frame)) return;
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
    if (by !== 0) edit('Move cut', moveCut(frame, frame + by * (event.shiftKey ? 10 : 1)));
    else if (event.key === 'Delete') edit('Delete cut', removeCut(frame));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g>
      {cuts.map((cut, i) => {
        const { frame, camera } = cut;
        const index = own.indexOf(cut);
        const rider = riders.find(({ id }) => id === camera);
        // Before its first cut the first camera is looked through already.
        const from = Math.max(MARGIN.left, i === 0 ? MARGIN.left : x(frame));
        const to = Math.min(right, i + 1 < cuts.length ? x(cuts[i + 1].frame) : right);
        if (!rider || to <= from) return null;
        return (
          <Band
            key={i}
            tabIndex={0}
            role="slider"
            aria-label={index < 0 ? `Cut to ${rider.badge} by a cue` : `Cut to ${rider.badge}`}
            aria-disabled={index < 0}
            aria-valuenow={frame}
            aria-valuemin={range.first}
            aria-valuemax={range.last}
            aria-valuetext={`from frame ${showNumber(frame, 2)}`}
            onPointerDown={(event) => down(event, index)}
            onPointerMove={moved}
            {...dragEnd(() => {
              drag.current = null;
            })}
            onKeyDown={(event) => key(event, frame)}
          >
            <rect
              x={from}
              y={1}
              width={to - from}
              height={HEIGHT - 2}
              fill={lineColor(rider.color)}
              fillOpacity={index < 0 ? 0.1 : 0.22}
              stroke={index < 0 ? lineColor(rider.color) : 'none'}
              strokeDasharray="3 2"
            />
            <rect x={from} y={1} width={3} height={HEIGHT - 2} fill={lineColor(rider.color)} />
            <text x={from + 8} y={HEIGHT - 4}>
              {rider.badge}
            </text>
          </Band>
        );
      })}
    </g>
  );
}
