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
  if (root.listAnimations().length > 0) addHulls(nodes, index);
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

/** The directions in which the outermost places of a part are kept: faces, edges and corners of a cube. */
const DIRECTIONS = [-1, 0, 1]
  .flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((z) => [x, y, z])))
  .filter((way) => way.some((value) => value !== 0));

/** Gives nodes the outermost places of what they are made of, or of what follows them most where a skin is theirs. */
function addHulls(nodes: HierarchyNode[], index: ReadonlyMap<Node, number>): void {
  const places = new Map<number, number[]>();
  const put = (node: number | undefined, place: ArrayLike<number>) => {
    if (node === undefined) return;
    const list = places.get(node) ?? [];
    places.set(node, list);
    list.push(place[0], place[1], place[2]);
  };
  for (const [node, i] of index) {
    const skin = node.getSkin();
    const joints = skin?.listJoints() ?? [];
    const inverse = skin?.getInverseBindMatrices();
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const positions = primitive.getAttribute('POSITION');
      const [of, weights] = [primitive.getAttribute('JOINTS_0'), primitive.getAttribute('WEIGHTS_0')];
      for (let v = 0; v < (positions?.getCount() ?? 0); v++) {
        const at = positions?.getElement(v, [] as number[]) ?? [0, 0, 0];
        if (!skin || !of || !weights) {
          put(i, at);
          continue;
        }
        const [joint, weight] = [of.getElement(v, [] as number[]), weights.getElement(v, [] as number[])];
        const most = joint[weight.indexOf(Math.max(...weight))];
        const m = inverse?.getElement(most, [] as number[]);
        const bound = m
          ? [0, 1, 2].map((k) => m[k] * at[0] + m[4 + k] * at[1] + m[8 + k] * at[2] + m[12 + k])
          : at;
        put(index.get(joints[most]), bound);
      }
    }
  }
  for (const [i, list] of places) nodes[i] = { ...nodes[i], hull: outermost(list) };
}

function outermost(places: readonly number[]): number[] {
  const kept = new Set<number>();
  for (const [x, y, z] of DIRECTIONS) {
    let [most, at] = [-Infinity, 0];
    for (let i = 0; i < places.length; i += 3) {
      const far = x * places[i] + y * places[i + 1] + z * places[i + 2];
      if (far > most) [most, at] = [far, i];
    }
    kept.add(at);
  }
  return [...kept].flatMap((i) => [places[i], places[i + 1], places[i + 2]]);
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
