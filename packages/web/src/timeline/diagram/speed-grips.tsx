import { metresPerValue } from '@fleet-rail/core';
import { POSE, moveSpeed, stretchAtSpeed, type Pace, type Rider } from '@fleet-rail/core';
import type { ScaleLinear } from 'd3-scale';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { changePace } from '../../edits/rider-edits';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';
import { Telling } from './diagram-text';
import { Knob } from './knob';
import { speedText } from './pace-geometry';
import { svgPlace } from './svg-place';
import { useShownFrames } from './use-shown-frames';
import { dragEnd } from '../../ui/drag-end';

const Reach = styled.rect`
  fill: transparent;
  cursor: ns-resize;
`;

type Scale = ScaleLinear<number, number>;

interface GripProps {
  readonly rider: Rider;
  readonly pace: Pace;
  readonly x: Scale;
  readonly y: Scale;
}

/** Drags a speed up and down, and what it is of sideways. */
function useSpeedDrag(
  { rider, pace, x, y }: GripProps,
  next: (before: Pace, i: number, speed: number, frame: number) => Pace,
) {
  const edit = useDesk((state) => state.edit);
  const [reported, setTold] = useState<{ x: number; y: number; text: string } | null>(null);
  /** The scales of the start are kept, so that the ground does not move under the drag. */
  const drag = useRef<{ i: number; pace: Pace; gesture: string; x: Scale; y: Scale } | null>(null);
  const change = (after: Pace, gesture?: string) =>
    edit(
      'Speed',
      changePace(rider.id, () => after),
      gesture,
    );
  const events = (i: number) => ({
    onPointerDown(event: PointerEvent<SVGElement>) {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { i, pace, gesture: `speed ${event.timeStamp}`, x, y };
    },
    onPointerMove(event: PointerEvent<SVGElement>) {
      const start = drag.current;
      if (start === null) return;
      const { px, py } = svgPlace(event);
      const speed = Number(start.y.invert(py).toFixed(2));
      change(next(start.pace, start.i, speed, start.x.invert(px)), start.gesture);
      setTold({ x: px, y: py, text: speedText(speed) });
    },
    ...dragEnd(() => {
      drag.current = null;
      setTold(null);
    }),
  });
  return { events, change, telling: reported && <Telling {...reported} /> };
}

/** The keys of a pace by speed. */
export function SpeedKnobs(props: GripProps) {
  const { rider, pace, x, y } = props;
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const shown = useShownFrames(shot, rider);
  const { events, change, telling } = useSpeedDrag(props, (before, i, speed, frame) =>
    moveSpeed(before, i, speed, Math.round(shown.own(frame))),
  );
  const nudge = (event: KeyboardEvent, i: number) => {
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0;
    const across = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
    if (up === 0 && across === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const many = event.shiftKey ? 10 : 1;
    const { speed, frame = 0 } = pace.speeds[i];
    change(moveSpeed(pace, i, Number((speed + up * many * 0.1).toFixed(3)), frame + across * many));
  };
  return (
    <g>
      {pace.speeds.map((key, i) => {
        const { frame, distance = 0 } = key;
        const at = frame === undefined ? frameAtDistance(evaluation, rider, distance) : shown.shown(frame);
        if (at === null) return null;
        const where = frame === undefined ? `${showNumber(distance, 2)} m` : `frame ${showNumber(frame, 2)}`;
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
            onKeyDown={(event) => nudge(event, i)}
            {...events(i)}
          />
        );
      })}
      {telling}
    </g>
  );
}

/** The stretches between the keys of a pace by keys, each dragged to another speed. */
export function SpeedStretches(props: GripProps) {
  const { rider, pace, x, y } = props;
  const shot = useDesk((state) => state.shot);
  const length = useDesk((state) => state.evaluation?.paths.get(rider.attachment?.path ?? '')?.length ?? 0);
  const shown = useShownFrames(shot, rider);
  const metres = metresPerValue(pace, { length });
  const { events, telling } = useSpeedDrag(props, (before, i, speed) =>
    stretchAtSpeed(before, i, speed, shot.fps, metres),
  );
  const [foot, top] = y.range();
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
            y={top}
            width={Math.max(0, x(to) - x(from))}
            height={foot - top}
            data-strip-stretch={i}
            {...events(i)}
          />
        );
      })}
      {telling}
    </g>
  );
}

/** First frame at which a rider has reached a distance. */
function frameAtDistance(
  evaluation: {
    first: number;
    step: number;
    riders: ReadonlyMap<string, { poses: Float64Array }>;
  } | null,
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
