import { getBounds, type Document, type Node, type Scene } from '@gltf-transform/core';
import type { Quat, Vec3 } from '../math/vec.js';
import type { Clip, ClipChannel, NodeHierarchy, HierarchyNode } from '../hierarchy/index.js';

/** What of a model can move: its nodes, those that carry others first, and its clips. */
export function hierarchyOf(model: Document): NodeHierarchy {
  const root = model.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  const index = new Map<Node, number>();
  const nodes: HierarchyNode[] = [];
  const visit = (node: Node, parent: number) => {
    index.set(node, nodes.length);
    const own = nodes.length;
    nodes.push({
      name: node.getName(),
      parent,
      translation: [...node.getTranslation()] as Vec3,
      rotation: [...node.getRotation()] as Quat,
      scale: [...node.getScale()] as Vec3,
      weights: weightsOf(node),
    });
    node.listChildren().forEach((child) => visit(child, own));
  };
  scene?.listChildren().forEach((node) => visit(node, -1));
  const clips = root.listAnimations().map((animation, i): Clip => {
    const channels = animation.listChannels().flatMap((channel): ClipChannel[] => {
      const node = index.get(channel.getTargetNode() as Node);
      const sampler = channel.getSampler();
      const path = channel.getTargetPath();
      const times = sampler?.getInput()?.getArray();
      if (node === undefined || !sampler || !times || !path) return [];
      return [{ node, path, times, values: valuesOf(sampler), interpolation: sampler.getInterpolation() }];
    });
    const seconds = Math.max(0, ...channels.map(({ times }) => times[times.length - 1] ?? 0));
    return { name: animation.getName() || `Clip ${i + 1}`, seconds, channels };
  });
  return { nodes, clips, box: boxOf(scene) };
}

function boxOf(scene: Scene | undefined): NodeHierarchy['box'] {
  if (!scene) return null;
  const { min, max } = getBounds(scene);
  return [...min, ...max].every(Number.isFinite) ? { low: min as Vec3, high: max as Vec3 } : null;
}

/** A node's own weights, or else those of its mesh; as many as the mesh has shapes. */
function weightsOf(node: Node): number[] {
  const mesh = node.getMesh();
  const shapes = mesh?.listPrimitives()[0]?.listTargets().length ?? 0;
  const own = node.getWeights().length > 0 ? node.getWeights() : (mesh?.getWeights() ?? []);
  return Array.from({ length: shapes }, (_, i) => own[i] ?? 0);
}

/** Values as numbers, also where the file holds them as whole parts of 255 or the like. */
function valuesOf(
  sampler: ReturnType<ReturnType<Document['createAnimation']>['listSamplers']>[number],
): Float32Array {
  const output = sampler.getOutput();
  if (!output) return new Float32Array(0);
  const size = output.getElementSize();
  const out = new Float32Array(output.getCount() * size);
  const element: number[] = [];
  for (let i = 0; i < output.getCount(); i++) {
    output.getElement(i, element);
    for (let k = 0; k < size; k++) out[i * size + k] = element[k];
  }
  return out;
}
