import { POSE, shiftFrom, type Pace, type Rider, type SpeedKey } from '@fleet-rail/core';
import { scaleLinear } from 'd3-scale';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled, { useTheme } from 'styled-components';
import { changePace } from '../../edits/rider-edits';
import { lineColor } from '../../theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../desk-store';
import { trackOf } from '../track-of';
import { AxisText, Told } from './diagram-text';
import { MARGIN, type DiagramScales } from './diagram-scales';
import { Knob } from './knob';
import { FULL_LINES, linePath } from './line-path';
import { STRIP_UNITS, stripLimits, stripLine } from './strip-channel';
import { useShownFrames } from './use-shown-frames';

const Reach = styled.rect`
  fill: transparent;
  cursor: ns-resize;
`;

/** Below the distances: speed, or what it asks of the rider, with the limits it is driven within. */
export function SpeedStrip(props: {
  scales: DiagramScales;
  width: number;
  riders: readonly Rider[];
  /** The id of what lines are clipped by. */
  clip: string;
}) {
  const { scales, width, riders, clip } = props;
  const theme = useTheme();
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const riderId = useDesk((state) => state.riderId);
  const what = useDesk((state) => state.diagram.strip);
  const { x, strip } = scales;
  const selected = riders.find(({ id }) => id === riderId) ?? null;
  // What is asked of a rider is looked at one by one.
  const drawn = what === 'speed' ? riders : selected ? [selected] : [];
  const lines = drawn.flatMap((rider) => {
    const poses = evaluation?.riders.get(rider.id)?.poses;
    if (!evaluation || !poses) return [];
    const curve = what === 'sideways' ? trackOf(shot, rider) : null;
    return [{ rider, ...stripLine(what, poses, evaluation, shot.fps, curve) }];
  });
  const pace = selected?.hitch?.pace;
  const limits = pace?.mode === 'drive' ? stripLimits(what, pace.drive) : [];
  const all = lines.flatMap((one) => [one.low, one.high]);
  const [low, high] = [
    Math.min(0, ...all, ...limits),
    Math.max(what === 'sideways' ? 0.1 : 1, ...all, ...limits),
  ];
  const y = scaleLinear([low, high * 1.12], [strip.foot, strip.top]);
  const right = width - MARGIN.right;
  // Hundreds of lines are a band: each needs less of its detail.
  const pixels = width / Math.max(1, lines.length / FULL_LINES);
  return (
    <g>
      <g aria-hidden>
        {y.ticks(2).map((tick) => (
          <g key={tick}>
            <line
              x1={MARGIN.left}
              x2={right}
              y1={y(tick)}
              y2={y(tick)}
              stroke={theme.hairline}
              strokeDasharray="2 3"
            />
            <AxisText x={MARGIN.left - 8} y={y(tick) + 4} textAnchor="end">
              {showNumber(tick, 2)} {STRIP_UNITS[what]}
            </AxisText>
          </g>
        ))}
        {limits.map((limit) => (
          <line
            key={limit}
            x1={MARGIN.left}
            x2={right}
            y1={y(limit)}
            y2={y(limit)}
            stroke={theme.attention}
            strokeDasharray="6 4"
          />
        ))}
      </g>
      <g aria-hidden clipPath={`url(#${clip})`}>
        {lines.map(({ rider, values }) => (
          <path
            key={rider.id}
            d={evaluation ? linePath(values, 'values', evaluation, x, y, pixels) : ''}
            fill="none"
            stroke={lineColor(rider.color)}
            strokeWidth={rider.id === riderId ? 2 : 1.25}
            strokeLinejoin="round"
          />
        ))}
      </g>
      {what === 'speed' && selected && pace && !selected.hitch?.follows && !selected.hitch?.pacedBy && (
        <g clipPath={`url(#${clip})`}>
          <SpeedGrips rider={selected} pace={pace} scales={scales} y={y} />
        </g>
      )}
    </g>
  );
}

