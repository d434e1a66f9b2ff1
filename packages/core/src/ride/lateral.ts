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

/** The most speed at which a bend asks for no more sideways acceleration, squared: v² = a / κ. */
export function squareAllowed(sideways: number, bend: number): number {
  return sideways / bend;
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

/** How a rider is pushed sideways over time, from how fast it goes along its path and how that bends where it is. */
export function compilePush(
  curvatureAt: (distance: number) => number,
  {
    pace,
    offset,
    size,
    fps,
  }: {
    readonly pace: { distance(frame: number): number; speed(frame: number): number };
    readonly offset: OffsetAt;
    /** How much larger the whole ride is. */
    readonly size: number;
    readonly fps: number;
  },
  windowFrames: (speed: number) => number,
): (frame: number) => number {
  return (frame) => {
    const speed = pace.speed(frame);
    const push = lateralAcceleration(speed, curvatureAt(pace.distance(frame)), offset.at(frame).side);
    return size * (push + keyedPush(offset, frame, windowFrames(speed), fps));
  };
}
