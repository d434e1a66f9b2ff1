import { modulo } from '../math/angle.js';
import { lowerBound } from '../math/search.js';
import type { Vec3 } from '../math/vec.js';

/** A joint with a sudden turn. */
export interface Corner {
  /** Metres along the track. */
  readonly at: number;
  /** Radians as seen from above, positive to the left. */
  readonly turn: number;
}

/** Curve in which corners are found. */
export interface JointedTrack {
  readonly length: number;
  readonly closed: boolean;
  /** Distances of its joints, first and last included. */
  readonly joints: readonly number[];
  tangent(s: number, out: Vec3): void;
}

/** A corner counts as its turn spread evenly over this many metres. */
export const CORNER = 1;
/** Turns of a joint below this are rounding, radians. */
const SMOOTH_JOINT = 1e-4;

const before: Vec3 = [0, 0, 0];
const after: Vec3 = [0, 0, 0];
const found = new WeakMap<JointedTrack, readonly Corner[]>();

/** The corners of a track in order, found once. */
export function cornersOf(track: JointedTrack): readonly Corner[] {
  const cached = found.get(track);
  if (cached) return cached;
  const { length, closed } = track;
  const hair = length * 1e-9;
  const joints = [...new Set(track.joints)].sort((a, b) => a - b);
  const corners = joints.flatMap((at): Corner[] => {
    if (at >= length || (!closed && at <= 0)) return [];
    track.tangent(at - hair, before);
    track.tangent(at + hair, after);
    const across = before[2] * after[0] - before[0] * after[2];
    const turn = Math.atan2(across, before[0] * after[0] + before[2] * after[2]);
    return Math.abs(turn) > SMOOTH_JOINT ? [{ at, turn }] : [];
  });
  found.set(track, corners);
  return corners;
}

/** A track whose bends are known at every place. */
export interface BentTrack extends JointedTrack {
  /** Signed curvature as seen from above, 1/m. */
  curvature(s: number): number;
}

/**
 * The curvature that is felt at a distance, 1/m, positive to the left: that of the curve, and of a corner its turn spread
 * over {@link CORNER} metres. Beyond the ends of an open track it is straight.
 */
export function feltCurvature(track: BentTrack, s: number): number {
  const { length, closed } = track;
  if (!closed && (s < 0 || s > length)) return 0;
  const place = closed ? modulo(s, length) : s;
  let sum = track.curvature(place);
  const corners = cornersOf(track);
  if (corners.length === 0) return sum;
  const places = placesOf(corners);
  for (const lap of closed ? [-length, 0, length] : [0]) {
    const last = place - lap + CORNER / 2;
    for (let i = lowerBound(places, place - lap - CORNER / 2); i < places.length && places[i] <= last; i++)
      sum += corners[i].turn / CORNER;
  }
  return sum;
}

const places = new WeakMap<readonly Corner[], Float64Array>();

function placesOf(corners: readonly Corner[]): Float64Array {
  const cached = places.get(corners) ?? Float64Array.from(corners, ({ at }) => at);
  places.set(corners, cached);
  return cached;
}
