import type { Vec3 } from './vec.js';

/** Half the step over which a speed is taken, frames. */
const HALF_STEP = 0.05;
/** A place that goes this far within half a step, and hardly at all within the other, has jumped there, metres. */
const JUMP = 0.05;

/**
 * How fast a place moves at a frame; where it jumps, as at the end of a ride that begins again, how fast it moves on the other side of
 * that.
 *
 * @param place writes x, y, z at a frame
 * @param out   metres a second
 */
export function velocityAt(
  place: (frame: number, out: Vec3) => void,
  frame: number,
  fps: number,
  out: Vec3,
): void {
  place(frame - HALF_STEP, before);
  place(frame, here);
  place(frame + HALF_STEP, after);
  const came = Math.hypot(here[0] - before[0], here[1] - before[1], here[2] - before[2]);
  const goes = Math.hypot(after[0] - here[0], after[1] - here[1], after[2] - here[2]);
  const [from, to] =
    came > JUMP + 4 * goes ? [here, after] : goes > JUMP + 4 * came ? [before, here] : [before, after];
  const steps = from === before && to === after ? 2 : 1;
  for (let k = 0; k < 3; k++) out[k] = ((to[k] - from[k]) * fps) / (steps * HALF_STEP);
}

/** How fast a place sets off from a frame, whatever it did before: where its keys begin there, it comes from nowhere. */
export function velocityFrom(
  place: (frame: number, out: Vec3) => void,
  frame: number,
  fps: number,
  out: Vec3,
): void {
  place(frame, before);
  place(frame + HALF_STEP, here);
  place(frame + 2 * HALF_STEP, after);
  for (let k = 0; k < 3; k++)
    out[k] = ((4 * here[k] - 3 * before[k] - after[k]) * fps) / (2 * HALF_STEP) || 0;
}

const before: Vec3 = [0, 0, 0];
const here: Vec3 = [0, 0, 0];
const after: Vec3 = [0, 0, 0];
