import type { Rider } from '@fleet-rail/core';
import { useRef, useState, type MouseEvent, type PointerEvent } from 'react';
import styled, { useTheme } from 'styled-components';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore, useSelectedRider, useShownChannel } from '../../state/desk-store';
import { useSize } from '../../ui/use-size';
import { comparedTake } from '../../commands/aside';
import { CLIP_ROW, ClipRow } from './clip-row';
import { CrossingFlags } from './crossing-flags';
import { CutRow } from './cut-row';
import {
  axisTicks,
  diagramScales,
  frameLabel,
  handBand,
  MARGIN,
  type DiagramBand,
  type DiagramScales,
} from './diagram-scales';
import { passedMarks } from './passed-marks';
import { AxisText, LevelLine, MarkText } from './diagram-text';
import { FindingTicks } from './finding-ticks';
import { FOOT_ROW, GaitStrip } from './gait-strip';
import { HandGrips } from './hand-grips';
import { FULL_LINES, linePath } from './line-path';
import { ChannelBand, channelScale } from './channel-band';
import { useChannelLine, usePaceLine, type KeyedLine } from './keyed-line';
import { KeyGrips } from './pace-grips';
import { SpeedStrip } from './speed-strip';
import { svgPlace } from './svg-place';
import { useDiagramZoom } from './use-diagram-zoom';
import { dragEnd } from '../../ui/drag-end';

/** A strip is a fifth to a quarter of the diagram. */
const STRIP = { least: 40, most: 90, part: 0.24 };

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
    /* A drag that began on chosen text would be the browser's own. */
    user-select: none;
  }
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

const Lasso = styled.rect`
  fill: none;
  stroke: ${({ theme }) => theme.signal};
  stroke-dasharray: 4 3;
  pointer-events: none;
`;

/** Distance up, time across: a line for each rider, marks of the path as level lines, the strip below. */
export function RunDiagram({ hasStrip, hasFeet }: { hasStrip: boolean; hasFeet: boolean }) {
  const desk = useDeskStore();
  const frameRef = useRef<HTMLDivElement>(null);
  const svgRef = useRef<SVGSVGElement>(null);
  const { width, height } = useSize(frameRef, { width: 600, height: 200 });
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const shown = useDesk((state) => state.diagram);
  const selected = useSelectedRider();
  const strip = hasStrip ? Math.min(STRIP.most, Math.max(STRIP.least, height * STRIP.part)) : 0;
  const walker = hasFeet && selected?.attachment && selected.gait ? selected : null;
  const rows = walker?.gait ? walker.gait.feet.length * FOOT_ROW + 6 : 0;
  const player = hasFeet && selected && playsClips(selected) ? selected : null;
  const feet = rows + (player ? CLIP_ROW : 0);
  const scales = diagramScales(shot, evaluation, { width, height: height - feet, strip }, shown, selected);
  const scalesRef = useRef<DiagramScales | null>(null);
  scalesRef.current = scales;
  useDiagramZoom(svgRef, scalesRef, desk);
  const { x } = scales;
  const channel = useShownChannel();
  // One line at a time: a channel replaces the distances.
  const bands = channel === null ? scales.bands : [];
  const own = bands.find(({ pathId }) => pathId === selected?.attachment?.path);
  const paceLine = usePaceLine(selected, x, own?.y);
  const channelY = channel && selected ? channelScale(shot, selected, channel, scales) : undefined;
  const channelLine = useChannelLine(selected, channel, x, channelY);
  const line = channelLine ?? paceLine;
  const press = usePress(scales, line);
  const clip = 'run-diagram-lines';
  const ridden = bands.length > 0 || channelLine !== null;
  return (
    <Frame ref={frameRef} data-fills>
      <svg ref={svgRef} width={width} height={height} role="group" aria-label="Run diagram" {...press.events}>
        <clipPath id={clip}>
          <rect
            x={MARGIN.left}
            y={0}
            width={Math.max(0, width - MARGIN.left - MARGIN.right)}
            height={height}
          />
        </clipPath>
        <g aria-hidden>
          {axisTicks(x, shown.axis, shot, Math.max(2, Math.floor(width / 90))).map((tick) => (
            <AxisText key={tick} x={x(tick)} y={height - 5} textAnchor="middle">
              {frameLabel(tick, shown.axis, shot)}
            </AxisText>
          ))}
          {bands.map((band) => (
            <BandBackground key={band.pathId} band={band} width={width} named={bands.length > 1} />
          ))}
        </g>
        <g clipPath={`url(#${clip})`}>
          <SeamLines x={x} foot={height - MARGIN.bottom} />
          {bands.map((band) => (
            <BandLines key={band.pathId} band={band} x={x} width={width} />
          ))}
          <Playhead x={x} top={MARGIN.top - 6} foot={height - MARGIN.bottom + 2} />
          {bands.map((band) => (
            <CrossingFlags key={band.pathId} band={band} x={x} />
          ))}
          {bands.map((band) => (
            <FindingTicks key={band.pathId} band={band} x={x} />
          ))}
        </g>
        {channelLine && channelY && (
          <ChannelBand line={channelLine} y={channelY} x={x} width={width} clip={clip} />
        )}
        {hasStrip && (
          <SpeedStrip
            scales={scales}
            width={width}
            riders={scales.bands.flatMap(({ riders }) => riders)}
            clip={clip}
          />
        )}
        {player && <ClipRow scales={scales} top={height - MARGIN.bottom - CLIP_ROW + 4} rider={player} />}
        {walker && rows > 6 && (
          <GaitStrip scales={scales} top={height - MARGIN.bottom - feet + 5} rider={walker} clip={clip} />
        )}
        <CutRow x={x} width={width} />
        <g clipPath={`url(#${clip})`}>
          {line ? <KeyGrips line={line} /> : <ByHand bands={bands} x={x} />}
          {press.box && (
            <Lasso
              x={Math.min(press.box.x0, press.box.x1)}
              y={Math.min(press.box.y0, press.box.y1)}
              width={Math.abs(press.box.x1 - press.box.x0)}
              height={Math.abs(press.box.y1 - press.box.y0)}
            />
          )}
        </g>
      </svg>
      {!ridden && (
        <Empty>
          <span>Riders appear here: distance up, time across.</span>
        </Empty>
      )}
    </Frame>
  );
}

