import { modulo } from '../../geometry/math/angle.js';
import { vec3 } from 'gl-matrix';
import { hannAverages, hannReach } from '../../geometry/math/hann.js';
import type { Vec3 } from '../../geometry/math/vec.js';

/** Writes the unit direction from a rider to what it aims at, at a frame; false where they are in one place. */
export type DirectionAt = (frame: number, out: Vec3) => boolean;

/** Over which frames a track is made. */
export interface TrackRange {
  readonly first: number;
  readonly last: number;
  readonly loop: boolean;
  readonly fps: number;
}

/**
 * Directions that follow a target with a dead zone and damping, the same whether played or scrubbed.
 *
 * The dead zone lets the target wander within a cone before the rider turns after it. Alone that would
 * lag; it is run forward and backward in time and the two are averaged, which lags neither way. Damping
 * averages under an even window, as long before as after. In a loop both run round and meet at the seam.
 *
 * @param deadZone radians at a frame; null for none
 * @param damping  seconds before and after that are averaged
 */
export function trackDirection(
  directionAt: DirectionAt,
  range: TrackRange,
  deadZone: ((frame: number) => number) | null,
  damping: number,
): DirectionAt {
  if (deadZone === null && damping <= 0) return directionAt;
  let built: Float64Array | null = null;
  const width = Math.max(1, 2 * damping * range.fps);
  // Outside of the range a ride is held or runs on: what is averaged at its ends is taken from there.
  const margin = range.loop ? 0 : hannReach(width) + 1;
  const start = range.first - margin;
  const count = range.last - range.first + 1 + 2 * margin;
  return (frame, out) => {
    built ??= hannAverages(
      zoned(sampled(directionAt, start, count), deadZone && ((i) => deadZone(start + i)), range.loop),
      3,
      width,
      range.loop,
    );
    const place = range.loop ? modulo(frame - start, count) : Math.min(count - 1, Math.max(0, frame - start));
    const i = Math.min(count - 1, Math.floor(place));
    const next = range.loop ? (i + 1) % count : Math.min(count - 1, i + 1);
    for (let k = 0; k < 3; k++)
      out[k] = built[3 * i + k] + (place - i) * (built[3 * next + k] - built[3 * i + k]);
    if (vec3.length(out) < 1e-9) return false;
    vec3.normalize(out, out);
    return true;
  };
}

function sampled(directionAt: DirectionAt, start: number, count: number): Float64Array {
  const out = new Float64Array(3 * count);
  const direction: Vec3 = [0, 0, 1];
  for (let i = 0; i < count; i++) {
    // If the target is at the rider's own position, the rider keeps its direction.
    directionAt(start + i, direction);
    out.set(direction, 3 * i);
  }
  return out;
}

function zoned(targets: Float64Array, zone: ((i: number) => number) | null, loop: boolean): Float64Array {
  if (zone === null) return targets;
  const there = dragged(targets, zone, loop, 1);
  const back = dragged(targets, zone, loop, -1);
  return there.map((value, i) => value + back[i]);
}

/** A direction dragged along by a cone about it that the target cannot leave. */
function dragged(
  targets: Float64Array,
  zone: (i: number) => number,
  loop: boolean,
  step: 1 | -1,
): Float64Array {
  const count = targets.length / 3;
  const out = new Float64Array(targets.length);
  const first = step > 0 ? 0 : count - 1;
  const now = at(targets, first);
  // A loop is run twice: the second round begins as the first one ended.
  for (let n = 0; n < (loop ? 2 * count : count); n++) {
    const i = modulo(first + step * n, count);
    const target = at(targets, i);
    const angle = vec3.angle(now, target);
    const free = zone(i);
    if (angle > free) turnTowards(now, target, angle, angle - free);
    out.set(now, 3 * i);
  }
  return out;
}

const at = (list: Float64Array, i: number): Vec3 => [list[3 * i], list[3 * i + 1], list[3 * i + 2]];

/** Turns a unit vector by part of the angle to another, in place. */
function turnTowards(now: Vec3, target: Vec3, angle: number, by: number): void {
  const sine = Math.sin(angle);
  if (sine < 1e-9) {
    vec3.copy(now, target);
    return;
  }
  vec3.scale(now, now, Math.sin(angle - by) / sine);
  vec3.scaleAndAdd(now, now, target, Math.sin(by) / sine);
  vec3.normalize(now, now);
}
