import { POSE, type CompiledPath, type GroundHeight } from '@fleet-rail/core';

/** Where a rider really is along its path, its clearance and offset in it. */
export interface RiderTrack {
  /** In order of distance: metres along the path, and the height there, metres. */
  readonly places: readonly { readonly distance: number; readonly track: number }[];
  /** Where it is nearest to the ground; null where there is none. */
  readonly least: { readonly over: number; readonly distance: number; readonly sample: number } | null;
}

/** So many places are drawn. */
const PLACES = 240;

/**
 * @param poses POSE.size numbers a sample
 */
export function riderTrack(poses: Float64Array, curve: CompiledPath, ground: GroundHeight): RiderTrack {
  const count = poses.length / POSE.size;
  const every = Math.max(1, Math.ceil(count / PLACES));
  const places: { distance: number; track: number }[] = [];
  let least: RiderTrack['least'] = null;
  for (let i = 0; i < count; i++) {
    const at = i * POSE.size;
    const [x, y, z] = [poses[at], poses[at + 1], poses[at + 2]];
    const distance = curve.wrap(poses[at + POSE.distance]);
    const below = ground(x, z, y);
    if (below !== null && y - below < (least?.over ?? Infinity))
      least = { over: y - below, distance, sample: i };
    if (i % every === 0) places.push({ distance, track: y });
  }
  return { places: places.sort((a, b) => a.distance - b.distance), least };
}
