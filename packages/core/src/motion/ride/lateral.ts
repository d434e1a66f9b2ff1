import { GRAVITY } from '../../geometry/math/gravity.js';
import type { PathMotion } from './path-motion.js';

/** How far one has to lean, radians, so that gravity and a sideways acceleration (m/s²) together press straight down on the seat. */
export const balanceAngle = (push: number): number => Math.atan(push / GRAVITY);

/** Samples of speed in a window. */
const SAMPLES = 24;
/** No window is narrower, frames. */
const NARROWEST = 0.25;

/**
 * Lateral acceleration of a rider, m/s² to its path's left, at a frame, for its distance, speed along its path, and
 * offset to the side.
 */
export type PushAt = (frame: number, distance: number, speed: number, side: number) => number;

/**
 * The sideways acceleration of a rider's own track, v²κ: it goes v (1 − κ · side) along its path and as fast to the side as its keyed
 * offset changes, and its track turns with the path, and against it where that offset changes. So braking presses nobody sideways,
 * and what is moved aside on a straight is pressed by its own bend.
 *
 * What its speeds ahead and aside gain is averaged under a raised-cosine window of time, so that no key snaps it.
 *
 * @param curvatureAt  the path's by distance, 1/m, positive to the left
 * @param size         how much larger the whole ride is
 * @param windowFrames over how many frames keyed offsets are averaged at a speed
 */
export function compilePush(
  { pace, offset }: Pick<PathMotion, 'pace' | 'offset'>,
  curvatureAt: (distance: number) => number,
  size: number,
  fps: number,
  windowFrames: (speed: number) => number,
): PushAt {
  if (offset.fixed)
    return (_, distance, speed, side) => {
      const curvature = curvatureAt(distance);
      return size * speed * speed * curvature * (1 - curvature * side);
    };
  const speedAhead = (frame: number): number => {
    const { side } = offset.at(frame);
    return pace.speed(frame) * (1 - curvatureAt(pace.distance(frame)) * side);
  };
  const sideways = (frame: number) => offset.rate('side', frame) * fps;
  return (frame, distance, speed, side) => {
    const curvature = curvatureAt(distance);
    const ahead = speed * (1 - curvature * side);
    const left = sideways(frame);
    const own = Math.hypot(ahead, left);
    if (own === 0) return 0;
    const width = Math.max(NARROWEST, windowFrames(speed));
    // Square to the track: what it gains to the left, and what it gains ahead.
    const turning = ahead * gain(sideways, frame, width) - left * gain(speedAhead, frame, width);
    return size * (ahead < 0 ? -1 : 1) * (own * curvature * speed + (turning * fps) / own);
  };
}

/** The places of a window 1 wide about 0, and how much a value there counts for how fast it rises: exact for what rises evenly. */
const PLACES = Array.from({ length: SAMPLES }, (_, i) => (i + 0.5) / SAMPLES - 0.5);
const SUM = PLACES.reduce((sum, part) => sum + part * Math.sin(2 * Math.PI * part), 0);
const WEIGHTS = PLACES.map((part) => Math.sin(2 * Math.PI * part) / SUM);

/** Rate of a value per frame, averaged under a raised-cosine window of a width in frames: by parts, from the value itself. */
function gain(value: (frame: number) => number, frame: number, width: number): number {
  let sum = 0;
  for (let i = 0; i < SAMPLES; i++) sum += value(frame + PLACES[i] * width) * WEIGHTS[i];
  return sum / width;
}
