import { PathError } from '../geometry/path/path-error.js';
import { compiledPathOf } from '../geometry/path/compiled-path-of.js';
import { ribbonFrames } from '../geometry/path/ribbon-frames.js';
import type { Shot } from '../document/shot.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import type { FreeEye } from './picture-plan.js';

/** Placement of the first view of a shot, and its vertical field of view, degrees. */
export const FIRST_VIEW = { from: [-0.55, 0.62, 0.85] as Vec3, fieldOfView: 38 };
/** Margin around the target, metres. */
const ROOM = 1;
/** Nothing smaller fills the view, metres. */
const LEAST_RADIUS = 3;

/** Distance at which a ball of some radius fills the view, for its aspect ratio. */
export function firstDistance(radius: number, aspect: number): number {
  const half = (FIRST_VIEW.fieldOfView * Math.PI) / 360;
  const narrow = Math.min(half, Math.atan(Math.tan(half) * aspect));
  return (Math.max(LEAST_RADIUS, radius) * 0.72) / Math.sin(narrow);
}

/** The view that brings all paths of a shot into a picture, as the stage does when it is opened. */
export function firstEye({ paths }: Pick<Shot, 'paths'>, aspect: number): FreeEye {
  const low: Vec3 = [Infinity, Infinity, Infinity];
  const high: Vec3 = [-Infinity, -Infinity, -Infinity];
  for (const path of paths) {
    const curve = compiledPathOf(path);
    if (curve instanceof PathError) continue;
    const frames = ribbonFrames(curve);
    for (let at = 0; at < frames.length; at += 12)
      for (let k = 0; k < 3; k++) {
        low[k] = Math.min(low[k], frames[at + k]);
        high[k] = Math.max(high[k], frames[at + k]);
      }
  }
  if (!(low[0] <= high[0])) {
    low.splice(0, 3, -12, 0, -12);
    high.splice(0, 3, 12, 2, 12);
  }
  const middle = low.map((value, k) => (value + high[k]) / 2) as Vec3;
  const radius = Math.hypot(...low.map((value, k) => high[k] - value + 2 * ROOM)) / 2;
  const size = Math.hypot(...FIRST_VIEW.from);
  const [x, y, z] = FIRST_VIEW.from.map((value) => value / size);
  const distance = firstDistance(radius, aspect);
  return {
    position: middle.map((value, k) => value + distance * [x, y, z][k]) as Vec3,
    rotation: looking(Math.atan2(x, z), Math.asin(y)),
    fieldOfView: (FIRST_VIEW.fieldOfView * Math.PI) / 180,
    height: null,
  };
}

/** Turned about up, then down: an eye that looks along −Z from there. */
function looking(about: number, down: number): Quat {
  const [sinA, cosA] = [Math.sin(about / 2), Math.cos(about / 2)];
  const [sinD, cosD] = [Math.sin(-down / 2), Math.cos(-down / 2)];
  return [cosA * sinD, sinA * cosD, -sinA * sinD, cosA * cosD];
}
