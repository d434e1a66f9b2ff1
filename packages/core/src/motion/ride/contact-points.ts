import type { Axis } from '../../document/shot-facing.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../pose/axes.js';
import { scaledChassis } from './scaled-chassis.js';

/** Contact point of a rider: metres ahead of its origin and to its left, in the world's scale. */
export interface ContactPoint {
  readonly ahead: number;
  readonly left: number;
  /** Over so much of the ground it evens steps out, metres. */
  readonly radius: number;
}

/** The model's own ways: which of its axes are ahead, left and up, and how much larger it is along each. */
export interface OwnAxes {
  readonly ahead: Vec3;
  readonly left: Vec3;
  readonly up: Vec3;
  /** Along ahead, left and up. */
  readonly scale: Vec3;
}

/** The ways of a rider's model, by how it faces. */
export function ownAxes({ attachment, rest }: Pick<Rider, 'attachment' | 'rest'>): OwnAxes {
  const forward: Axis = attachment?.facing.forward ?? '+z';
  const upward: Axis = attachment?.facing.up ?? '+y';
  const [ahead, up] = [axisVector(forward), axisVector(upward)];
  const left: Vec3 = [
    up[1] * ahead[2] - up[2] * ahead[1],
    up[2] * ahead[0] - up[0] * ahead[2],
    up[0] * ahead[1] - up[1] * ahead[0],
  ];
  const along = (way: Vec3) =>
    Math.abs(way[0] * rest.scale[0] + way[1] * rest.scale[1] + way[2] * rest.scale[2]);
  return { ahead, left, up, scale: [along(ahead), along(left), along(up)] };
}

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** A place of the model as metres ahead, to the left and up, scaled. */
export function ownPosition({ ahead, left, up, scale }: OwnAxes, place: Vec3): Vec3 {
  return [scale[0] * dot(place, ahead), scale[1] * dot(place, left), scale[2] * dot(place, up)];
}

/** Contact points are at least this far apart, so that a rider without wheels still tilts, metres. */
const FOOTING = 0.25;

/**
 * Contact points of a rider: under its wheels; without any, at its axles or about its origin.
 *
 * @param towed whether its coupling holds it up in front, so that one axle is enough
 */
export function contactPoints(rider: Rider, towed = false): ContactPoint[] {
  const axes = ownAxes(rider);
  if (rider.wheels.length > 0) {
    const points = rider.wheels.map(({ centre, radius }): ContactPoint => {
      const [ahead, left] = ownPosition(axes, centre);
      return { ahead, left, radius: radius * axes.scale[2] };
    });
    const axles = new Set(points.map(({ ahead }) => Math.round(ahead * 1e3)));
    if (towed) return points;
    // One axle alone tilts with what is before and behind it, a track of middles with what is beside it.
    if (axles.size > 1 && points.some(({ left }) => Math.abs(left) > 1e-3)) return points;
    const tracks = new Set(points.map(({ left }) => Math.round(left * 1e3)));
    return points.flatMap((point) => {
      const [long, wide] = [
        axles.size > 1 ? [0] : [point.radius, -point.radius],
        tracks.size > 1 ? [0] : [FOOTING, -FOOTING],
      ];
      return long.flatMap((x) =>
        wide.map((y) => ({ ...point, ahead: point.ahead + x, left: point.left + y })),
      );
    });
  }
  const chassis = rider.chassis && scaledChassis(rider.chassis, axes.scale[0]);
  const ends =
    chassis && chassis.frontAxle > chassis.rearAxle
      ? [chassis.frontAxle, chassis.rearAxle]
      : [FOOTING, -FOOTING];
  return ends.flatMap((ahead) => [FOOTING, -FOOTING].map((left) => ({ ahead, left, radius: FOOTING })));
}
