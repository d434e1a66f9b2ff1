import type { Rider, Wheel } from '../../document/shot-rider.js';
import type { ChassisMotion } from '../../motion/ride/chassis-motion.js';
import { ownAxes, ownPosition } from '../../motion/ride/contact-points.js';
import { axisVector } from '../../motion/pose/axes.js';
import { wheelTravel } from './wheel-travel.js';

/** One wheel of a rider over the shot. */
export interface RollingWheel {
  readonly wheel: Wheel;
  /** Metres, in the world. */
  readonly radius: number;
  /** Metres ahead of the rider's origin, to its left and up, of its centre. */
  readonly centre: readonly [number, number, number];
  /** Radians turned, positive rolling ahead. */
  turned(frame: number): number;
  /** Radians, positive to the left; 0 where it does not steer. */
  steer(frame: number): number;
  /** How fast it slides sideways, m/s, positive to the left. */
  slip(frame: number): number;
}

/** Wheels of a rider; a wheel turns about its axle so that its contact point rests on the ground. */
export function compileWheels(rider: Rider, chassis: ChassisMotion): RollingWheel[] {
  const axes = ownAxes(rider);
  return rider.wheels.map((wheel): RollingWheel => {
    const centre = ownPosition(axes, wheel.centre);
    const radius = wheel.radius * axes.scale[2];
    const contact: [number, number, number] = [centre[0], centre[1], centre[2] - radius];
    const travel = wheelTravel(chassis.track, contact, wheel.steers);
    return {
      wheel,
      radius,
      centre,
      turned: (frame) => travel.rolled(chassis.progress(frame)) / radius,
      steer: (frame) => (wheel.steers ? travel.steer(chassis.progress(frame)) : 0),
      slip: (frame) => travel.slip(chassis.progress(frame)) * chassis.rate(frame),
    };
  });
}

/** 1 where a positive turn about a wheel's axle rolls it ahead, −1 where it rolls it back. */
export function axleTravelSign(
  rider: Pick<Rider, 'attachment' | 'rest'>,
  { axle }: Pick<Wheel, 'axle'>,
): 1 | -1 {
  const { left } = ownAxes(rider);
  const way = axisVector(axle);
  return left[0] * way[0] + left[1] * way[1] + left[2] * way[2] < 0 ? -1 : 1;
}

/**
 * The angle of a wheel in the middle of the steered axle, radians: what the steering wheel is turned for.
 * The mean of cotangents is exact where both sides steer about one centre.
 */
export function middleSteer(wheels: readonly RollingWheel[], frame: number): number {
  const angles = wheels.filter(({ wheel }) => wheel.steers).map(({ steer }) => steer(frame));
  if (angles.length === 0) return 0;
  const straight = angles.every((angle) => Math.abs(angle) < 1e-9);
  if (straight) return 0;
  const mean = angles.reduce((sum, angle) => sum + 1 / Math.tan(angle || 1e-12), 0) / angles.length;
  return Math.atan(1 / mean);
}
