import { vec3 } from 'gl-matrix';
import { DEGREES } from '../math/angle.js';
import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';
import { unitTangent } from './tangent.js';

/** How a path turns to and fro in short bends, as drawn or measured points with errors in them do. */
export interface Roughness {
  /** How many short bends lie between two that turn the other way. */
  readonly bends: number;
  /** The roughest of them: degrees it turns, over how many metres, and metres along the path to where it does, on average. */
  readonly angleDeg: number;
  readonly over: number;
  readonly distance: number;
}

/**
 * Bends that turn by less are not counted, degrees: a curve through even points wavers a little where its bend
 * changes sides.
 */
const SEEN_DEG = 3;
/** A bend is short if it is no longer than this many gaps between points, and than this part of the path. */
const GAPS = 2;
const PART = 1 / 20;
const SAMPLES_PER_SEGMENT = 8;
/** A turn between samples below this is rounding, radians. */
const ROUNDING = 1e-7;

/** A stretch that turns one way. */
interface Bend {
  from: number;
  to: number;
  turned: number;
  /** Distances times what is turned at them. */
  moment: number;
}

/** The short bends of a path that turn to and fro; null where there are none. A single bend each way is a shape, not roughness. */
export function roughnessOf(path: CompiledPath): Roughness | null {
  const bends = bendsOf(path).filter(({ turned }) => turned * DEGREES >= SEEN_DEG);
  const longest = Math.min((GAPS * path.length) / path.segments.count, PART * path.length);
  const short = bends.slice(1, -1).filter(({ from, to }) => to - from <= longest);
  if (short.length === 0) return null;
  const worst = short.reduce((most, bend) => (bend.turned > most.turned ? bend : most));
  return {
    bends: short.length,
    angleDeg: worst.turned * DEGREES,
    over: worst.to - worst.from,
    distance: worst.moment / worst.turned,
  };
}

/** The stretches between the places at which a path begins to turn the other way. */
function bendsOf(path: CompiledPath): Bend[] {
  const { segments } = path;
  const [before, now]: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const [turn, last]: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const bends: Bend[] = [];
  let at = 0;
  unitTangent(segments, 0, 0, before);
  for (let i = 0; i < segments.count; i++) {
    const [start, end] = [path.segmentStart(i), path.segmentStart(i + 1)];
    // The start of a segment too, for the corner that it may begin with.
    for (let n = 0; n <= SAMPLES_PER_SEGMENT; n++) {
      const u = n / SAMPLES_PER_SEGMENT;
      unitTangent(segments, i, u, now);
      const here = start + u * (end - start);
      vec3.cross(turn, before, now);
      const angle = Math.atan2(vec3.length(turn), vec3.dot(before, now));
      vec3.copy(before, now);
      if (angle < ROUNDING) continue;
      const bend = bends.at(-1);
      if (bend && vec3.dot(turn, last) > 0) {
        bend.to = here;
        bend.turned += angle;
        bend.moment += angle * here;
      } else bends.push({ from: at, to: here, turned: angle, moment: angle * here });
      vec3.copy(last, turn);
      at = here;
    }
  }
  return bends;
}
