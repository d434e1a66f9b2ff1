import { quat, vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import type { Cycle, Rider, Wheel } from '../../document/shot-rider.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { withJoints, type WishedJoint } from '../../character/hierarchy/wheel-joints.js';
import {
  compileParts,
  NO_PARTS,
  type MovedParts,
  type NodeDriver,
} from '../../character/hierarchy/node-driver.js';
import {
  modelSlide,
  modelTurn,
  ownMorph,
  ownSlide,
  ownTurn,
} from '../../character/hierarchy/node-drivers.js';
import {
  hangsOn,
  nodeNamed,
  turnAbout,
  type NodeHierarchy,
} from '../../character/hierarchy/node-hierarchy.js';
import { restSpace, rotationOf } from '../../character/hierarchy/model-space.js';
import { clipDriver, type PlayedClip } from '../../character/gait/clip-blocks.js';
import { axisVector } from '../../motion/pose/axes.js';
import { ownAxes } from '../../motion/ride/contact-points.js';
import { POSE } from '../../motion/pose/pose.js';
import type { PoseAt } from '../../motion/pose/pose.js';
import { axleTravelSign, middleSteer } from '../../vehicle/wheels/rolling.js';
import type { RiderContact } from './rider-contact.js';
import { RADIANS } from '../../geometry/math/angle.js';

/** A part of a model that a cue turns (degrees) or moves (metres). */
export interface CuedPart {
  readonly kind: 'turn' | 'move';
  readonly node: string;
  readonly axis: Axis;
  readonly value: (frame: number) => number;
}

/** The name of the joint that carries a wheel. */
const jointName = ({ node, steers }: Wheel): string => `${node} ${steers ? 'steer' : 'mount'}`;

/**
 * The node hierarchy with joints for wheels that steer, that are set on the ground by themselves, or that hang on the body that
 * leans: a joint steers and carries, the wheel in it spins, so that neither spoils the other.
 */
export function withWheelJoints(hierarchy: NodeHierarchy, rider: Rider) {
  const body = nodeNamed(hierarchy, rider.body.node);
  const sticks = rider.attachment?.ground.mode === 'stick';
  const wishes = rider.wheels.flatMap((wheel): WishedJoint[] => {
    const takes = nodeNamed(hierarchy, wheel.node);
    if (takes < 0) return [];
    const leans = body >= 0 && body !== takes && hangsOn(hierarchy, takes, body);
    if (!wheel.steers && !sticks && !leans) return [];
    return [{ name: jointName(wheel), takes, about: wheel.centre, leaves: leans }];
  });
  return withJoints(hierarchy, wishes);
}

/** A part that swings, by its name: joints that are put in change which node it is. */
export interface Swinging {
  readonly node: string;
  driver(node: number): NodeDriver;
}

/** Motion of a rider's model by cues and forces. */
export interface CuedMotion {
  readonly parts: readonly CuedPart[];
  /** Told by the nodes of the hierarchy they are asked for. */
  clips(hierarchy: NodeHierarchy): readonly PlayedClip[];
  /** Swinging parts, moved after all others. */
  readonly hanging: readonly Swinging[];
}

/** All that moves of a rider's model by itself: walk, clips, cycles, cues, steering wheel, wheels, body, ball. */
export function compileMovedParts(
  rider: Rider,
  model: NodeHierarchy,
  contact: RiderContact,
  cued: CuedMotion,
  pose: PoseAt,
): MovedParts {
  // A walk is compiled for the model without joints; those belong to wheels, which walkers do not have.
  const jointed = contact.walk ? withJoints(model, []) : withWheelJoints(model, rider);
  const { hierarchy } = jointed;
  const drivers: NodeDriver[] = [];
  const add = (name: string | null, make: (node: number) => NodeDriver) => {
    const node = nodeNamed(hierarchy, name);
    if (node >= 0) drivers.push(make(node));
  };
  if (contact.walk) drivers.push(contact.walk.driver);
  const played = [...contact.blocksIn(hierarchy), ...cued.clips(hierarchy)];
  if (played.length > 0) drivers.push(clipDriver(hierarchy, played));
  rider.cycles.forEach((cycle, i) => {
    const { value } = contact.cycles[i];
    add(cycle.node, (node) =>
      cycle.kind === 'morph'
        ? ownMorph(node, cycle.morph, value)
        : cycle.kind === 'slide'
          ? ownSlide(node, cycle.axis, value)
          : ownTurn(node, cycle.axis, (frame) => value(frame) * RADIANS),
    );
    const other = nodeNamed(hierarchy, cycle.mirror);
    if (other >= 0) drivers.push(mirrored(hierarchy, rider, cycle, other, value));
  });
  for (const { kind, node: name, axis, value } of cued.parts) {
    add(name, (node) =>
      kind === 'turn' ? ownTurn(node, axis, (frame) => value(frame) * RADIANS) : ownSlide(node, axis, value),
    );
  }
  const { steering } = rider;
  add(steering.node, (node) =>
    ownTurn(node, steering.axis, (frame) => steering.ratio * middleSteer(contact.wheels, frame)),
  );
  addWheels(rider, hierarchy, contact, add);
  addBody(rider, hierarchy, contact, add);
  const { ball } = rider;
  if (ball && contact.ball) {
    const name = ball.node ?? model.nodes[0]?.name ?? null;
    add(name, (node) =>
      ballMover(node, ball.centre, contact.ball as NonNullable<RiderContact['ball']>, pose),
    );
  }
  for (const { node: name, driver } of cued.hanging) add(name, driver);
  return drivers.length === 0 ? NO_PARTS : compileParts(jointed, drivers);
}

/** A cycle of the other part of a pair, mirrored at the model's middle plane. */
function mirrored(
  hierarchy: NodeHierarchy,
  rider: Rider,
  cycle: Cycle,
  node: number,
  value: (frame: number) => number,
): NodeDriver {
  if (cycle.kind === 'morph') return ownMorph(node, cycle.morph, value);
  const space = restSpace(hierarchy);
  const inModel = (of: number) =>
    vec3.transformQuat([0, 0, 0], axisVector(cycle.axis), rotationOf(space, of)) as Vec3;
  const { left } = ownAxes(rider);
  const axis = inModel(nodeNamed(hierarchy, cycle.node));
  const across = vec3.dot(axis, left);
  // A translation along an axis is mirrored; a rotation about it is reversed.
  const travelSign = cycle.kind === 'slide' ? 1 : -1;
  const wanted = vec3.scaleAndAdd([0, 0, 0], axis, left, -2 * across);
  const times = travelSign * vec3.dot(wanted, inModel(node)) < 0 ? -1 : 1;
  return cycle.kind === 'slide'
    ? ownSlide(node, cycle.axis, (frame) => times * value(frame))
    : ownTurn(node, cycle.axis, (frame) => times * value(frame) * RADIANS);
}

type Add = (name: string | null, make: (node: number) => NodeDriver) => void;

function addWheels(
  rider: Rider,
  hierarchy: NodeHierarchy,
  { wheels, groundFit, progress }: RiderContact,
  add: Add,
): void {
  const { up, scale } = ownAxes(rider);
  const each = groundFit !== null && groundFit.points.length === wheels.length;
  wheels.forEach(({ wheel, turned, steer }, i) => {
    const about = (axis: Vec3) => ({ axis, through: wheel.centre });
    const joint = jointName(wheel);
    if (wheel.steers) add(joint, (node) => modelTurn(hierarchy, node, about(up), steer));
    if (each)
      add(joint, (node) =>
        modelSlide(hierarchy, node, up, (frame) => groundFit.lift(progress(frame), i) / scale[2]),
      );
    const travelSign = axleTravelSign(rider, wheel);
    add(wheel.node, (node) =>
      modelTurn(hierarchy, node, about(axisVector(wheel.axle)), (frame) => travelSign * turned(frame)),
    );
  });
}

function addBody(rider: Rider, hierarchy: NodeHierarchy, { wheels, lean }: RiderContact, add: Add): void {
  if (lean === null) return;
  const { ahead, left } = ownAxes(rider);
  const through = [0, 1, 2].map((k) =>
    wheels.length === 0 ? 0 : wheels.reduce((sum, { wheel }) => sum + wheel.centre[k], 0) / wheels.length,
  ) as Vec3;
  add(rider.body.node, (node) => modelTurn(hierarchy, node, { axis: ahead, through }, lean.roll));
  // Turning about left takes the nose down.
  add(rider.body.node, (node) =>
    modelTurn(hierarchy, node, { axis: left, through }, (frame) => -lean.pitch(frame)),
  );
}

/** Turns a ball in the world, whichever way its rider is turned under it. */
function ballMover(
  node: number,
  centre: Vec3,
  roll: (frame: number, out: Quat) => void,
  pose: PoseAt,
): NodeDriver {
  const now = new Float64Array(POSE.size);
  const turn: Quat = [0, 0, 0, 1];
  const axis: Vec3 = [0, 0, 0];
  return {
    nodes: [node],
    apply(frame, { locals }) {
      pose(frame, now, 0);
      roll(frame, turn);
      const rider: Quat = [now[3], now[4], now[5], now[6]];
      quat.multiply(turn, quat.conjugate([0, 0, 0, 1], rider), turn);
      const angle = quat.getAxisAngle(axis, quat.normalize(turn, turn) as Quat);
      turnAbout(locals, node, axis, angle, centre);
    },
  };
}
