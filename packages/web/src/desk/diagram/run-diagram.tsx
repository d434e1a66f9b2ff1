import { POSE, type Rider } from '@fleet-rail/core';
import { line } from 'd3-shape';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import styled, { useTheme } from 'styled-components';
import { LABEL_FONT } from '../../theme/global-style';
import { lineColor } from '../../theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../desk-store';
import { CutRow } from './cut-row';
import { channelLine, diagramScales, MARGIN } from './diagram-scales';
import { DiagramKeys } from './diagram-keys';

const STRIP_HEIGHT = 46;
/** So many riders are drawn with two places a pixel. */
const FULL_LINES = 12;

const Frame = styled.div`
  position: relative;
  width: 100%;
  height: 100%;
  min-height: 0;
  overflow: hidden;
  & > svg {
    position: absolute;
    inset: 0;
    display: block;
    touch-action: none;
  }
`;

const AxisText = styled.text`
  font: 500 11px ${LABEL_FONT};
  fill: ${({ theme }) => theme.quiet};
`;

const MarkText = styled.text`
  font: 500 12px ${LABEL_FONT};
  fill: ${({ theme }) => theme.ink};
  paint-order: stroke;
  stroke: ${({ theme }) => theme.panel};
  stroke-width: 3px;
`;

const Empty = styled.p`
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  color: ${({ theme }) => theme.quiet};
  pointer-events: none;
  & > span {
    padding: 4px 12px;
    background: ${({ theme }) => theme.panel};
  }
`;

const toPath = line();

/** Distance up, time across: a line for each rider, marks of the path as level lines, speed in the strip below. */
export function RunDiagram({ hasSpeed }: { hasSpeed: boolean }) {
  const theme = useTheme();
  const desk = useDeskStore();
  const frameRef = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 600, height: 200 });
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const riderId = useDesk((state) => state.riderId);
  const dragging = useRef(false);

  useEffect(() => {
    const element = frameRef.current;
    if (!element) return;
    const sizes = new ResizeObserver(([entry]) =>
      setSize({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    sizes.observe(element);
    return () => sizes.disconnect();
  }, []);

  const { width, height } = size;
  const scales = diagramScales(shot, evaluation, width, height, hasSpeed ? STRIP_HEIGHT : 0);
  const ticks = Math.max(1, Math.min(4, Math.floor((height - (hasSpeed ? STRIP_HEIGHT : 0)) / 40)));
  const { x, distance, speed } = scales;
  const selected = shot.riders.find((rider) => rider.id === riderId);
  const path = shot.paths.find((other) => other.id === selected?.hitch?.path);
  // The selected rider's line is drawn last, over the others.
  const riders = [...shot.riders]
    .filter((rider) => rider.hitch)
    .sort((a, b) => Number(a.id === riderId) - Number(b.id === riderId));
  const scrub = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    desk.getState().set({ playing: false });
    desk.getState().goToFrame(Math.round(x.invert(event.clientX - box.left)));
  };
  return (
    <Frame ref={frameRef}>
      <svg
        width={width}
        height={height}
        role="group"
        aria-label="Run diagram"
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          dragging.current = true;
          event.currentTarget.setPointerCapture(event.pointerId);
          scrub(event);
        }}
        onPointerMove={(event) => dragging.current && scrub(event)}
        onPointerUp={() => {
          dragging.current = false;
        }}
      >
        <g aria-hidden>
          {distance.ticks(ticks).map((tick) => (
            <g key={tick}>
              <line
                x1={MARGIN.left}
                x2={width - MARGIN.right}
                y1={distance(tick)}
                y2={distance(tick)}
                stroke={theme.hairline}
              />
              <AxisText x={MARGIN.left - 8} y={distance(tick) + 4} textAnchor="end">
                {showNumber(tick, 1)} m
              </AxisText>
            </g>
          ))}
          {(hasSpeed ? speed.ticks(2) : []).map((tick) => (
            <g key={`speed ${tick}`}>
              <line
                x1={MARGIN.left}
                x2={width - MARGIN.right}
                y1={speed(tick)}
                y2={speed(tick)}
                stroke={theme.hairline}
                strokeDasharray="2 3"
              />
              <AxisText x={MARGIN.left - 8} y={speed(tick) + 4} textAnchor="end">
                {showNumber(tick, 1)} m/s
              </AxisText>
            </g>
          ))}
          {x
            .ticks(Math.max(2, Math.floor(width / 90)))
            .filter(Number.isInteger)
            .map((tick) => (
              <AxisText key={tick} x={x(tick)} y={height - 5} textAnchor="middle">
                {tick}
              </AxisText>
            ))}
          {path?.marks.map((mark) => (
            <g key={mark.id}>
              <line
                x1={MARGIN.left}
                x2={width - MARGIN.right}
                y1={distance(mark.distance)}
                y2={distance(mark.distance)}
                stroke={theme.quiet}
              />
              <MarkText x={MARGIN.left + 4} y={distance(mark.distance) - 4}>
                {mark.name}
              </MarkText>
            </g>
          ))}
          {riders.map((rider) => (
            <RiderLines
              key={rider.id}
              rider={rider}
              chosen={rider.id === riderId}
              scales={scales}
              // Hundreds of lines are a band: each needs less of its detail.
              pixels={width / Math.max(1, riders.length / FULL_LINES)}
              hasSpeed={hasSpeed}
            />
          ))}
        </g>
        <CutRow x={x} width={width} />
        <Playhead x={x} top={MARGIN.top - 6} foot={height - MARGIN.bottom + 2} />
        {selected?.hitch && (
          <DiagramKeys
            rider={selected}
            x={x}
            y={distance}
            pathLength={evaluation?.paths.get(selected.hitch.path)?.length ?? 0}
          />
        )}
      </svg>
      {riders.length === 0 && (
        <Empty>
          <span>When something rides a path, its line is drawn here: distance up, time across.</span>
        </Empty>
      )}
    </Frame>
  );
}

function RiderLines(props: {
  rider: Rider;
  chosen: boolean;
  scales: ReturnType<typeof diagramScales>;
  pixels: number;
  hasSpeed: boolean;
}) {
  const evaluation = useDesk((state) => state.evaluation);
  const evaluated = evaluation?.riders.get(props.rider.id);
  if (!evaluation || !evaluated) return null;
  const { x, distance, speed } = props.scales;
  const stroke = lineColor(props.rider.color);
  const lineOf = (channel: number, y: (value: number) => number) =>
    toPath(channelLine(evaluation, evaluated.poses, channel, x, y, props.pixels)) ?? '';
  return (
    <g fill="none" stroke={stroke} strokeLinejoin="round">
      <path d={lineOf(POSE.distance, distance)} strokeWidth={props.chosen ? 3 : 1.75} />
      {props.hasSpeed && <path d={lineOf(POSE.speed, speed)} strokeWidth={props.chosen ? 2 : 1.25} />}
    </g>
  );
}

function Playhead(props: { x: (frame: number) => number; top: number; foot: number }) {
  const theme = useTheme();
  const frame = useDesk((state) => state.frame);
  const at = props.x(frame);
  return (
    <g aria-hidden pointerEvents="none">
      <line x1={at} x2={at} y1={props.top} y2={props.foot} stroke={theme.signal} strokeWidth={1.5} />
      <path d={`M${at - 5} ${props.top - 3}h10l-5 8z`} fill={theme.signal} />
    </g>
  );
}
