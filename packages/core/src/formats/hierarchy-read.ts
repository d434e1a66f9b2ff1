import type { Document, Node } from '@gltf-transform/core';
import { boxOf, joined, type Box } from '../vehicle/facing/round-part.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import { numbersOf, worldNodes, worldPositions, type WorldNode } from './gltf-scene.js';
import type {
  Clip,
  ClipChannel,
  NodeHierarchy,
  HierarchyNode,
} from '../character/hierarchy/node-hierarchy.js';

/** Movable parts of a model: its nodes, parents first, and its clips. */
export function hierarchyOf(model: Document): NodeHierarchy {
  const root = model.getRoot();
  const standing = worldNodes(model);
  const index = new Map(standing.map(({ node }, i) => [node, i]));
  const nodes = standing.map(({ node, parent }): HierarchyNode => {
    return {
      name: node.getName(),
      parent,
      translation: [...node.getTranslation()] as Vec3,
      rotation: [...node.getRotation()] as Quat,
      scale: [...node.getScale()] as Vec3,
      weights: weightsOf(node),
    };
  });
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
  const box = boxOfModel(standing);
  return { nodes, clips, box, ...(box && { outermost: outermostOf(standing) }) };
}

/** The directions in which the outermost places of a part are kept: faces, edges and corners of a cube. */
const DIRECTIONS = [-1, 0, 1]
  .flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((z) => [x, y, z])))
  .filter((way) => way.some((value) => value !== 0));

/** Gives nodes the hull points of their meshes, or of the skin vertices that follow them most. */
function addHulls(nodes: HierarchyNode[], index: ReadonlyMap<Node, number>): void {
  const places = skinPlaces(index);
  for (const [node, i] of index) {
    if (node.getSkin()) continue;
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const positions = primitive.getAttribute('POSITION');
      const list = listOf(places, i);
      if (positions) for (const value of numbersOf(positions)) list.push(value);
    }
  }
  for (const [i, list] of places) nodes[i] = { ...nodes[i], hull: outermost(list) };
}

function listOf(places: Map<number, number[]>, node: number): number[] {
  const list = places.get(node) ?? [];
  places.set(node, list);
  return list;
}

/** By joint the places of skins that follow it most, in its own space: x, y, z in turn. */
export function skinPlaces(index: ReadonlyMap<Node, number>): Map<number, number[]> {
  const places = new Map<number, number[]>();
  for (const node of index.keys()) {
    const skin = node.getSkin();
    if (!skin) continue;
    const joints = skin.listJoints().map((joint) => index.get(joint));
    const inverse = skin.getInverseBindMatrices();
    const bind = inverse ? numbersOf(inverse) : null;
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const positions = primitive.getAttribute('POSITION');
      const [of, weights] = [primitive.getAttribute('JOINTS_0'), primitive.getAttribute('WEIGHTS_0')];
      if (!positions || !of || !weights) continue;
      const list = numbersOf(positions);
      const [ofs, parts] = [of.getArray() ?? [], numbersOf(weights)];
      for (let v = 0; 3 * v + 2 < list.length; v++) {
        const [x, y, z] = [list[3 * v], list[3 * v + 1], list[3 * v + 2]];
        let best = 0;
        for (let k = 1; k < 4; k++) if (parts[4 * v + k] > parts[4 * v + best]) best = k;
        const joint = ofs[4 * v + best];
        const to = joints[joint];
        if (to === undefined) continue;
        const m = 16 * joint;
        if (!bind) listOf(places, to).push(x, y, z);
        else
          listOf(places, to).push(
            bind[m] * x + bind[m + 4] * y + bind[m + 8] * z + bind[m + 12],
            bind[m + 1] * x + bind[m + 5] * y + bind[m + 9] * z + bind[m + 13],
            bind[m + 2] * x + bind[m + 6] * y + bind[m + 10] * z + bind[m + 14],
          );
      }
    }
  }
  return places;
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

/** Box around all meshes in the rest pose; null without any. */
function boxOfModel(standing: readonly WorldNode[]): NodeHierarchy['box'] {
  return standing.reduce<Box | null>((all, one) => joined(all, boxOf(worldPositions(one))), null);
}

/** Directions spread evenly over a sphere (a spiral by the golden angle). */
const WAYS_ROUND = 256;
const ALL_ROUND = Array.from({ length: WAYS_ROUND }, (_, i): Vec3 => {
  const y = 1 - (2 * i + 1) / WAYS_ROUND;
  const round = Math.PI * (3 - Math.sqrt(5)) * i;
  return [Math.sqrt(1 - y * y) * Math.cos(round), y, Math.sqrt(1 - y * y) * Math.sin(round)];
});
/** Number of sampled points, evenly spread. */
const MOST_LOOKED_AT = 20_000;
/** Of no more places than this all are kept: which of them are outermost, a hull finds by itself. */
const FEW = 500;

/** Hull points of all meshes in the rest pose, in many directions. */
function outermostOf(standing: readonly WorldNode[]): number[] {
  const all = standing.map(worldPositions);
  const count = all.reduce((sum, places) => sum + places.length / 3, 0);
  const few = new Map<string, Vec3>();
  for (const places of all)
    for (let i = 0; i + 2 < places.length && few.size <= FEW; i += 3) {
      const place: Vec3 = [places[i], places[i + 1], places[i + 2]];
      few.set(place.map((value) => value.toFixed(5)).join(), place);
    }
  if (few.size <= FEW) return [...few.values()].flat();
  const every = Math.max(1, Math.ceil(count / MOST_LOOKED_AT));
  const far = ALL_ROUND.map(() => -Infinity);
  const found = ALL_ROUND.map((): Vec3 => [0, 0, 0]);
  for (const places of all)
    for (let i = 0; i + 2 < places.length; i += 3 * every) {
      const [x, y, z] = [places[i], places[i + 1], places[i + 2]];
      for (let d = 0; d < ALL_ROUND.length; d++) {
        const way = ALL_ROUND[d];
        const along = way[0] * x + way[1] * y + way[2] * z;
        if (along > far[d]) {
          far[d] = along;
          found[d] = [x, y, z];
        }
      }
    }
  return [...new Map(found.map((place) => [place.join(), place])).values()].flat();
}

/** A node's own weights, or else those of its mesh; as many as the mesh has shapes. */
function weightsOf(node: Node): number[] {
  const mesh = node.getMesh();
  const shapes = mesh?.listPrimitives()[0]?.listTargets().length ?? 0;
  const own = node.getWeights().length > 0 ? node.getWeights() : (mesh?.getWeights() ?? []);
  return Array.from({ length: shapes }, (_, i) => own[i] ?? 0);
}

/** Values as numbers, also if the file stores them as normalised integers. */
function valuesOf(
  sampler: ReturnType<ReturnType<Document['createAnimation']>['listSamplers']>[number],
): Float32Array {
  const output = sampler.getOutput();
  return output ? Float32Array.from(numbersOf(output)) : new Float32Array(0);
}
