import type { Node } from '@gltf-transform/core';
import type { AnimationChannel } from './compose-shot.js';

/** How many numbers a sample of a channel has. */
export function widthOf({ path, node }: Pick<AnimationChannel, 'path' | 'node'>): number {
  return path === 'rotation' ? 4 : path === 'weights' ? Math.max(1, shapesOf(node)) : 3;
}

/** How many shapes a node's mesh has. */
export function shapesOf(node: Node): number {
  const primitives = node.getMesh()?.listPrimitives() ?? [];
  return Math.max(0, ...primitives.map((primitive) => primitive.listTargets().length));
}

/** The samples at which a value that holds changes. */
export function changesIn(values: Float64Array, width: number): number[] {
  const samples = [...Array(values.length / width).keys()];
  return samples.filter((i) => {
    if (i === 0) return true;
    for (let k = 0; k < width; k++) if (values[i * width + k] !== values[(i - 1) * width + k]) return true;
    return false;
  });
}
