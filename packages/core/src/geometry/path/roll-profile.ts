import { lastAtMost } from '../math/search.js';

/** Roll along a path: straight between the places where points act. */
export interface RollProfile {
  /** Metres, rising; on a closed path the last is the first again, a length on. */
  readonly distances: Float64Array;
  /** Radians, positive with the right side down. */
  readonly roll: Float64Array;
}

/**
 * Roll of the points, interpolated over arc length. It is linear between neighbours, so that cutting or joining a
 * path leaves the roll elsewhere unchanged.
 *
 * @param distances by point, metres
 * @param rollsDeg  by point, degrees
 * @returns null where there is no roll at all
 */
export function buildRollProfile(
  distances: Float64Array,
  rollsDeg: readonly number[],
  length: number,
  closed: boolean,
): RollProfile | null {
  if (rollsDeg.every((roll) => roll === 0)) return null;
  const order = [...distances.keys()].sort((a, b) => distances[a] - distances[b]);
  const place = order.map((i) => distances[i]);
  const roll = order.map((i) => (rollsDeg[i] * Math.PI) / 180);
  if (closed) {
    const last = place.length - 1;
    place.unshift(place[last] - length);
    roll.unshift(roll[last]);
    place.push(place[1] + length);
    roll.push(roll[1]);
  }
  return { distances: Float64Array.from(place), roll: Float64Array.from(roll) };
}

/** The roll at a distance that was brought into 0 … length, radians. */
export function rollAt({ distances, roll }: RollProfile, s: number): number {
  const last = distances.length - 1;
  if (s <= distances[0]) return roll[0];
  if (s >= distances[last]) return roll[last];
  const i = lastAtMost(distances, s, last);
  const gap = distances[i + 1] - distances[i];
  const part = gap > 0 ? (s - distances[i]) / gap : 1;
  return roll[i] + part * (roll[i + 1] - roll[i]);
}
