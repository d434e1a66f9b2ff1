import type { Mesh, Node, Scene, Skin } from '@gltf-transform/core';
import { keysWithin } from '../shot/bake/thin-keys.js';
import { shapesOf } from './channel-samples.js';
import type { AnimationChannel } from './compose-shot.js';
import { numbersOf } from './gltf-scene.js';

/** How far what is seen may be off where keys are left out. */
export interface Thinning {
  /** Of every place in the world, down the whole chain a part hangs on; metres. */
  readonly within: number;
  /** Of every turn in the world, radians. */
  readonly turns: number;
}

/** Largest distances below a node, in the node's own units. */
interface Chain {
  /** How far the furthest place below is from its origin, at most. */
  readonly reach: number;
  /** Moving nodes from it down, of those the most: each adds what it is off by. */
  readonly below: number;
}

/**
 * By channel which samples stay as keys; null where all do. A node that is off takes all below with it, so what may be off is shared among
 * the moving nodes of the longest chain through each, and turns and sizes are weighed by how far they reach. The shapes of a mesh move
 * its places by themselves.
 */
export function keysInWorld(
  scene: Scene,
  channels: readonly AnimationChannel[],
  { within, turns }: Thinning,
): (number[] | null)[] {
  if (within <= 0) return channels.map(() => null);
  const moved = new Map<Node, AnimationChannel[]>();
  for (const channel of channels) {
    if (channel.held) continue;
    const own = moved.get(channel.node);
    if (own) own.push(channel);
    else moved.set(channel.node, [channel]);
  }
  const chains = new Map<Node, Chain>();
  const budgets = new Map<Node, { shares: number; scale: number }>();
  // Down to know what size a node's units are and what it hangs on, up to know what hangs on it.
  const order: { node: Node; above: number; scale: number }[] = [];
  const waiting = scene.listChildren().map((node) => ({ node, above: 0, scale: 1 }));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    order.push(next);
    const { node, above, scale } = next;
    const here = above + (moved.get(node)?.length ?? 0);
    const size = scale * largestScale(node, moved.get(node));
    for (const child of node.listChildren()) waiting.push({ node: child, above: here, scale: size });
  }
  const reaches = reachesOf(order.map(({ node }) => node));
  for (const { node, above, scale } of order.reverse()) {
    const own = moved.get(node) ?? [];
    let [reach, below] = [reaches.get(node) ?? 0, 0];
    for (const child of node.listChildren()) {
      const chain = chains.get(child);
      if (!chain) continue;
      const away = furthest(child, moved.get(child));
      reach = Math.max(reach, away + largestScale(child, moved.get(child)) * chain.reach);
      below = Math.max(below, chain.below);
    }
    chains.set(node, { reach, below: below + own.length });
    budgets.set(node, { shares: above + below + own.length, scale });
  }
  return channels.map(({ node, path, values, held }) => {
    if (held) return null;
    const { shares, scale } = budgets.get(node) ?? { shares: 1, scale: 1 };
    const share = within / Math.max(1, shares);
    const size = scale * largestScale(node, moved.get(node));
    const reach = chains.get(node)?.reach ?? 0;
    if (path === 'translation') return keysWithin(values, 3, share / scale, 'straight');
    if (path === 'scale') return keysWithin(values, 3, share / Math.max(NOTHING, scale * reach), 'straight');
    if (path === 'weights') return keysOfShapes(node, values, share / Math.max(NOTHING, size));
    const angle = Math.min(turns / Math.max(1, shares), share / Math.max(NOTHING, size * reach));
    return keysWithin(values, 4, angle, 'turns');
  });
}

/** A point at the origin moves by no turn. */
const NOTHING = 1e-12;
/** Of a shape that moves no place, its weight may be off by this. */
const WEIGHT = 0.01;

/** Weights count by how far their shapes take the mesh's places. */
function keysOfShapes(node: Node, values: Float64Array, within: number): number[] {
  const shapes = shapeReaches(node);
  const width = shapes.length;
  const floor = within / WEIGHT;
  const weighed = values.map((value, i) => value * Math.max(floor, shapes[i % width]));
  // Each adds to the others where they take a place the same way.
  return keysWithin(weighed, width, within / Math.sqrt(width), 'straight');
}

