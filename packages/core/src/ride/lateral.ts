import type { OffsetAt } from '../pose/keyed-offset.js';

/** Standard gravity, m/s². */
export const GRAVITY = 9.80665;

/**
 * The sideways acceleration of something beside a path, m/s², positive to the left: v²κ of its own track, whose speed is
 * v (1 − κ · side) and whose curvature κ / (1 − κ · side). On the path itself (side 0) it is v²κ.
 *
 * @param speed     of the place on the path it goes by, m/s
 * @param curvature of the path, 1/m, positive to the left
 * @param side      metres to the left of the path
 */
export function lateralAcceleration(speed: number, curvature: number, side: number): number {
  return speed * speed * curvature * (1 - curvature * side);
}

/** Places of a window at which a keyed offset is asked for. */
const SAMPLES = 24;

/**
 * The sideways acceleration of a keyed offset itself, m/s², averaged under a raised-cosine window of time: by parts, from how fast the
 * offset changes, so that no key of it snaps.
 *
 * @param frames how wide the window is
 */
export function keyedPush(offset: OffsetAt, frame: number, frames: number, fps: number): number {
  if (offset.fixed) return 0;
  const width = Math.max(1, frames);
  let sum = 0;
  for (let i = 0; i < SAMPLES; i++) {
    const part = (i + 0.5) / SAMPLES - 0.5;
    sum += offset.rate('side', frame + part * width) * Math.sin(2 * Math.PI * part);
  }
  return ((2 * Math.PI * sum) / SAMPLES / width) * fps * fps;
}

/** What presses a rider sideways, m/s² to its path's left, at a frame at which it is at a distance, goes at a speed along its path, and so far to its side. */
export type PushAt = (frame: number, distance: number, speed: number, side: number) => number;

/**
 * @param size         how much larger the whole ride is
 * @param windowFrames over how many frames keyed offsets are averaged at a speed
 */
export function compilePush(
  curvatureAt: (distance: number) => number,
  offset: OffsetAt,
  size: number,
  fps: number,
  windowFrames: (speed: number) => number,
): PushAt {
  return (frame, distance, speed, side) => {
    const push = lateralAcceleration(speed, curvatureAt(distance), side);
    return size * (offset.fixed ? push : push + keyedPush(offset, frame, windowFrames(speed), fps));
  };
}
