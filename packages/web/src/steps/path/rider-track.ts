import { POSE, type CompiledPath, type GroundHeight } from '@fleet-rail/core';

/** Real track of a rider along its path, with clearance and offset. */
export interface RiderTrack {
  /** In order of distance: metres along the path, and the height there, metres. */
  readonly places: readonly { readonly distance: number; readonly track: number }[];
  /** Point nearest to the ground; null without ground. */
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
