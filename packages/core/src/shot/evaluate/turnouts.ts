import { vec3 } from 'gl-matrix';
import type { Cue } from '../../document/shot-cue.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import type { Motion } from '../../motion/pace/compiled-pace.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { linkedPath, type PathStretch } from '../../geometry/path/linked-path.js';
import { PathError } from '../../geometry/path/path-error.js';
import type { Track } from '../../motion/pace/track.js';
import { nearestToPoint } from '../../geometry/path/nearest.js';

/** A path that a rider turns out to at a frame. */
export interface Turnout {
  readonly frame: number;
  readonly to: CompiledPath;
}

/** Less than this is no room to go on, metres. */
const LEAST = 1e-6;

/** A track without ends, to ask a pace how far it goes. */
export const ENDLESS: Track = { length: Infinity, closed: true };

/** The turnouts that cues make, as far as their moments come and their paths have curves. */
export function turnoutsOf(
  cues: readonly Cue[],
  paths: ReadonlyMap<string, CompiledPath | PathError>,
  moment: (cue: Cue) => number | null,
): Turnout[] {
  return cues.flatMap((cue): Turnout[] => {
    const to = paths.get(cue.action.path ?? '');
    const frame = moment(cue);
    return to === undefined || to instanceof PathError || frame === null ? [] : [{ frame, to }];
  });
}

/** A path made from turnouts. */
interface Made {
  readonly key: string;
  readonly tos: readonly CompiledPath[];
  readonly path: CompiledPath;
}

/** The last of them by the path they begin with: what is compiled for one is kept with it. */
const kept = new WeakMap<CompiledPath, readonly Made[]>();
/** So many riders of one path turn out in ways of their own, mostly. */
const MOST_KEPT = 8;

/**
 * Track of a rider that turns out of its path to others, as one path from the first point of its own: at each turnout
 * it continues at the nearest point of the other path, in the direction nearest to its own. A turnout passed going
 * back does not count.
 *
 * @param timing how far it has come, along its own path and on
 */
export function turnedOut(
  own: CompiledPath,
  timing: Motion,
  turnouts: readonly Turnout[],
  range: { readonly first: number; readonly last: number },
): CompiledPath {
  let most = 0;
  for (let frame = range.first; frame <= range.last + 1; frame++)
    most = Math.max(most, timing.distance(frame));
  const stretches: PathStretch[] = [];
  let now = { path: own, from: 0, way: 1 };
  let come = 0;
  for (const { frame, to } of [...turnouts].sort((a, b) => a.frame - b.frame)) {
    const gone = timing.distance(frame) - come;
    if (to === now.path || gone <= 0 || timing.speed(frame) < 0) continue;
    const end = now.from + now.way * gone;
    const [position, tangent, there]: Vec3[] = [
      [0, 0, 0],
      [0, 0, 0],
      [0, 0, 0],
    ];
    now.path.position(end, position);
    now.path.tangent(end, tangent);
    const { distance } = nearestToPoint(to, position);
    to.tangent(distance, there);
    stretches.push({ path: now.path, from: now.from, to: end });
    come += gone;
    const bears = vec3.dot(tangent, there) * now.way < 0 ? -1 : 1;
    // From an end it can go but one way.
    const room = to.closed || (bears > 0 ? to.length - distance : distance) > LEAST;
    now = { path: to, from: distance, way: room ? bears : -bears };
  }
  if (stretches.length === 0) return own;
  // Round a closed path as far as it comes, and a little; an open one to its end.
  const { path: last, from, way } = now;
  const rest = last.closed ? most - come + last.length : way > 0 ? last.length - from : from;
  stretches.push({ path: last, from, to: from + way * rest });
  const tos = stretches.map((one) => one.path);
  const key = JSON.stringify(stretches.map((one) => [one.from, one.to]));
  const known = kept.get(own) ?? [];
  const before = known.find((one) => one.key === key && one.tos.every((to, i) => to === tos[i]));
  if (before) return before.path;
  const path = linkedPath(stretches);
  kept.set(own, [{ key, tos, path }, ...known].slice(0, MOST_KEPT));
  return path;
}
