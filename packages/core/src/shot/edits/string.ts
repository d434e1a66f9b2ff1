import { freeId, freeName } from '../../document/free-name.js';
import { LIMITS } from '../../document/limits.js';
import { refuseCircles } from '../../document/rider-graph.js';
import { ShotError } from '../../document/shot-error.js';
import type { Chassis, Rider, Wheel } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { chassisOf, hasWheelbase } from '../../motion/ride/chassis.js';
import { ownAxes, ownPosition } from '../../motion/ride/contact-points.js';
import { newAttachment } from '../../motion/ride/new-attachment.js';
import type { Axes } from './attach-riders.js';
import { unitsBehind } from './change-string.js';
import { freeBadge } from './new-rider.js';

/** Whether a rider goes as vehicles on roads do: it steers, or one of its axles follows the other. */
export function isRoadVehicle({ wheels, attachment }: Rider): boolean {
  const anchor = attachment?.anchor ?? 'origin';
  return anchor !== 'bothAxles' && (wheels.some(({ steers }) => steers) || anchor !== 'origin');
}

/** The wheels of a unit that is towed: those ahead of its rear axle turn with the drawbar. */
function withTurntable(rider: Rider, { frontAxle, rearAxle }: Chassis): Wheel[] {
  const axes = ownAxes(rider);
  return rider.wheels.map((wheel) => {
    const steers = ownPosition(axes, wheel.centre)[0] > rearAxle + (frontAxle - rearAxle) / 2;
    return steers ? { ...wheel, steers: true, drives: false } : wheel;
  });
}

/** A string of units behind a rider. */
export interface StringOf {
  /** The rider that is hung behind; more units are copies of it. */
  readonly unit: string;
  readonly count: number;
  /** Coupling to coupling, metres. */
  readonly gap: number;
}

/**
 * The shot with a string behind the last unit of a rider's string: the unit first, then copies of it. Behind a road
 * vehicle a unit is towed by its coupling, and its front axle turns with the drawbar; else one with two axles has
 * both on the path.
 *
 * @param axes the axes the unit's model was found to face by, where it rides nothing yet
 * @throws ShotError where the leader rides nothing, or the unit leads the leader
 */
export function hangString(
  shot: Shot,
  leaderId: string,
  { unit: unitId, count, gap }: StringOf,
  axes?: Axes,
): { shot: Shot; ids: string[] } {
  const leader = shot.riders.find(({ id }) => id === leaderId);
  const unit = shot.riders.find(({ id }) => id === unitId);
  if (!leader?.attachment || !unit) {
    throw new ShotError('riders', `"${leaderId}" at rest`, 'a rider on a path to hang something behind');
  }
  if (shot.riders.length + count - 1 > LIMITS.riders) {
    throw new ShotError('riders', `${shot.riders.length} and ${count - 1} more`, `at most ${LIMITS.riders}`);
  }
  const others = shot.riders.filter(({ id }) => id !== unitId);
  const end = unitsBehind(others, leader).at(-1) ?? leader;
  const road = isRoadVehicle(leader);
  const hung = (rider: Rider, behind: string): Rider => {
    const plain = newAttachment(leader.attachment?.path ?? '', shot.range);
    const before = rider.attachment ?? { ...plain, facing: { ...plain.facing, ...axes } };
    const chassis = chassisOf(rider, null);
    const onRails = chassis !== null && hasWheelbase(chassis) ? 'bothAxles' : before.anchor;
    const towed = road && chassis !== null && chassis.frontCoupling > chassis.rearAxle;
    return {
      ...rider,
      wheels: towed && chassis ? withTurntable(rider, chassis) : rider.wheels,
      attachment: {
        ...before,
        path: leader.attachment?.path ?? before.path,
        anchor: towed ? 'frontAxle' : onRails,
        offset: { ...before.offset, along: 0 },
        offsetKeys: [],
        pacedBy: null,
        coupledTo: { rider: behind, gap },
      },
    };
  };
  let riders = shot.riders.map((rider) => (rider === unit ? hung(rider, end.id) : rider));
  const ids = [unitId];
  for (let i = 1; i < count; i++) {
    const id = freeId(unit.name, riders);
    const copy = { ...hung(unit, ids[ids.length - 1]), id };
    riders = [
      ...riders,
      { ...copy, name: freeName(unit.name, riders), badge: freeBadge(unit.name, { riders }) },
    ];
    ids.push(id);
  }
  const strung = { ...shot, riders };
  refuseCircles(strung);
  return { shot: strung, ids };
}
