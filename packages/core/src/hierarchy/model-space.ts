import { mat3, mat4, quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../math/vec.js';
import { LOCAL, initialPose, type NodeHierarchy } from './node-hierarchy.js';

/** From a node's own space into the model's: sixteen numbers a node, column by column. */
export type ModelSpace = Float64Array;

/** Where all nodes are in their model for how they are posed. */
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

/** Where some nodes are, listed after what they hang on. */
export function placeNodes(
  { nodes }: NodeHierarchy,
  list: readonly number[],
  locals: Float64Array,
  out: ModelSpace,
): void {
  for (let n = 0; n < list.length; n++) placeNode(nodes[list[n]].parent, locals, list[n], out);
}

/** Where one node is, from where that is which it hangs on. */
export function placeNode(parent: number, locals: Float64Array, i: number, out: ModelSpace): void {
  const l = i * LOCAL.size;
  const x = locals[l + 3];
  const y = locals[l + 4];
  const z = locals[l + 5];
  const w = locals[l + 6];
  const sx = locals[l + 7];
  const sy = locals[l + 8];
  const sz = locals[l + 9];
  const o = 16 * i;
  out[o] = (1 - 2 * (y * y + z * z)) * sx;
  out[o + 1] = 2 * (x * y + z * w) * sx;
  out[o + 2] = 2 * (x * z - y * w) * sx;
  out[o + 3] = 0;
  out[o + 4] = 2 * (x * y - z * w) * sy;
  out[o + 5] = (1 - 2 * (x * x + z * z)) * sy;
  out[o + 6] = 2 * (y * z + x * w) * sy;
  out[o + 7] = 0;
  out[o + 8] = 2 * (x * z + y * w) * sz;
  out[o + 9] = 2 * (y * z - x * w) * sz;
  out[o + 10] = (1 - 2 * (x * x + y * y)) * sz;
  out[o + 11] = 0;
  out[o + 12] = locals[l];
  out[o + 13] = locals[l + 1];
  out[o + 14] = locals[l + 2];
  out[o + 15] = 1;
  if (parent >= 0) bringInto(16 * parent, o, out);
}

/** Takes the matrix at `o` out of the space of that at `p`. */
function bringInto(p: number, o: number, out: ModelSpace): void {
  const xx = out[p];
  const xy = out[p + 1];
  const xz = out[p + 2];
  const yx = out[p + 4];
  const yy = out[p + 5];
  const yz = out[p + 6];
  const zx = out[p + 8];
  const zy = out[p + 9];
  const zz = out[p + 10];
  const tx = out[p + 12];
  const ty = out[p + 13];
  const tz = out[p + 14];
  for (let at = o; at < o + 16; at += 4) {
    const a = out[at];
    const b = out[at + 1];
    const c = out[at + 2];
    const d = out[at + 3];
    out[at] = xx * a + yx * b + zx * c + tx * d;
    out[at + 1] = xy * a + yy * b + zy * c + ty * d;
    out[at + 2] = xz * a + yz * b + zz * c + tz * d;
  }
}

/** Model space of a node hierarchy as it stands. */
export function restSpace(hierarchy: NodeHierarchy): ModelSpace {
  return toModelSpace(
    hierarchy,
    initialPose(hierarchy).locals,
    new Float64Array(16 * hierarchy.nodes.length),
  );
}

/** The matrix of a node's space; that of the model itself for −1. */
export function matrixOf(space: ModelSpace, node: number): mat4 {
  if (node < 0) return mat4.create();
  return [...space.subarray(16 * node, 16 * node + 16)] as unknown as mat4;
}

/** Where a node's origin is in the model. */
export function originOf(space: ModelSpace, node: number): Vec3 {
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
  const rotation = quat.fromMat3(quat.create(), mat3.fromValues(...x, ...y, ...z));
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
