import { LOCAL, initialPose, type HierarchyPose } from './node-hierarchy.js';
import type { JointedHierarchy, WheelJoint } from './wheel-joints.js';

/** Driver that moves nodes of a node hierarchy, from their pose so far. */
export interface NodeDriver {
  /** Which nodes it may move. */
  readonly nodes: readonly number[];
  apply(frame: number, pose: HierarchyPose): void;
}

/** A moved node, and the layout of its numbers in a sample. */
export interface MovedNode {
  readonly name: string;
  /** Which node of the jointed hierarchy it is. */
  readonly index: number;
  /** Index of its first number: {@link LOCAL}, then its weights. */
  readonly at: number;
  readonly weights: number;
}

/** Parts of a rider's model that move by themselves. */
export interface MovedParts {
  readonly nodes: readonly MovedNode[];
  /** Joints that were added; the nodes below them are relative to them. */
  readonly joints: readonly WheelJoint[];
  /** Numbers a sample. */
  readonly size: number;
  /** The hierarchy they move in, with its joints; null where nothing moves. */
  readonly jointed: JointedHierarchy | null;
  /** Writes the local transforms of the nodes at a frame. */
  pose(frame: number, out: Float64Array, at: number): void;
}

export const NO_PARTS: MovedParts = { nodes: [], joints: [], size: 0, jointed: null, pose: () => undefined };

/** Puts drivers together, the first moved first. */
export function compileParts(jointed: JointedHierarchy, drivers: readonly NodeDriver[]): MovedParts {
  const { hierarchy, joints } = jointed;
  const moved = [...new Set(drivers.flatMap(({ nodes }) => nodes))].sort((a, b) => a - b);
  const rest = initialPose(hierarchy);
  const now = initialPose(hierarchy);
  const shaped = rest.weights.flatMap((weights, node) => (weights.length > 0 ? [node] : []));
  let size = 0;
  const nodes = moved.map((node): MovedNode => {
    const at = size;
    const weights = rest.weights[node].length;
    size += LOCAL.size + weights;
    return { name: hierarchy.nodes[node].name, index: node, at, weights };
  });
  return {
    nodes,
    joints,
    size,
    jointed,
    pose(frame, out, at) {
      now.locals.set(rest.locals);
      for (const node of shaped) now.weights[node].set(rest.weights[node]);
      for (const driver of drivers) driver.apply(frame, now);
      for (let i = 0; i < moved.length; i++) {
        const to = at + nodes[i].at;
        const from = moved[i] * LOCAL.size;
        for (let k = 0; k < LOCAL.size; k++) out[to + k] = now.locals[from + k];
        if (nodes[i].weights > 0) out.set(now.weights[moved[i]], to + LOCAL.size);
      }
    },
  };
}
