import { mat4, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { isEven, matrixOf, partsOf, restSpace } from './model-space.js';
import type { NodeHierarchy, HierarchyNode } from './node-hierarchy.js';
import { newMat4 } from '../../geometry/math/new-matrix.js';

/** A node that is put between another and what it hung on, so that both can turn cleanly. */
export interface WheelJoint {
  /** Its own name. */
  readonly name: string;
  /** The node it carries. */
  readonly takes: string;
  /** Node above it; null for model space. */
  readonly under: string | null;
  readonly translation: Vec3;
  /** Local transform of the node below it. */
  readonly held: { readonly translation: Vec3; readonly rotation: Quat; readonly scale: Vec3 };
}

/** Wanted joint: its position in the model, and whether it leaves its parent. */
export interface WishedJoint {
  readonly name: string;
  readonly takes: number;
  readonly about: Vec3;
  /** Whether what its node hangs on, such as a body that leans, is left. */
  readonly leaves: boolean;
}

/** A node hierarchy with joints put in. */
export interface JointedHierarchy {
  readonly hierarchy: NodeHierarchy;
  readonly joints: readonly WheelJoint[];
  /** New index of each node of the former hierarchy. */
  readonly at: readonly number[];
}

/**
 * A node hierarchy with joints added, and the joints. In the rest pose nothing moves. A joint hangs in model space if
 * its node's parent leans or has an uneven scale (a rotation in there would be a shear).
 */
export function withJoints(hierarchy: NodeHierarchy, wishes: readonly WishedJoint[]): JointedHierarchy {
  const same = hierarchy.nodes.map((_, i) => i);
  if (wishes.length === 0) return { hierarchy, joints: [], at: same };
  const space = restSpace(hierarchy);
  const nodes = [...hierarchy.nodes];
  const joints = wishes.map(({ name, takes, about, leaves }): WheelJoint => {
    const parent = hierarchy.nodes[takes].parent;
    const outer = matrixOf(space, parent);
    const stays = isEven(outer) && !leaves;
    const base = stays ? outer : newMat4();
    const translation = vec3.transformMat4([0, 0, 0], about, mat4.invert(newMat4(), base) as mat4) as Vec3;
    const joint = mat4.translate(newMat4(), base, translation);
    const own = mat4.multiply(newMat4(), mat4.invert(newMat4(), joint) as mat4, matrixOf(space, takes));
    const held = stays
      ? { ...pick(hierarchy.nodes[takes]), translation: [own[12], own[13], own[14]] as Vec3 }
      : partsOf(own);
    nodes.push({
      name,
      parent: stays ? parent : -1,
      translation,
      rotation: [0, 0, 0, 1],
      scale: [1, 1, 1],
      weights: [],
    });
    nodes[takes] = { ...hierarchy.nodes[takes], ...held, parent: nodes.length - 1 };
    return {
      name,
      takes: hierarchy.nodes[takes].name,
      under: stays && parent >= 0 ? hierarchy.nodes[parent].name : null,
      translation,
      held,
    };
  });
  const { ordered, now } = inOrder({ ...hierarchy, nodes });
  return { hierarchy: ordered, joints, at: same.map((i) => now.get(i) as number) };
}

const pick = ({ translation, rotation, scale }: HierarchyNode) => ({ translation, rotation, scale });

/** The same node hierarchy with every node after what it hangs on. */
function inOrder({ nodes, clips, box }: NodeHierarchy): { ordered: NodeHierarchy; now: Map<number, number> } {
  const order: number[] = [];
  const seen = new Set<number>();
  const visit = (i: number) => {
    if (i < 0 || seen.has(i)) return;
    visit(nodes[i].parent);
    seen.add(i);
    order.push(i);
  };
  nodes.forEach((_, i) => visit(i));
  const now = new Map(order.map((old, i) => [old, i]));
  const ordered = {
    box,
    nodes: order.map((i) => ({ ...nodes[i], parent: now.get(nodes[i].parent) ?? -1 })),
    clips: clips.map((clip) => ({
      ...clip,
      channels: clip.channels.map((channel) => ({ ...channel, node: now.get(channel.node) as number })),
    })),
  };
  return { ordered, now };
}