/** Speeds that can be taken hold of: the keys of a pace by speed, or the stretches of one by keys. */
function SpeedGrips(props: {
  rider: Rider;
  pace: Pace;
  scales: DiagramScales;
  y: ReturnType<typeof scaleLinear<number, number>>;
}) {
  const { rider, pace, scales, y } = props;
  const { x, strip } = scales;
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const edit = useDesk((state) => state.edit);
  const shown = useShownFrames(shot, rider);
  const [told, setTold] = useState<{ x: number; y: number; text: string } | null>(null);
  const drag = useRef<{ i: number; pace: Pace; gesture: string; y: typeof y; x: typeof x } | null>(null);
  const length = evaluation?.paths.get(rider.hitch?.path ?? '')?.length ?? 0;
  const metres = pace.unit === 'laps' ? length : 1;
  const change = (next: Pace, gesture?: string) =>
    edit(
      'Speed',
      changePace(rider.id, () => next),
      gesture,
    );
  const begin = (event: PointerEvent<SVGElement>, i: number) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { i, pace, gesture: `speed ${event.timeStamp}`, y, x };
  };
  const place = (event: PointerEvent<SVGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    return { px: event.clientX - (box?.left ?? 0), py: event.clientY - (box?.top ?? 0) };
  };
  const end = () => {
    drag.current = null;
    setTold(null);
  };
  const speedText = (speed: number) => `${speed.toFixed(2)} m/s · ${(speed * 3.6).toFixed(1)} km/h`;

  if (pace.mode === 'speed') {
    const moveKey = (event: PointerEvent<SVGElement>) => {
      const start = drag.current;
      if (start === null) return;
      const { px, py } = place(event);
      const speed = Number(start.y.invert(py).toFixed(2));
      const own = start.pace.speeds;
      const frame = Math.round(shown.own(start.x.invert(px)));
      change({ ...start.pace, speeds: movedSpeed(own, start.i, speed, frame) }, start.gesture);
      setTold({ x: px, y: py, text: speedText(speed) });
    };
    const nudge = (event: KeyboardEvent, i: number) => {
      const up = { ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0;
      const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
      if (up === 0 && across === 0) return;
      event.preventDefault();
      event.stopPropagation();
      const many = event.shiftKey ? 10 : 1;
      const { speed, frame = 0 } = pace.speeds[i];
      const next = Number((speed + up * many * 0.1).toFixed(3));
      change({ ...pace, speeds: movedSpeed(pace.speeds, i, next, frame + across * many) });
    };
    return (
      <g>
        {pace.speeds.map((key, i) => {
          const at =
            key.frame === undefined
              ? frameAtDistance(evaluation, rider, key.distance ?? 0)
              : shown.shown(key.frame);
          if (at === null) return null;
          const where =
            key.frame === undefined
              ? `${showNumber(key.distance ?? 0, 2)} m`
              : `frame ${showNumber(key.frame, 2)}`;
          return (
            <Knob
              key={i}
              cx={x(at)}
              cy={y(key.speed)}
              r={5}
              stroke={lineColor(rider.color)}
              tabIndex={0}
              role="button"
              aria-label={`Speed at ${where}: ${showNumber(key.speed, 2)} m/s`}
              onPointerDown={(event) => begin(event, i)}
              onPointerMove={moveKey}
              onPointerUp={end}
              onKeyDown={(event) => nudge(event, i)}
            />
          );
        })}
        {told && <ToldSpeed {...told} />}
      </g>
    );
  }
  if (pace.mode !== 'keys') return null;
  const moveStretch = (event: PointerEvent<SVGElement>) => {
    const start = drag.current;
    if (start === null) return;
    const { px, py } = place(event);
    const [key, next] = [start.pace.keys[start.i], start.pace.keys[start.i + 1]];
    const rise = Math.abs(next.value - key.value) * metres;
    const speed = Math.max(0.01, Math.abs(start.y.invert(py)));
    const frames = Math.max(1, (rise / speed) * shot.fps);
    change(shiftFrom(start.pace, start.i + 1, frames - (next.frame - key.frame)), start.gesture);
    setTold({ x: px, y: py, text: speedText((rise / frames) * shot.fps) });
  };
  return (
    <g aria-hidden>
      {pace.keys.slice(1).map((next, i) => {
        const key = pace.keys[i];
        const [from, to] = [shown.shown(key.frame), shown.shown(next.frame)];
        if (next.value === key.value || key.ease === 'hold' || from === null || to === null) return null;
        return (
          <Reach
            key={i}
            x={x(from)}
            y={strip.top}
            width={Math.max(0, x(to) - x(from))}
            height={strip.foot - strip.top}
            data-strip-stretch={i}
            onPointerDown={(event) => begin(event, i)}
            onPointerMove={moveStretch}
            onPointerUp={end}
          />
        );
      })}
      {told && <ToldSpeed {...told} />}
    </g>
  );
}

function ToldSpeed({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <Told x={x + 12} y={y - 10} textAnchor={x > 420 ? 'end' : 'start'}>
      {text}
    </Told>
  );
}

/** A speed key with another speed, and where it is keyed by frame another frame, between its neighbours. */
function movedSpeed(keys: readonly SpeedKey[], i: number, speed: number, frame: number): SpeedKey[] {
  const byDistance = keys[i].frame === undefined;
  // By distance a rider never stands, nor turns round.
  const sign = Math.sign(keys[i].speed) || 1;
  const held = byDistance ? sign * Math.max(0.05, sign * speed) : speed;
  const low = (keys[i - 1]?.frame ?? -Infinity) + 1;
  const high = (keys[i + 1]?.frame ?? Infinity) - 1;
  return keys.map((key, k) => {
    if (k !== i) return key;
    return byDistance
      ? { ...key, speed: held }
      : { ...key, speed: held, frame: Math.min(high, Math.max(low, frame)) };
  });
}

/** The first frame at which a rider has come to a distance. */
function frameAtDistance(
  evaluation: { first: number; step: number; riders: ReadonlyMap<string, { poses: Float64Array }> } | null,
  { id }: Rider,
  distance: number,
): number | null {
  const poses = evaluation?.riders.get(id)?.poses;
  if (!evaluation || !poses) return null;
  const at = (i: number) => poses[i * POSE.size + POSE.distance] - distance;
  const count = poses.length / POSE.size;
  if (at(0) === 0) return evaluation.first;
  for (let i = 1; i < count; i++) {
    if (at(i - 1) < 0 === at(i) < 0) continue;
    const part = at(i - 1) / (at(i - 1) - at(i));
    return evaluation.first + (i - 1 + part) * evaluation.step;
  }
  return null;
}
