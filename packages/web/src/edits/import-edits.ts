import {
  Camera,
  LIMITS,
  Rider,
  ShotError,
  defaultsOf,
  freeBadge,
  freeId,
  leastUsedColor,
  newAttachment,
  type Shot,
  type ShotPath,
  type Vec3,
} from '@fleet-rail/core';
import type { Imported, ImportedRide } from '@fleet-rail/core/paths';
import { addPaths } from './path-edits';

/** Imported paths, scaled about the world's origin. */
export function resized(imported: Imported, times: number): Imported {
  if (times === 1) return imported;
  const grown = (place: Vec3): Vec3 => [place[0] * times, place[1] * times, place[2] * times];
  return {
    ...imported,
    paths: imported.paths.map((path): ShotPath => ({
      ...path,
      points: path.points.map((point) => ({
        ...point,
        position: grown(point.position),
        in: grown(point.in),
        out: grown(point.out),
      })),
    })),
    rides: imported.rides.map((ride) => ({
      ...ride,
      keys: ride.keys.map((key) => ({ ...key, value: key.value * times })),
    })),
  };
}

/** Some of the paths of a file, with the motions along them. */
export function onlySome(imported: Imported, chosen: ReadonlySet<number>): Imported {
  const paths = imported.paths.filter((_, i) => chosen.has(i));
  const ids = new Set(paths.map(({ id }) => id));
  return { ...imported, paths, rides: imported.rides.filter(({ pathId }) => ids.has(pathId)) };
}

/**
 * A shot with imported paths, and a carrier on each that has a motion.
 *
 * @throws ShotError where there would be more than a shot holds
 */
export function withImported(shot: Shot, { paths, rides }: Imported): { shot: Shot; ids: string[] } {
  const riders = shot.riders.length + rides.length;
  if (riders > LIMITS.riders) throw new ShotError('riders', `${riders} of them`, `at most ${LIMITS.riders}`);
  const { shot: after, ids } = addPaths(shot, paths);
  const idOf = new Map(paths.map((path, i) => [path.id, ids[i]]));
  const ridden = rides.reduce(
    (before, ride) => withCarrier(before, ride, idOf.get(ride.pathId) ?? ride.pathId),
    after,
  );
  return { shot: ridden, ids };
}

function withCarrier(shot: Shot, { name, keys, lens }: ImportedRide, path: string): Shot {
  const attachment = newAttachment(path, shot.range);
  const rider: Rider = {
    ...defaultsOf(Rider),
    id: freeId(name, shot.riders),
    name: name.slice(0, 200) || 'Motion',
    kind: lens ? 'camera' : 'carrier',
    camera: lens && { ...defaultsOf(Camera), ...lens },
    badge: freeBadge(name, shot),
    color: leastUsedColor(shot),
    attachment: { ...attachment, pace: { ...attachment.pace, unit: 'metres', keys } },
  };
  return { ...shot, riders: [...shot.riders, rider] };
}
