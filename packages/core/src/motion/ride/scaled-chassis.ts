import type { Chassis } from '../../document/shot-rider.js';

/** A chassis as large as its rider is: metres of the model to metres of the world. */
export function scaledChassis(chassis: Chassis, scale: number): Chassis {
  return {
    frontAxle: chassis.frontAxle * scale,
    rearAxle: chassis.rearAxle * scale,
    frontCoupling: chassis.frontCoupling * scale,
    rearCoupling: chassis.rearCoupling * scale,
  };
}
