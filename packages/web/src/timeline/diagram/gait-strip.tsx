import { walkersStops, type PaceStop, type Pace, type Rider, type WalkersStops } from '@fleet-rail/core';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled, { useTheme } from 'styled-components';
import { changePace } from '../../edits/rider-edits';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { sceneAssets } from '../../workers/scene-assets/ground-height';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { AxisText } from './diagram-text';
import { MARGIN, type DiagramScales } from './diagram-scales';
import { svgPlace } from './svg-place';
import { useShownFrames } from './use-shown-frames';
import { dragEnd } from '../../ui/drag-end';

/** How high a foot's row is, pixels. */
export const FOOT_ROW = 13;

const Edge = styled.rect`
  fill: ${({ theme }) => theme.ink};
  cursor: ew-resize;
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 2px;
  }
`;

const Slide = styled.text`
  font: 500 10px ${LABEL_FONT};
  fill: ${({ theme }) => theme.panel};
  pointer-events: none;
`;

/**
 * A row under the diagram for each foot of the selected walker: bars while it is down, red where it slides by more
 * than a millimetre. Stops are framed; their ends are dragged, the first to where the walker stops on both feet.
 */
export function GaitStrip({
  scales,
  top,
  rider,
  clip,
}: {
  scales: DiagramScales;
  top: number;
  rider: Rider;
  clip: string;
}) {
  const theme = useTheme();
  const plants = useDesk((state) => state.evaluation?.riders.get(rider.id)?.plants ?? []);
  const { x } = scales;
  const feet = rider.gait?.feet ?? [];
  return (
    <g aria-label="Gait strip" role="group">
      {feet.map((foot, row) => (
        <AxisText key={foot.node} x={MARGIN.left - 8} y={top + row * FOOT_ROW + 10} textAnchor="end">
          {shortName(
            foot.node,
            feet.map(({ node }) => node),
          )}
        </AxisText>
      ))}
      <g clipPath={`url(#${clip})`}>
        {feet.flatMap((foot, row) =>
          plants
            .filter((plant) => plant.foot === foot.node)
            .map((plant) => {
              const slides = plant.left > 1e-3;
              const width = Math.max(1, x(plant.to) - x(plant.from) - 1);
              return (
                <g key={`${foot.node} ${plant.from}`} data-plant={foot.node}>
                  <rect
                    x={x(plant.from)}
                    y={top + row * FOOT_ROW + 2}
                    width={width}
                    height={FOOT_ROW - 4}
                    rx={2}
                    fill={slides ? theme.signal : lineColor(rider.color)}
                  />
                  {slides && width > 34 && (
                    <Slide x={x(plant.from) + 3} y={top + row * FOOT_ROW + FOOT_ROW - 3}>
                      {Math.round(plant.left * 1e3)} mm
                    </Slide>
                  )}
                </g>
              );
            }),
        )}
        <StopFrames scales={scales} top={top} rider={rider} />
      </g>
    </g>
  );
}

/** The stops of the walker's own timing, with ends to drag. */
function StopFrames({ scales, top, rider }: { scales: DiagramScales; top: number; rider: Rider }) {
  const desk = useDeskStore();
  const theme = useTheme();
  const shot = useDesk((state) => state.shot);
  const shown = useShownFrames(shot, rider);
  const drag = useRef<{ x: number; stop: PaceStop; stops: WalkersStops; gesture: string } | null>(null);
  const stops = walkersStops(shot, sceneAssets(desk.getState()), rider);
  if (stops === null) return null;
  const { list } = stops;
  const { x } = scales;
  const height = (rider.gait?.feet.length ?? 0) * FOOT_ROW;
  const take = (label: string, pace: Pace | null, gesture?: string) => {
    if (pace === null) return;
    desk.getState().edit(
      label,
      changePace(rider.id, () => pace),
      gesture,
    );
  };
  const grip = (stop: PaceStop, i: number, end: 'begins' | 'ends') => {
    const frame = end === 'begins' ? stop.from : stop.to;
    const at = shown.shown(frame);
    if (at === null || !Number.isFinite(at)) return null;
    return (
      <Edge
        x={x(at) - 2}
        y={top - 1}
        width={4}
        height={height + 2}
        rx={2}
        tabIndex={0}
        role="slider"
        aria-label={`Stop ${i + 1} ${end}`}
        aria-valuenow={Number(at.toFixed(2))}
        aria-valuemin={shot.range.first}
        aria-valuemax={shot.range.last}
        aria-valuetext={`frame ${showNumber(at, 1)}, ${showNumber(stop.distance, 2)} m`}
        onPointerDown={(event: PointerEvent<SVGRectElement>) => {
          if (event.button !== 0) return;
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { x: svgPlace(event).px, stop, stops, gesture: `stop ${event.timeStamp}` };
        }}
        onPointerMove={(event: PointerEvent<SVGRectElement>) => {
          const held = drag.current;
          if (held === null) return;
          const frames = x.invert(svgPlace(event).px) - x.invert(held.x);
          if (end === 'begins') take('Move stop', held.stops.placed(held.stop, frames), held.gesture);
          else take('Lengthen stop', held.stops.lengthened(held.stop, Math.round(frames)), held.gesture);
        }}
        {...dragEnd(() => {
          drag.current = null;
        })}
        onKeyDown={(event: KeyboardEvent) => {
          const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
          if (way === 0) return;
          event.preventDefault();
          event.stopPropagation();
          if (end === 'begins') take('Move stop', stops.nextNatural(stop, way));
          else take('Lengthen stop', stops.lengthened(stop, way * (event.shiftKey ? 10 : 1)));
        }}
      />
    );
  };
  return (
    <g>
      {list.map((stop, i) => {
        const [from, to] = [shown.shown(stop.from), shown.shown(stop.to)];
        if (from === null || to === null || !Number.isFinite(from) || !Number.isFinite(to)) return null;
        return (
          <g key={i}>
            <rect
              x={x(from)}
              y={top}
              width={Math.max(0, x(to) - x(from))}
              height={height}
              fill="none"
              stroke={theme.quiet}
              strokeDasharray="3 2"
              pointerEvents="none"
            />
            {grip(stop, i, 'begins')}
            {grip(stop, i, 'ends')}
          </g>
        );
      })}
    </g>
  );
}

/** A foot's name without what all of them have in common. */
function shortName(name: string, all: readonly string[]): string {
  if (all.length < 2) return name.slice(0, 10);
  let from = 0;
  while (all.every((other) => other[from] !== undefined && other[from] === all[0][from])) from++;
  const rest = name.slice(from).replace(/^[_.\s-]+/, '') || name;
  return rest.length > 9 ? `${rest.slice(0, 8)}…` : rest;
}
