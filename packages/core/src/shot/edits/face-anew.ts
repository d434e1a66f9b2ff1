import { vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import type { Chassis, Rider, Wheel } from '../../document/shot-rider.js';
import { findGait } from '../../character/gait/find-gait.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { axisAlong, axisVector } from '../../motion/pose/axes.js';
import { onFrontAxle } from '../../vehicle/wheels/find-rig.js';
import { axesOf } from '../../document/rider-axes.js';

/**
 * A rider with its nose and roof put right: its axles, which of its wheels steer, its feet and its stride are found again for that
 * facing. What was set by hand of wheels that stay at their end stays.
 *
 * @param hierarchy of its model; null where that is not there, and steps stay as they are
 */
export function withFacing(rider: Rider, forward: Axis, up: Axis, hierarchy: NodeHierarchy | null): Rider {
  if (rider.attachment === null) return rider;
  const before = axesOf(rider);
  if (before.forward === forward && before.up === up) return rider;
  const [was, ahead] = [axisVector(before.forward), axisVector(forward)];
  const faced = {
    ...rider,
    attachment: { ...rider.attachment, facing: { ...rider.attachment.facing, forward, up } },
  };
  return {
    ...faced,
    chassis: chassisAnew(rider.chassis, vec3.dot(was, ahead)),
    wheels: wheelsAnew(rider.wheels, was, ahead, axisVector(up)),
    gait: gaitAnew(faced, hierarchy, forward, up),
  };
}

/** Axles are measured along the nose: facing the other way they are swapped; facing sideways they are unknown. */
function chassisAnew(chassis: Chassis | null, turned: number): Chassis | null {
  if (chassis === null || turned > 0.5) return chassis;
  if (turned > -0.5) return null;
  const { frontAxle, rearAxle, frontCoupling, rearCoupling } = chassis;
  return {
    // From nothing, so that nothing stays nothing and not less than that.
    frontAxle: 0 - rearAxle,
    rearAxle: 0 - frontAxle,
    frontCoupling: 0 - rearCoupling,
    rearCoupling: 0 - frontCoupling,
  };
}

/** Those at the front steer where there is a rear axle, and where any steered before. */
function wheelsAnew(wheels: readonly Wheel[], was: Vec3, ahead: Vec3, up: Vec3): Wheel[] {
  const foremost = onFrontAxle(wheels.map(({ centre }) => vec3.dot(centre, ahead)));
  const steered = wheels.some(({ steers }) => steers);
  const left = vec3.cross([0, 0, 0], up, ahead) as Vec3;
  const same = vec3.dot(was, ahead) > 0.5;
  return wheels.map((wheel, i) => {
    if (same) return wheel;
    const steers = steered && foremost[i];
    return { ...wheel, axle: axisAlong(left), steers, drives: steered ? !steers : wheel.drives };
  });
}

function gaitAnew(rider: Rider, hierarchy: NodeHierarchy | null, forward: Axis, up: Axis): Rider['gait'] {
  const { gait } = rider;
  const clip = hierarchy?.clips.find(({ name }) => name === gait?.clip);
  if (!gait || !hierarchy || !clip) return gait;
  const found = findGait(hierarchy, clip, forward, up);
  if (found.stride <= 0) return gait;
  return { ...gait, stride: found.stride, feet: found.feet.map((foot) => ({ ...foot })) };
}
