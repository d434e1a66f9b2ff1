import { vec3 } from 'gl-matrix';
import { nodeOriginOf, restSpace } from '../hierarchy/model-space.js';
import { nodeNamed, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';

/** Two bones and the foot at their end, as nodes of a node hierarchy. */
export interface Leg {
  readonly top: number;
  readonly middle: number;
  readonly foot: number;
}

/** A bone is at least this part of how far the foot is from the topmost node. */
const BONE = 0.12;

/**
 * Leg that ends in a node: the next two nodes above it that are a bone's length apart, so that twist joints are
 * skipped; null if there is none.
 */
export function legOf(hierarchy: NodeHierarchy, name: string): Leg | null {
  const foot = nodeNamed(hierarchy, name);
  if (foot < 0) return null;
  const space = restSpace(hierarchy);
  let root = foot;
  while (hierarchy.nodes[root].parent >= 0) root = hierarchy.nodes[root].parent;
  const least = BONE * vec3.distance(nodeOriginOf(space, foot), nodeOriginOf(space, root));
  const above = (node: number): number => {
    for (let i = hierarchy.nodes[node].parent; i >= 0; i = hierarchy.nodes[i].parent)
      if (vec3.distance(nodeOriginOf(space, i), nodeOriginOf(space, node)) > least) return i;
    return -1;
  };
  const middle = above(foot);
  const top = middle < 0 ? -1 : above(middle);
  return top < 0 ? null : { top, middle, foot };
}

/** The node that all legs hang on: what is lowered where they do not reach. */
export function pelvisOf({ nodes }: NodeHierarchy, legs: readonly Leg[]): number {
  const chain = (node: number): number[] => (node < 0 ? [] : [...chain(nodes[node].parent), node]);
  const chains = legs.map(({ top }) => chain(nodes[top].parent));
  let pelvis = -1;
  for (
    let i = 0;
    chains.length > 0 && chains.every((list) => list[i] !== undefined && list[i] === chains[0][i]);
    i++
  )
    pelvis = chains[0][i];
  return pelvis;
}
