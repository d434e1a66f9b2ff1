import { mat4, quat, vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../../motion/pose/axes.js';
import { matrixOf, rotationOf, restSpace } from './model-space.js';
import type { NodeDriver } from './node-driver.js';
import { LOCAL, turnAbout, type NodeHierarchy } from './node-hierarchy.js';
import { newMat4 } from '../../geometry/math/new-matrix.js';

/** Turns a node about one of its own axes. */
export function ownTurn(node: number, axis: Axis, angle: (frame: number) => number): NodeDriver {
  const way = axisVector(axis);
  return {
    nodes: [node],
    apply(frame, { locals }) {
      const at = node * LOCAL.size + LOCAL.rotation;
      for (let k = 0; k < 4; k++) own[k] = locals[at + k];
      quat.multiply(own, own, quat.setAxisAngle(turn, way, angle(frame)));
      for (let k = 0; k < 4; k++) locals[at + k] = own[k];
    },
  };
}

/** Moves a node along one of its own axes, metres of its parent. */
export function ownSlide(node: number, axis: Axis, metres: (frame: number) => number): NodeDriver {
  const way = axisVector(axis);
  return {
    nodes: [node],
    apply(frame, { locals }) {
      const at = node * LOCAL.size;
      for (let k = 0; k < 4; k++) own[k] = locals[at + LOCAL.rotation + k];
      vec3.transformQuat(arm, way, own);
      const by = metres(frame);
      for (let k = 0; k < 3; k++) locals[at + k] += by * arm[k];
    },
  };
}

/** Sets the weight of one of a node's shapes. */
export function ownMorph(node: number, shape: number, weight: (frame: number) => number): NodeDriver {
  return {
    nodes: [node],
    apply(frame, { weights }) {
      if (shape < weights[node].length) weights[node][shape] = weight(frame);
    },
  };
}

/** Rotates a node about a line in model space, in its rest pose. */
export function modelTurn(
  hierarchy: NodeHierarchy,
  node: number,
  { axis, through }: { readonly axis: Vec3; readonly through: Vec3 },
  angle: (frame: number) => number,
): NodeDriver {
  const parent = parentSpace(hierarchy, node);
  const way = parent.axis(axis);
  const pivot = parent.place(through);
  return {
    nodes: [node],
    apply: (frame, { locals }) => turnAbout(locals, node, way, angle(frame), pivot),
  };
}

/** Moves a node along a direction of the model's own space, metres of the model. */
export function modelSlide(
  hierarchy: NodeHierarchy,
  node: number,
  way: Vec3,
  metres: (frame: number) => number,
): NodeDriver {
  const along = parentSpace(hierarchy, node).direction(way);
  return {
    nodes: [node],
    apply(frame, { locals }) {
      const by = metres(frame);
      for (let k = 0; k < 3; k++) locals[node * LOCAL.size + k] += by * along[k];
    },
  };
}

/** From the model's space into that of what a node hangs on: places, directions with their length, and axes of turns. */
export function parentSpace(hierarchy: NodeHierarchy, node: number) {
  const space = restSpace(hierarchy);
  const { parent } = hierarchy.nodes[node];
  const toParent = mat4.invert(newMat4(), matrixOf(space, parent)) as mat4;
  const turnBack = quat.conjugate([0, 0, 0, 1], rotationOf(space, parent)) as Quat;
  const place = (at: Vec3) => vec3.transformMat4([0, 0, 0], at, toParent) as Vec3;
  return {
    place,
    direction: (way: Vec3) => vec3.subtract([0, 0, 0], place(way), place([0, 0, 0])) as Vec3,
    axis: (way: Vec3) => vec3.transformQuat([0, 0, 0], way, turnBack) as Vec3,
  };
}

const own: Quat = [0, 0, 0, 1];
const turn: Quat = [0, 0, 0, 1];
const arm: Vec3 = [0, 0, 0];
