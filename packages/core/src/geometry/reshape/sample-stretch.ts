import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from '../path/compiled-path.js';
import type { FitSamples } from './fit-cubics.js';
import { findKinks } from '../path/path-facts.js';

const SAMPLES_PER_SEGMENT = 12;
const FEWEST = 32;
const MOST = 6_000;

/** The stretches [from, to] of a path between its kinks, metres. */
export function smoothStretches(path: CompiledPath): [number, number][] {
  const inner = findKinks(path)
    .map(({ distance }) => distance)
    .filter((distance) => distance > 0);
  const stops = [0, ...inner, path.length];
  return stops.slice(1).map((to, i) => [stops[i], to]);
}

/** Places and tangents of a stretch at even distances, both ends included, and those distances. */
export function sampleStretch(
  path: CompiledPath,
  [from, to]: readonly [number, number],
  perSegment = SAMPLES_PER_SEGMENT,
): FitSamples & { readonly distances: Float64Array } {
  const share = (path.segments.count * perSegment * (to - from)) / path.length;
  const count = Math.min(MOST, Math.max(FEWEST, Math.ceil(share))) + 1;
  const positions = new Float64Array(3 * count);
  const tangents = new Float64Array(3 * count);
  const distances = new Float64Array(count);
  const place: Vec3 = [0, 0, 0];
  const tangent: Vec3 = [0, 0, 0];
  // The very end belongs to what comes after a kink; a hair before it the stretch's own tangent holds.
  const hair = 1e-11 * path.length;
  for (let i = 0; i < count; i++) {
    const s = from + ((to - from) * i) / (count - 1);
    distances[i] = s;
    const inside = Math.min(s, to - hair);
    path.position(inside, place);
    path.tangent(inside, tangent);
    positions.set(place, 3 * i);
    tangents.set(tangent, 3 * i);
  }
  return { positions, tangents, distances };
}