/** By shape how far it takes the place that it takes furthest, in the node's units. */
function shapeReaches(node: Node): number[] {
  const primitives = node.getMesh()?.listPrimitives() ?? [];
  return Array.from({ length: Math.max(1, shapesOf(node)) }, (_, k) =>
    primitives.reduce((most, primitive) => {
      const moved = primitive.listTargets()[k]?.getAttribute('POSITION');
      return Math.max(most, moved ? furthestOf(numbersOf(moved)) : 0);
    }, 0),
  );
}

function furthestOf(places: ArrayLike<number>): number {
  let most = 0;
  for (let i = 0; i + 2 < places.length; i += 3)
    most = Math.max(most, Math.hypot(places[i], places[i + 1], places[i + 2]));
  return most;
}

/** How far a node ever is from what it hangs on. */
function furthest(node: Node, moved: readonly AnimationChannel[] = []): number {
  const channel = moved.find(({ path }) => path === 'translation');
  return furthestOf(channel ? channel.values : node.getTranslation());
}

function largestScale(node: Node, moved: readonly AnimationChannel[] = []): number {
  const channel = moved.find(({ path }) => path === 'scale');
  let most = 0;
  for (const value of channel ? channel.values : node.getScale()) most = Math.max(most, Math.abs(value));
  return most;
}

/** How far meshes and skins reach from the nodes that take them along, in their own units. */
export function reachesOf(nodes: readonly Node[]): Map<Node, number> {
  const reaches = new Map<Node, number>();
  const raise = (node: Node, to: number) => reaches.set(node, Math.max(reaches.get(node) ?? 0, to));
  const cached = new Map<object, number>();
  for (const node of nodes) {
    const mesh = node.getMesh();
    if (mesh === null) continue;
    const skin = node.getSkin();
    if (skin) {
      raiseBySkin(mesh, skin, raise);
      continue;
    }
    const known =
      cached.get(mesh) ??
      mesh.listPrimitives().reduce((most, primitive) => {
        const places = primitive.getAttribute('POSITION');
        return Math.max(most, places ? furthestOf(numbersOf(places)) : 0);
      }, 0);
    cached.set(mesh, known);
    // Shapes may take them further, each by its weight, which is 1 at most as a rule.
    raise(node, known + shapeReaches(node).reduce((sum, reach) => sum + reach, 0));
  }
  return reaches;
}

/** A place of a skin may follow any of four joints. */
function raiseBySkin(mesh: Mesh, skin: Skin, raise: (node: Node, to: number) => void): void {
  const joints = skin.listJoints();
  const inverse = skin.getInverseBindMatrices();
  const bind = inverse && numbersOf(inverse);
  for (const primitive of mesh.listPrimitives()) {
    const positions = primitive.getAttribute('POSITION');
    const [of, weights] = [primitive.getAttribute('JOINTS_0'), primitive.getAttribute('WEIGHTS_0')];
    if (!positions || !of || !weights) continue;
    const places = numbersOf(positions);
    const [ofs, parts] = [of.getArray() ?? [], numbersOf(weights)];
    const most = new Float64Array(joints.length);
    for (let v = 0; 4 * v < ofs.length; v++)
      for (let k = 0; k < 4; k++) {
        const joint = ofs[4 * v + k];
        if (!(parts[4 * v + k] > 0) || joint >= joints.length) continue;
        const [x, y, z] = [places[3 * v], places[3 * v + 1], places[3 * v + 2]];
        const m = 16 * joint;
        const away = bind
          ? Math.hypot(
              bind[m] * x + bind[m + 4] * y + bind[m + 8] * z + bind[m + 12],
              bind[m + 1] * x + bind[m + 5] * y + bind[m + 9] * z + bind[m + 13],
              bind[m + 2] * x + bind[m + 6] * y + bind[m + 10] * z + bind[m + 14],
            )
          : Math.hypot(x, y, z);
        if (away > most[joint]) most[joint] = away;
      }
    joints.forEach((joint, j) => raise(joint, most[j]));
  }
}
