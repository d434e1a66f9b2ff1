import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Chassis, Rider } from '../../document/shot-rider.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import type { ChassisTrack } from '../../motion/ride/chassis-motion.js';
import type { GroundFit } from '../../motion/ride/ground-fit.js';

/** Contact and travel of a rider along a path, independent of time. */
export interface RiddenTrack {
  /** No other has it. */
  readonly id: number;
  readonly groundFit: GroundFit | null;
  readonly chassis: ChassisTrack;
}

interface Kept {
  readonly ground: GroundSurface | null;
  readonly way: RiddenTrack;
}

/** By path the ways along it. An edit of a pace leaves them, and riders of one kind share theirs. */
const ways = new WeakMap<CompiledPath, Map<string, Kept>>();
let count = 0;

/** So many kinds are kept a path: each takes some hundred kilobytes. */
const MOST_WAYS = 64;

/**
 * All of a rider, beside its path and the ground, that its way by distance follows from.
 *
 * @param tower the way of what tows it, and how far behind it hangs; null where nothing does
 */
export function trackKey(
  { chassis, wheels, rest }: Rider,
  { anchor, rideTransform, facing, ground, offset }: Attachment,
  axles: Chassis | null,
  travelSign: 1 | -1,
  tower: { readonly way: RiddenTrack; readonly gap: number } | null,
): string {
  const { forward, up, reference } = facing;
  const standing = wheels.map(({ centre, radius }) => [centre, radius]);
  return JSON.stringify([
    anchor,
    rideTransform,
    [forward, up, reference],
    ground,
    { ...offset, along: 0 },
    [standing, rest.scale, chassis, axles, travelSign],
    tower && [tower.way.id, tower.gap],
  ]);
}

/** A way that is made once for all riders of a kind, for as long as neither path nor ground changes. */
export function sharedTrack(
  path: CompiledPath,
  ground: GroundSurface | null,
  key: string,
  make: () => Omit<RiddenTrack, 'id'>,
): RiddenTrack {
  const kept = ways.get(path) ?? new Map<string, Kept>();
  ways.set(path, kept);
  const cached = kept.get(key);
  if (cached?.ground === ground) return cached.way;
  const way = { ...make(), id: count++ };
  if (kept.size >= MOST_WAYS) kept.clear();
  kept.set(key, { ground, way });
  return way;
}
