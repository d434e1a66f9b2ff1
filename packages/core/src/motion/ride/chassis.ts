import type { Chassis, Rider } from '../../document/shot-rider.js';
import { ownAxes, ownPosition } from './contact-points.js';
import { scaledChassis } from './scaled-chassis.js';

/** Extent of a model along each of its own axes, metres before its rider's scale. */
export interface ModelBox {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

/**
 * Axles and couplings of a rider, metres of the world ahead of its origin, with its scale. If the document has none
 * and there are wheels, the foremost and rearmost of their axles are the axles, and the model's ends (or those of the
 * wheels, if the model is not known) are the couplings.
 *
 * @returns null for what has neither
 */
export function chassisOf(rider: Rider, box: ModelBox | null): Chassis | null {
  const { chassis, wheels } = rider;
  const axes = ownAxes(rider);
  const [scale] = axes.scale;
  if (chassis !== null) return scaledChassis(chassis, scale);
  if (wheels.length === 0) return null;
  const places = wheels.map(({ centre, radius }) => ({
    at: ownPosition(axes, centre)[0],
    radius: radius * scale,
  }));
  const axles = places.map(({ at }) => at);
  const ends = box
    ? [box.low, box.high].map((corner) => ownPosition(axes, [corner[0], corner[1], corner[2]])[0])
    : places.flatMap(({ at, radius }) => [at - radius, at + radius]);
  return {
    frontAxle: Math.max(...axles),
    rearAxle: Math.min(...axles),
    frontCoupling: Math.max(...ends),
    rearCoupling: Math.min(...ends),
  };
}

/** Whether a chassis has two axles. */
export function hasWheelbase(chassis: Chassis): boolean {
  return chassis.frontAxle > chassis.rearAxle;
}

/** From coupling to coupling, metres of the world; 0 for what has none. */
export function couplingLength(chassis: Chassis | null): number {
  return chassis === null ? 0 : chassis.frontCoupling - chassis.rearCoupling;
}

/** How long a rider is, metres of the world: from coupling to coupling, or as long as its model is ahead; 0 where neither is known. */
export function riderLength(rider: Rider, box: ModelBox | null): number {
  const chassis = chassisOf(rider, box);
  if (chassis !== null) return couplingLength(chassis);
  if (box === null) return 0;
  const axes = ownAxes(rider);
  const [back, front] = [box.low, box.high].map(([x, y, z]) => ownPosition(axes, [x, y, z])[0]);
  return Math.abs(front - back);
}
