import { defaultsOf } from '../../document/defaults.js';
import type { PaceKey } from '../../document/shot-pace.js';
import { ShotPath } from '../../document/shot-path.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { keyedCurve } from '../math/keyed-curve.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { fitPositions } from './fit-positions.js';
import { curvedKeys, straightKeys } from './keys-of-distances.js';
import { PathError } from '../path/path-error.js';

/** A motion as a path and when to be where on it. */
export interface RideOfMotion {
  readonly path: ShotPath;
  /** In metres along the path. */
  readonly keys: PaceKey[];
}

/** Steps shorter than this are standing still, metres. */
const STILL = 1e-5;

/**
 * A path along the places of a motion, and keys that are where the motion was, when it was, both within a tolerance. Standing still
 * becomes level keys.
 *
 * @param frames    rising frames, one a place
 * @param positions x, y, z of each place in turn
 * @param tolerance metres, above 0
 * @param keyed     straight runs from key to key, or as few keys as curves allow
 * @throws PathError where nothing moves
 */
export function rideFromMotion(
  name: string,
  frames: readonly number[],
  positions: Float64Array,
  tolerance: number,
  keyed: 'straight' | 'curved',
): RideOfMotion {
  const places: Vec3[] = [];
  const placeAtFrame = frames.map((_, i) => {
    const place: Vec3 = [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
    const last = places[places.length - 1];
    if (last === undefined || distance3(last, place) > STILL) places.push(place);
    return places.length - 1;
  });
  if (places.length < 2) throw new PathError(`"${name}" stands still: a motion was expected.`);
  const blank: ShotPath = { ...defaultsOf(ShotPath), id: 'motion', name };
  const line = Float64Array.from(places.flat());
  // Errors of path and keys add up: both are fitted closer until every frame is within the tolerance.
  for (let own = tolerance, tries = 0; ; own *= 0.6, tries++) {
    const path = fitPositions(blank, line, false, own);
    const curve = compilePath(path);
    const distances = distancesOf(places, curve, own);
    const values = placeAtFrame.map((i) => distances[i]);
    const ride = { path, keys: (keyed === 'straight' ? straightKeys : curvedKeys)(frames, values, own) };
    if (tries >= MOST_TRIES || furthestOff(frames, positions, curve, ride.keys) <= tolerance) return ride;
  }
}

/** Few files are more precise than this. */
const MOST_TRIES = 6;

/** How far a ride is from a motion at any of its frames. */
function furthestOff(
  frames: readonly number[],
  positions: Float64Array,
  curve: CompiledPath,
  keys: readonly PaceKey[],
): number {
  const here: Vec3 = [0, 0, 0];
  const ridden = keyedCurve(keys);
  let most = 0;
  frames.forEach((frame, i) => {
    curve.position(ridden.value(frame), here);
    most = Math.max(most, distance3(here, [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]]));
  });
  return most;
}

const SAMPLES = 24;

/** By place the distance along the curve, each looked for only a little way on from the one before. */
function distancesOf(places: readonly Vec3[], curve: CompiledPath, tolerance: number): number[] {
  const here: Vec3 = [0, 0, 0];
  const gapAt = (s: number, place: Vec3): number => {
    curve.position(s, here);
    return distance3(here, place);
  };
  const result = [0];
  for (let i = 1; i < places.length - 1; i++) {
    const step = distance3(places[i - 1], places[i]);
    const from = result[i - 1];
    const to = Math.min(curve.length, from + 1.5 * step + 2 * tolerance);
    let best = from;
    for (let n = 1; n <= SAMPLES; n++) {
      const s = from + ((to - from) * n) / SAMPLES;
      if (gapAt(s, places[i]) < gapAt(best, places[i])) best = s;
    }
    for (let width = (to - from) / SAMPLES; width > 1e-9; width /= 2) {
      for (const s of [best - width / 2, best + width / 2]) {
        if (s >= from && s <= to && gapAt(s, places[i]) < gapAt(best, places[i])) best = s;
      }
    }
    result.push(best);
  }
  result.push(curve.length);
  return result;
}
