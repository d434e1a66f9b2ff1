import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';

/** A node of a model with its local rest transform. */
export interface HierarchyNode {
  readonly name: string;
  /** Which node it hangs on, always one before it; −1 for the model's own space. */
  readonly parent: number;
  readonly translation: Vec3;
  readonly rotation: Quat;
  readonly scale: Vec3;
  /** Of its mesh's shapes. */
  readonly weights: readonly number[];
  /** Hull of its meshes, in its own space: x, y, z in turn. Only for models with clips. */
  readonly hull?: readonly number[];
}

/** One value of a node over a clip. */
export interface ClipChannel {
  readonly node: number;
  readonly path: 'translation' | 'rotation' | 'scale' | 'weights';
  /** Seconds, rising. */
  readonly times: ArrayLike<number>;
  /** By time the value; with `CUBICSPLINE` tangent in, value, tangent out. */
  readonly values: ArrayLike<number>;
  readonly interpolation: 'LINEAR' | 'STEP' | 'CUBICSPLINE';
}

export interface Clip {
  readonly name: string;
  readonly seconds: number;
  readonly channels: readonly ClipChannel[];
}

/** Movable parts of a model: its nodes and its clips. Plain data, so that it can be sent between threads. */
export interface NodeHierarchy {
  readonly nodes: readonly HierarchyNode[];
  readonly clips: readonly Clip[];
  /** Bounding box of its meshes in the rest pose, metres of the model; null without meshes. */
  readonly box: { readonly low: Vec3; readonly high: Vec3 } | null;
  /** Hull points of its rest pose, x, y, z in turn; left out without meshes. */
  readonly outermost?: readonly number[];
}

/** Layout of a node's numbers in an array: translation, rotation, scale; morph weights are kept beside. */
export const LOCAL = { translation: 0, rotation: 3, scale: 7, size: 10 } as const;

/** How a node hierarchy is posed: {@link LOCAL}.size numbers a node, and by node its weights. */
export interface HierarchyPose {
  readonly locals: Float64Array;
  readonly weights: readonly Float64Array[];
}

/** A node hierarchy in its rest pose. */
export function initialPose(hierarchy: NodeHierarchy): HierarchyPose {
  const locals = new Float64Array(hierarchy.nodes.length * LOCAL.size);
  hierarchy.nodes.forEach(({ translation, rotation, scale }, i) => {
    locals.set(translation, i * LOCAL.size);
    locals.set(rotation, i * LOCAL.size + LOCAL.rotation);
    locals.set(scale, i * LOCAL.size + LOCAL.scale);
  });
  return { locals, weights: hierarchy.nodes.map(({ weights }) => Float64Array.from(weights)) };
}

/** Which node has a name, the first of them; −1 where none has. */
export function nodeNamed({ nodes }: NodeHierarchy, name: string | null): number {
  return name === null ? -1 : nodes.findIndex((node) => node.name === name);
}

export function clipNamed({ clips }: NodeHierarchy, name: string | null): Clip | null {
  return clips.find((clip) => clip.name === name) ?? null;
}

/** Whether a node hangs on another, however far up, or is it. */
export function hangsOn({ nodes }: NodeHierarchy, node: number, above: number): boolean {
  for (let i = node; i >= 0; i = nodes[i].parent) if (i === above) return true;
  return false;
}

/** Turns a node about an axis through a place of what it hangs on. */
export function turnAbout(
  locals: Float64Array,
  node: number,
  axis: Vec3,
  angle: number,
  pivot: Vec3 | null,
): void {
  const at = node * LOCAL.size;
  const turn = quat.setAxisAngle(scratchTurn, axis, angle);
  for (let k = 0; k < 4; k++) scratchOwn[k] = locals[at + LOCAL.rotation + k];
  quat.multiply(scratchOwn, turn, scratchOwn);
  for (let k = 0; k < 4; k++) locals[at + LOCAL.rotation + k] = scratchOwn[k];
  if (pivot === null) return;
  for (let k = 0; k < 3; k++) scratchArm[k] = locals[at + k] - pivot[k];
  vec3.transformQuat(scratchArm, scratchArm, turn);
  for (let k = 0; k < 3; k++) locals[at + k] = pivot[k] + scratchArm[k];
}

const scratchTurn: Quat = [0, 0, 0, 1];
const scratchOwn: Quat = [0, 0, 0, 1];
const scratchArm: Vec3 = [0, 0, 0];
