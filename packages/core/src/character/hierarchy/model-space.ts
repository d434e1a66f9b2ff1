import { mat3, mat4, quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { LOCAL, initialPose, type NodeHierarchy } from './node-hierarchy.js';
import { newMat3, newMat4, newQuat } from '../../geometry/math/new-matrix.js';

/** From a node's own space into the model's: sixteen numbers a node, column by column. */
export type ModelSpace = Float64Array;

/** Matrices of all nodes in model space, for a pose. */
export function toModelSpace({ nodes }: NodeHierarchy, locals: Float64Array, out: ModelSpace): ModelSpace {
  for (let i = 0; i < nodes.length; i++) placeNode(nodes[i].parent, locals, i, out);
  return out;
}

/** Some nodes and all that they hang on, those first: what has to be placed for them. */
export function withAllAbove({ nodes }: NodeHierarchy, wanted: readonly number[]): number[] {
  const all = new Set<number>();
  for (const node of wanted) for (let i = node; i >= 0; i = nodes[i].parent) all.add(i);
  return [...all].sort((a, b) => a - b);
}

/** Matrices of some nodes, listed after the nodes that carry them. */
export function placeNodes(
  { nodes }: NodeHierarchy,
  list: readonly number[],
  locals: Float64Array,
  out: ModelSpace,
): void {
  for (let n = 0; n < list.length; n++) placeNode(nodes[list[n]].parent, locals, list[n], out);
}

/** Matrix of one node, from that of the node above it. */
export function placeNode(parent: number, locals: Float64Array, i: number, out: ModelSpace): void {
  const l = i * LOCAL.size;
  const o = 16 * i;
  const x = locals[l + 3];
  const y = locals[l + 4];
  const z = locals[l + 5];
  const w = locals[l + 6];
  const sx = locals[l + 7];
  const sy = locals[l + 8];
  const sz = locals[l + 9];
  // By column what the node does in what it hangs on.
  const ax = (1 - 2 * (y * y + z * z)) * sx;
  const ay = 2 * (x * y + z * w) * sx;
  const az = 2 * (x * z - y * w) * sx;
  const bx = 2 * (x * y - z * w) * sy;
  const by = (1 - 2 * (x * x + z * z)) * sy;
  const bz = 2 * (y * z + x * w) * sy;
  const cx = 2 * (x * z + y * w) * sz;
  const cy = 2 * (y * z - x * w) * sz;
  const cz = (1 - 2 * (x * x + y * y)) * sz;
  const dx = locals[l];
  const dy = locals[l + 1];
  const dz = locals[l + 2];
  out[o + 3] = out[o + 7] = out[o + 11] = 0;
  out[o + 15] = 1;
  if (parent < 0) {
    out[o] = ax;
    out[o + 1] = ay;
    out[o + 2] = az;
    out[o + 4] = bx;
    out[o + 5] = by;
    out[o + 6] = bz;
    out[o + 8] = cx;
    out[o + 9] = cy;
    out[o + 10] = cz;
    out[o + 12] = dx;
    out[o + 13] = dy;
    out[o + 14] = dz;
    return;
  }
  // Row by row of what it hangs on.
  const p = 16 * parent;
  for (let row = 0; row < 3; row++) {
    const a = out[p + row];
    const b = out[p + 4 + row];
    const c = out[p + 8 + row];
    out[o + row] = a * ax + b * ay + c * az;
    out[o + 4 + row] = a * bx + b * by + c * bz;
    out[o + 8 + row] = a * cx + b * cy + c * cz;
    out[o + 12 + row] = a * dx + b * dy + c * dz + out[p + 12 + row];
  }
}

/** Model space of a node hierarchy in its rest pose. */
export function restSpace(hierarchy: NodeHierarchy): ModelSpace {
  return toModelSpace(
    hierarchy,
    initialPose(hierarchy).locals,
    new Float64Array(16 * hierarchy.nodes.length),
  );
}

/** The matrix of a node's space; that of the model itself for −1. */
export function matrixOf(space: ModelSpace, node: number): mat4 {
  if (node < 0) return newMat4();
  return [...space.subarray(16 * node, 16 * node + 16)] as unknown as mat4;
}

/** Position of a node's origin in model space. */
export function nodeOriginOf(space: ModelSpace, node: number): Vec3 {
  const at = 16 * node + 12;
  return [space[at], space[at + 1], space[at + 2]];
}

/** Writes the same. */
export function readOrigin(space: ModelSpace, node: number, out: Vec3): void {
  const at = 16 * node + 12;
  for (let k = 0; k < 3; k++) out[k] = space[at + k];
}

/** A matrix as translation, rotation and scale; shear, which these cannot hold, is left out. */
export function partsOf(matrix: mat4): { translation: Vec3; rotation: Quat; scale: Vec3 } {
  const columns = [0, 4, 8].map((k): Vec3 => [matrix[k], matrix[k + 1], matrix[k + 2]]);
  const scale = columns.map((column) => vec3.length(column)) as Vec3;
  if (mat4.determinant(matrix) < 0) scale[0] = -scale[0];
  // Gram and Schmidt's, so that what is left is a rotation.
  const x = vec3.scale([0, 0, 0], columns[0], 1 / (scale[0] || 1)) as Vec3;
  const y = vec3.scaleAndAdd([0, 0, 0], columns[1], x, -vec3.dot(columns[1], x)) as Vec3;
  vec3.normalize(y, y);
  const z = vec3.cross([0, 0, 0], x, y) as Vec3;
  const rotation = quat.fromMat3(newQuat(), mat3.set(newMat3(), ...x, ...y, ...z));
  return {
    translation: [matrix[12], matrix[13], matrix[14]],
    rotation: quat.normalize(rotation, rotation) as Quat,
    scale,
  };
}

/** Whether a matrix is as large in all directions, so that turns stay turns in it. */
export function isEven(matrix: mat4): boolean {
  const [a, b, c] = [0, 4, 8].map((k) => Math.hypot(matrix[k], matrix[k + 1], matrix[k + 2]));
  const dot = (i: number, j: number) =>
    (matrix[i] * matrix[j] + matrix[i + 1] * matrix[j + 1] + matrix[i + 2] * matrix[j + 2]) / (a * a);
  const even = Math.abs(b / a - 1) < 1e-4 && Math.abs(c / a - 1) < 1e-4;
  return even && Math.abs(dot(0, 4)) < 1e-4 && Math.abs(dot(0, 8)) < 1e-4 && Math.abs(dot(4, 8)) < 1e-4;
}

/** The turn of a node's space against the model's. */
export function rotationOf(space: ModelSpace, node: number): Quat {
  return node < 0 ? [0, 0, 0, 1] : partsOf(matrixOf(space, node)).rotation;
}
