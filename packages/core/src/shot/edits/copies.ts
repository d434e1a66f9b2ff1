import { quat, vec3 } from 'gl-matrix';
import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import { freeId, freeName } from '../../document/free-name.js';
import { LIMITS } from '../../document/limits.js';
import { ShotError } from '../../document/shot-error.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { withoutDust } from '../../document/dust.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import { PathError } from '../../geometry/path/path-error.js';
import { freeBadge } from './new-rider.js';

export const COPY_PLACES = ['row', 'around', 'along', 'area'] as const;

/** Arrangement of copies of a rider at rest. */
export interface Copies {
  readonly count: number;
  /** In a row; evenly round a middle, itself among them; at even steps along a path; or over a disc about it, by a seed. */
  readonly places: (typeof COPY_PLACES)[number];
  /** `row`: from one to the next, metres. */
  readonly step: Vec3;
  /** `around`: the ring’s, `area`: the disc’s, metres. */
  readonly radius: number;
  /** `along`: which path, and how far to its left, metres. */
  readonly path: string | null;
  readonly side: number;
  readonly seed: number;
  /** Each is placed on the ground under it. */
  readonly onGround: boolean;
}

interface Spot {
  readonly place: Vec3;
  /** Radians to the left of how the one that is copied is turned; for `along` of the world. */
  readonly turn: number;
}

/**
 * The shot with copies of a rider at rest, or moved by hand: each moves as it does, from its own place.
 *
 * @returns the shot, and the ids of the copies
 * @throws ShotError where the shot holds no more riders, the rider rides a path, or there is no path to stand along
 */
export function standCopies(
  shot: Shot,
  ground: GroundSurface | null,
  id: string,
  copies: Copies,
): { shot: Shot; ids: string[] } {
  const rider = shot.riders.find((one) => one.id === id);
  if (!rider || rider.attachment !== null)
    throw new ShotError('riders', `"${id}" on a path`, 'a rider that rides no path, to copy');
  if (shot.riders.length + copies.count > LIMITS.riders)
    throw new ShotError(
      'riders',
      `${shot.riders.length} and ${copies.count} more`,
      `at most ${LIMITS.riders}`,
    );
  const from = rider.transformKeys?.keys[0]?.translation ?? rider.rest.translation;
  const facing = rider.transformKeys?.keys[0]?.rotation ?? rider.rest.rotation;
  const riders = [...shot.riders];
  const ids = spotsOf(shot, from, facing, copies).map(({ place, turn }) => {
    const height =
      copies.onGround && rider.parent === null ? ground?.nearestHeight(place[0], place[2], place[1]) : null;
    const at: Vec3 = [place[0], height ?? place[1], place[2]];
    const copy = {
      ...movedTo(rider, from, at, turn, copies.places === 'along'),
      // A path is in the world, whatever carries the one that is copied.
      parent: copies.places === 'along' ? null : rider.parent,
      id: freeId(rider.name, riders),
      name: freeName(rider.name, riders),
      badge: freeBadge(rider.name, { riders }),
    };
    riders.push(copy);
    return copy.id;
  });
  return { shot: { ...shot, riders }, ids };
}

function spotsOf(shot: Shot, from: Vec3, facing: Quat, copies: Copies): Spot[] {
  const { count, places, step, radius, seed, side } = copies;
  const all = Array.from({ length: count }, (_, i) => i + 1);
  if (places === 'row')
    return all.map((i) => ({ place: vec3.scaleAndAdd([0, 0, 0], from, step, i) as Vec3, turn: 0 }));
  if (places === 'around') {
    // The middle lies to its left; going round, each looks as the first does.
    const left = vec3.transformQuat([0, 0, 0], [1, 0, 0], facing) as Vec3;
    const aside = Math.atan2(left[0], left[2]);
    return all.map((i) => {
      const turn = (2 * Math.PI * i) / (count + 1);
      const on = (angle: number): Vec3 => [radius * Math.sin(angle), 0, radius * Math.cos(angle)];
      const [middle, back] = [on(aside), on(aside + turn)];
      return { place: from.map((value, k) => value + middle[k] - back[k]) as Vec3, turn };
    });
  }
  if (places === 'area')
    return all.map((i) => {
      const random = seededNumbers(seed, i);
      // Even over the disc: the square of the distance is even.
      const far = radius * Math.sqrt((random() + 1) / 2);
      const angle = Math.PI * random();
      return {
        place: [from[0] + far * Math.sin(angle), from[1], from[2] + far * Math.cos(angle)],
        turn: Math.PI * random(),
      };
    });
  const path = shot.paths.find((one) => one.id === copies.path);
  const curve = path && compiledPathOf(path);
  if (!curve || curve instanceof PathError) throw new ShotError('paths', 'no curve', 'a path to stand along');
  const frame = new Float64Array(12);
  return all.map((i) => {
    const steps = curve.closed ? count : Math.max(1, count - 1);
    curve.frame(((i - 1) * curve.length) / steps, frame, 0);
    const place = [0, 1, 2].map((k) => frame[k] + side * frame[3 + k]) as Vec3;
    return { place, turn: Math.atan2(frame[9], frame[11]) };
  });
}

/** A rider at rest, or moved by hand, in another place. */
function movedTo(rider: Rider, from: Vec3, to: Vec3, turn: number, whole: boolean): Rider {
  const yaw = clean(quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], turn) as Quat);
  const turned = (rotation: Quat): Quat => {
    const both = quat.multiply([0, 0, 0, 1], yaw, rotation);
    return clean(quat.normalize(both, both) as Quat);
  };
  const placed = (place: Vec3): Vec3 => {
    const off = vec3.subtract([0, 0, 0], place, from);
    vec3.transformQuat(off, off, yaw);
    return (vec3.add([0, 0, 0], off, to) as Vec3).map(withoutDust) as Vec3;
  };
  const { rest, transformKeys } = rider;
  return {
    ...rider,
    frozen: null,
    parentKeys: [],
    rest: { ...rest, translation: placed(rest.translation), rotation: whole ? yaw : turned(rest.rotation) },
    transformKeys: transformKeys && {
      keys: transformKeys.keys.map((key) => ({
        ...key,
        translation: placed(key.translation),
        rotation: turned(key.rotation),
      })),
    },
  };
}

/** A turn as the document keeps it. */
const clean = (turn: Quat): Quat => turn.map(withoutDust) as Quat;
