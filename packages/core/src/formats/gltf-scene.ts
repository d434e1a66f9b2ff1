import type { Accessor, Document, Node } from '@gltf-transform/core';
import type { Vec3 } from '../geometry/math/vec.js';

/** A node and its world matrix. */
export interface WorldNode {
  readonly node: Node;
  /** Which one it hangs on; −1 for none. */
  readonly parent: number;
  /** Into the space of the scene, column by column: sixteen numbers. */
  readonly matrix: Float64Array;
  /** Of a skinned node: the matrix of each joint from bind space to the world, sixteen numbers each. */
  readonly bones?: readonly Float64Array[];
}

/**
 * The nodes of a model's scene, each followed by all that hangs on it. Every matrix is made once, from the one before: asked
 * node by node it would be made again for each that hangs below.
 */
export function worldNodes(model: Document): WorldNode[] {
  return nodesUnder(sceneOf(model)?.listChildren() ?? []);
}

/** The same for all nodes of a document, in a scene or not. */
export function everyNode(model: Document): WorldNode[] {
  const nodes = model.getRoot().listNodes();
  const hanging = new Set(nodes.flatMap((node) => node.listChildren()));
  return nodesUnder(nodes.filter((node) => !hanging.has(node)));
}

/** The scene that is shown. */
export function sceneOf(model: Document) {
  const root = model.getRoot();
  return root.getDefaultScene() ?? root.listScenes()[0];
}

function nodesUnder(tops: readonly Node[]): WorldNode[] {
  const found: WorldNode[] = [];
  const waiting = tops.map((node) => ({ node, parent: -1 })).reverse();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { node, parent } = next;
    const own = Float64Array.from(node.getMatrix());
    const matrix = parent < 0 ? own : multiplied(found[parent].matrix, own);
    const index = found.push({ node, parent, matrix }) - 1;
    const children = node.listChildren();
    for (let i = children.length - 1; i >= 0; i--) waiting.push({ node: children[i], parent: index });
  }
  return found.some(({ node }) => node.getSkin()) ? withBones(found) : found;
}

/** A skin follows its joints, wherever its own node is (glTF 2.0, 3.7.3.3). */
function withBones(found: readonly WorldNode[]): WorldNode[] {
  const matrices = new Map(found.map(({ node, matrix }) => [node, matrix]));
  return found.map((one) => {
    const skin = one.node.getSkin();
    if (skin === null || one.node.getMesh() === null) return one;
    const inverse = skin.getInverseBindMatrices();
    const bound = inverse && Float64Array.from(numbersOf(inverse));
    const bones = skin.listJoints().map((joint, j) => {
      const stands = matrices.get(joint) ?? one.matrix;
      return bound ? multiplied(stands, bound.subarray(16 * j, 16 * j + 16)) : stands;
    });
    return { ...one, bones };
  });
}

function multiplied(a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(16);
  for (let column = 0; column < 16; column += 4)
    for (let row = 0; row < 4; row++)
      out[column + row] =
        a[row] * b[column] +
        a[4 + row] * b[column + 1] +
        a[8 + row] * b[column + 2] +
        a[12 + row] * b[column + 3];
  return out;
}

/** World positions of a node's meshes: x, y, z in turn. */
export function worldPositions(one: WorldNode): Float64Array {
  const { node, matrix: m, bones } = one;
  if (bones) return skinnedPositions(node, m, bones);
  const lists = (node.getMesh()?.listPrimitives() ?? []).flatMap((primitive) => {
    const positions = primitive.getAttribute('POSITION');
    return positions ? [numbersOf(positions)] : [];
  });
  const out = new Float64Array(lists.reduce((sum, list) => sum + list.length, 0));
  let at = 0;
  for (const list of lists) {
    for (let i = 0; i + 2 < list.length; i += 3) {
      const x = list[i];
      const y = list[i + 1];
      const z = list[i + 2];
      out[at] = m[0] * x + m[4] * y + m[8] * z + m[12];
      out[at + 1] = m[1] * x + m[5] * y + m[9] * z + m[13];
      out[at + 2] = m[2] * x + m[6] * y + m[10] * z + m[14];
      at += 3;
    }
  }
  return out;
}

function skinnedPositions(node: Node, own: Float64Array, bones: readonly Float64Array[]): Float64Array {
  const out: number[] = [];
  for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
    const positions = primitive.getAttribute('POSITION');
    const [of, parts] = [primitive.getAttribute('JOINTS_0'), primitive.getAttribute('WEIGHTS_0')];
    if (!positions) continue;
    const places = numbersOf(positions);
    const joints = of?.getArray() ?? null;
    const weights = parts && numbersOf(parts);
    for (let v = 0; 3 * v + 2 < places.length; v++) {
      const [x, y, z] = [places[3 * v], places[3 * v + 1], places[3 * v + 2]];
      let [sx, sy, sz, all] = [0, 0, 0, 0];
      for (let k = 4 * v; joints && weights && k < 4 * v + 4; k++) {
        const m = bones[joints[k]];
        const weight = weights[k];
        if (!m || !(weight > 0)) continue;
        sx += weight * (m[0] * x + m[4] * y + m[8] * z + m[12]);
        sy += weight * (m[1] * x + m[5] * y + m[9] * z + m[13]);
        sz += weight * (m[2] * x + m[6] * y + m[10] * z + m[14]);
        all += weight;
      }
      if (all > 0) out.push(sx / all, sy / all, sz / all);
      // Vertices without joints follow their node.
      else
        out.push(
          own[0] * x + own[4] * y + own[8] * z + own[12],
          own[1] * x + own[5] * y + own[9] * z + own[13],
          own[2] * x + own[6] * y + own[10] * z + own[14],
        );
    }
  }
  return Float64Array.from(out);
}

/** Position of a node's origin. */
export const worldOriginOf = ({ matrix }: WorldNode): Vec3 => [matrix[12], matrix[13], matrix[14]];

/** Divisors of normalised integers, which represent −1 … 1 or 0 … 1 (glTF 2.0, 3.11). */
const WHOLE = { Int8Array: 127, Uint8Array: 255, Int16Array: 32767, Uint16Array: 65535 } as const;

/** Decoded numbers of an accessor, all together: one element at a time costs a hundred times as much. */
export function numbersOf(accessor: Accessor): Float32Array | Float64Array | Uint32Array | Uint16Array {
  const array = accessor.getArray() ?? new Float32Array(accessor.getCount() * accessor.getElementSize());
  const whole = WHOLE[array.constructor.name as keyof typeof WHOLE] as number | undefined;
  if (!accessor.getNormalized() || whole === undefined) return array as Float32Array;
  return Float64Array.from(array as ArrayLike<number>, (value) => Math.max(-1, value / whole));
}
