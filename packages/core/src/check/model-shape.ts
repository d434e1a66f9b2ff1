import { restSpace } from '../character/hierarchy/model-space.js';
import type { NodeHierarchy } from '../character/hierarchy/node-hierarchy.js';
import type { ModelMesh, PartMesh } from '../geometry/solid/model-mesh.js';
import type { TurnedBox } from '../geometry/solid/turned-box.js';
import { Solid } from './solid.js';

/** Shape of a model in its rest pose: shared by all riders that have it. */
export interface ModelShape {
  /** By part. */
  readonly solids: readonly Solid[];
  /** Corners of the box around all of it, metres of the model. */
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** However its nodes are turned, no part comes further from the model’s origin, metres of the model. */
  readonly reach: number;
  /** Its outermost places: real corners of it, x, y, z in turn. */
  readonly outermost: Float64Array;
}

const shapes = new WeakMap<ModelMesh, ModelShape>();

export function shapeOfModel(mesh: ModelMesh, hierarchy: NodeHierarchy): ModelShape {
  const known = shapes.get(mesh);
  if (known) return known;
  const solids = mesh.map((part) => new Solid(part));
  const space = restSpace(hierarchy);
  const shape = {
    solids,
    ...boxOfParts(mesh, solids, space),
    reach: reachOf(mesh, solids, hierarchy),
    outermost: outermostOf(mesh, space),
  };
  shapes.set(mesh, shape);
  return shape;
}

function reachOf(mesh: ModelMesh, solids: readonly Solid[], { nodes }: NodeHierarchy): number {
  return solids.reduce((most, { low, high }, i) => {
    let reach = Math.hypot(...[0, 1, 2].map((k) => Math.max(-low[k], high[k])));
    for (let { node } = mesh[i]; node >= 0; node = nodes[node].parent) {
      const { scale, translation } = nodes[node];
      reach = reach * Math.max(...scale.map(Math.abs)) + Math.hypot(...translation);
    }
    return Math.max(most, reach);
  }, 0);
}

function boxOfParts(mesh: ModelMesh, solids: readonly Solid[], space: Float64Array) {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  solids.forEach((solid, i) => {
    const { numbers: n } = boxUnder(matrixIn(space, mesh[i]), solid.low, solid.high);
    for (let k = 0; k < 3; k++) {
      const half = Math.abs(n[3 + k]) + Math.abs(n[6 + k]) + Math.abs(n[9 + k]);
      low[k] = Math.min(low[k], n[k] - half);
      high[k] = Math.max(high[k], n[k] + half);
    }
  });
  return { low, high };
}

const matrixIn = (space: Float64Array, { node }: PartMesh) => space.subarray(16 * node, 16 * node + 16);

/** Towards the faces, edges and corners of a cube. */
const WAYS = [-1, 0, 1]
  .flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((z) => [x, y, z])))
  .filter((way) => way.some((value) => value !== 0));

function outermostOf(mesh: ModelMesh, space: Float64Array): Float64Array {
  const far = WAYS.map(() => -Infinity);
  const out = new Float64Array(3 * WAYS.length);
  for (const part of mesh) {
    const m = matrixIn(space, part);
    const { positions: p } = part;
    for (let v = 0; v + 2 < p.length; v += 3) {
      const x = m[0] * p[v] + m[4] * p[v + 1] + m[8] * p[v + 2] + m[12];
      const y = m[1] * p[v] + m[5] * p[v + 1] + m[9] * p[v + 2] + m[13];
      const z = m[2] * p[v] + m[6] * p[v + 1] + m[10] * p[v + 2] + m[14];
      for (let w = 0; w < WAYS.length; w++) {
        const way = WAYS[w];
        const along = way[0] * x + way[1] * y + way[2] * z;
        if (along <= far[w]) continue;
        far[w] = along;
        out[3 * w] = x;
        out[3 * w + 1] = y;
        out[3 * w + 2] = z;
      }
    }
  }
  return out;
}

/** A box along the axes of a space, in the space that a matrix leads to. */
export function boxUnder(m: ArrayLike<number>, low: ArrayLike<number>, high: ArrayLike<number>): TurnedBox {
  const numbers = new Float64Array(12);
  for (let k = 0; k < 3; k++) {
    numbers[k] =
      m[12 + k] +
      (m[k] * (low[0] + high[0]) + m[4 + k] * (low[1] + high[1]) + m[8 + k] * (low[2] + high[2])) / 2;
    for (let axis = 0; axis < 3; axis++)
      numbers[3 + 3 * axis + k] = (m[4 * axis + k] * (high[axis] - low[axis])) / 2;
  }
  return { numbers };
}
