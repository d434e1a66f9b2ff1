import type { Vec3 } from '../geometry/math/vec.js';
import { ownAxes } from '../motion/ride/contact-points.js';
import type { RiderLook } from './rider-look.js';

/** Lowest points of a rider, by its kind of contact. */
export interface BodyContact {
  readonly on: 'wheels' | 'ball' | 'feet' | 'underside';
  /** In the rider’s own turned space, metres, its scale in them. */
  readonly places: readonly Vec3[];
  /** By so much its own ground evens steps out, so that it may be off by a part of that, metres. */
  readonly evens: number;
}

/**
 * Points at which a rider meets the ground: under its wheels or ball, at its feet, or at the outermost corners of its
 * model. Null if none are known.
 */
export function bodyContactOf({ rider, body }: Pick<RiderLook, 'rider' | 'body'>): BodyContact | null {
  const { scale } = rider.rest;
  const scaled = (place: ArrayLike<number>): Vec3 => [
    place[0] * scale[0],
    place[1] * scale[1],
    place[2] * scale[2],
  ];
  const { up } = ownAxes(rider);
  const under = (centre: Vec3, radius: number): Vec3 =>
    scaled([0, 1, 2].map((k) => centre[k] - up[k] * radius));
  if (rider.rigidBody !== null) return underside(body, scaled);
  if (rider.wheels.length > 0)
    return {
      on: 'wheels',
      places: rider.wheels.map(({ centre, radius }) => under(centre, radius)),
      evens: Math.min(...rider.wheels.map(({ radius }) => radius * Math.abs(scale[1]))),
    };
  if (rider.ball !== null)
    return {
      on: 'ball',
      places: [under(rider.ball.centre, rider.ball.radius)],
      evens: rider.ball.radius * Math.abs(scale[1]),
    };
  if (rider.kind === 'character' || rider.gait !== null)
    return { on: 'feet', places: [[0, 0, 0]], evens: 0.25 };
  return underside(body, scaled);
}

function underside(body: RiderLook['body'], scaled: (place: ArrayLike<number>) => Vec3): BodyContact | null {
  if (body === null) return null;
  const corners = body.outermost;
  const places: Vec3[] = [];
  for (let i = 0; i < corners.length; i += 3) places.push(scaled(corners.subarray(i, i + 3)));
  return { on: 'underside', places, evens: 0 };
}