/** Whether a rider has clips or acts, which are shown over time. */
const playsClips = ({ clips, gait }: Rider) => clips.length > 0 || (gait?.acts.length ?? 0) > 0;

interface PressBox {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** On the ground of the diagram: a drag moves the playhead, with Shift it boxes keys; twice adds a key. */
function usePress({ x }: DiagramScales, line: KeyedLine | null) {
  const desk = useDeskStore();
  const [box, setBox] = useState<PressBox | null>(null);
  const held = useRef<'playhead' | 'box' | null>(null);
  const scrub = (px: number) => {
    desk.getState().set({ playing: false });
    desk.getState().goToFrame(Math.round(x.invert(px)));
  };
  const boxed = ({ x0, y0, x1, y1 }: PressBox): Set<number> => {
    if (line === null) return new Set();
    const { pace, geometry } = line;
    const inside = (value: number, a: number, b: number) =>
      value >= Math.min(a, b) && value <= Math.max(a, b);
    return new Set(
      pace.keys.flatMap((key, i) => {
        const px = geometry.across(key.frame);
        return px !== null && inside(px, x0, x1) && inside(geometry.up(key.value), y0, y1) ? [i] : [];
      }),
    );
  };
  const events = {
    onPointerDown(event: PointerEvent<SVGSVGElement>) {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const { px, py } = svgPlace(event);
      held.current = event.shiftKey ? 'box' : 'playhead';
      if (event.shiftKey) setBox({ x0: px, y0: py, x1: px, y1: py });
      else {
        desk.getState().set({ keys: new Set() });
        scrub(px);
      }
    },
    onPointerMove(event: PointerEvent<SVGSVGElement>) {
      const { px, py } = svgPlace(event);
      if (held.current === 'playhead') scrub(px);
      if (held.current !== 'box' || box === null) return;
      const next = { ...box, x1: px, y1: py };
      setBox(next);
      desk.getState().set({ keys: boxed(next) });
    },
    ...dragEnd(() => {
      held.current = null;
      setBox(null);
    }),
    onDoubleClick(event: MouseEvent<SVGSVGElement>) {
      line?.add(Math.round(line.geometry.frameAt(svgPlace(event).px)));
    },
  };
  return { events, box };
}

/** Metres and marks of one path. */
function BandBackground({ band, width, named }: { band: DiagramBand; width: number; named: boolean }) {
  const theme = useTheme();
  const path = useDesk(({ shot }) => shot.paths.find(({ id }) => id === band.pathId));
  const evaluated = useDesk((state) => state.evaluation?.paths.get(band.pathId));
  const { y, top, foot } = band;
  const right = width - MARGIN.right;
  const ticks = Math.max(1, Math.min(5, Math.floor((foot - top) / 34)));
  const [low, high] = y.domain();
  return (
    <g>
      {y.ticks(ticks).map((tick) => (
        <g key={tick}>
          <LevelLine y={y(tick)} width={width} stroke={theme.hairline} />
          <AxisText x={MARGIN.left - 8} y={y(tick) + 4} textAnchor="end">
            {showNumber(tick, 2)} m
          </AxisText>
        </g>
      ))}
      {passedMarks(path, evaluated, [low, high]).map(({ mark, lap, at }) => (
        <g key={`${mark.id} ${lap}`}>
          <LevelLine y={y(at)} width={width} stroke={theme.quiet} />
          <MarkText x={MARGIN.left + 4} y={y(at) - 4}>
            {mark.name}
          </MarkText>
        </g>
      ))}
      {(named || !path) && (
        <MarkText x={right - 4} y={foot - 6} textAnchor="end">
          {path?.name ?? `${band.riders[0].badge} by hand`}
        </MarkText>
      )}
    </g>
  );
}

/** The lines of one path's riders, the selected one last, over the others. */
function BandLines({ band, x, width }: { band: DiagramBand; x: DiagramScales['x']; width: number }) {
  const evaluation = useDesk((state) => state.evaluation);
  const riderId = useDesk((state) => state.riderId);
  const shot = useDesk((state) => state.shot);
  const take = useDesk((state) => state.take);
  const aside = useDesk((state) => state.aside);
  const shownBefore = useDesk((state) => state.shownBefore);
  const compared = comparedTake({ shot, riderId, take, aside });
  if (evaluation === null) return null;
  const riders = [...band.riders].sort((a, b) => Number(a.id === riderId) - Number(b.id === riderId));
  // Hundreds of lines are a band: each needs less of its detail.
  const pixels = width / Math.max(1, riders.length / FULL_LINES);
  const lineOf = (poses: Float64Array, from: { first: number; step: number }) =>
    linePath(poses, 'distances', from, x, band.y, pixels);
  const shows = compared && compared.rider.attachment?.path === band.pathId;
  return (
    <g fill="none" strokeLinejoin="round" aria-hidden>
      {riders.map((rider: Rider) => {
        const poses = evaluation.riders.get(rider.id)?.poses;
        if (poses === undefined) return null;
        return (
          <path
            key={rider.id}
            d={lineOf(poses, evaluation)}
            stroke={lineColor(rider.color)}
            strokeWidth={rider.id === riderId ? 3 : 1.75}
          />
        );
      })}
      {shownBefore?.riders.map((id) => {
        const rider = band.riders.find((one) => one.id === id);
        const poses = aside?.poses.get(id);
        if (!rider || !aside || !poses || aside.shot !== shownBefore.shot) return null;
        return (
          <path
            key={`shown ${id}`}
            d={lineOf(poses, aside)}
            stroke={lineColor(rider.color)}
            strokeWidth={2}
            strokeDasharray="3 4"
          />
        );
      })}
      {shows && (
        <path
          d={lineOf(compared.poses, compared)}
          stroke={lineColor(compared.rider.color)}
          strokeWidth={2}
          strokeDasharray="3 4"
          data-take={compared.name}
        />
      )}
    </g>
  );
}

/** Grips of a rider that is moved by hand. */
function ByHand({ bands, x }: { bands: readonly DiagramBand[]; x: DiagramScales['x'] }) {
  const rider = useSelectedRider();
  const band = bands.find(({ pathId }) => rider && pathId === handBand(rider));
  if (!rider?.transformKeys || !band) return null;
  return <HandGrips rider={rider} keyed={rider.transformKeys} x={x} y={band.y} />;
}

/** In a loop, where the last frame gives way to the first. */
function SeamLines({ x, foot }: { x: DiagramScales['x']; foot: number }) {
  const theme = useTheme();
  const { loop, range } = useDesk((state) => state.shot);
  if (!loop) return null;
  return (
    <g aria-hidden>
      {[range.first, range.last + 1].map((frame) => (
        <line
          key={frame}
          x1={x(frame)}
          x2={x(frame)}
          y1={MARGIN.top - 4}
          y2={foot}
          stroke={theme.settled}
          strokeDasharray="1 3"
        />
      ))}
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
