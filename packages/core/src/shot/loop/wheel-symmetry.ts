import { vec3 } from 'gl-matrix';
import type { Wheel } from '../../document/shot-rider.js';
import { nodeNamed, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { restSpace } from '../../character/hierarchy/model-space.js';
import { hangsOn } from '../../character/hierarchy/node-hierarchy.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../../motion/pose/axes.js';
import type { ModelMesh } from '../../geometry/solid/model-mesh.js';

/** Places are the same that are this near, as a part of the wheel's radius. */
const SAME = 4e-3;
/** So many places are turned and looked for, of each wheel. */
const TRIED = 400;
/** Most spokes or sides that are distinguished; more sides are round to the eye. */
const MOST = 72;
const ROUND = 12;

const known = new WeakMap<ModelMesh, Map<string, number>>();

/**
 * Symmetry of a wheel: the number of times in a turn that it looks the same, Infinity for one that is round and
 * plain, 1 for one without symmetry, with a texture, or without known triangles.
 */
export function wheelFolds(mesh: ModelMesh, hierarchy: NodeHierarchy, wheel: Wheel): number {
  const of = known.get(mesh) ?? new Map<string, number>();
  known.set(mesh, of);
  const key = `${wheel.node} ${wheel.axle} ${wheel.radius} ${wheel.centre.join()}`;
  const folds = of.get(key) ?? foldsOf(mesh, hierarchy, wheel);
  of.set(key, folds);
  return folds;
}

function foldsOf(mesh: ModelMesh, hierarchy: NodeHierarchy, { node, axle, radius, centre }: Wheel): number {
  const index = nodeNamed(hierarchy, node);
  const parts = index < 0 ? [] : mesh.filter((part) => hangsOn(hierarchy, part.node, index));
  if (parts.length === 0 || parts.some(({ isPictured }) => isPictured)) return 1;
  const axis = axisVector(axle);
  const side: Vec3 = Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0];
  const up = vec3.cross([0, 0, 0], axis, side) as Vec3;
  const space = restSpace(hierarchy);
  /** Along the axle, and across it to two sides. */
  const places: [number, number, number][] = [];
  for (const { node: own, positions: p } of parts) {
    const m = space.subarray(16 * own, 16 * own + 16);
    for (let i = 0; i < p.length; i += 3) {
      const at = [0, 1, 2].map(
        (k) => m[k] * p[i] + m[4 + k] * p[i + 1] + m[8 + k] * p[i + 2] + m[12 + k] - centre[k],
      ) as Vec3;
      places.push([vec3.dot(at, axis), vec3.dot(at, side), vec3.dot(at, up)]);
    }
  }
  const near = SAME * radius;
  const cells = new Set<string>();
  for (const place of places) cells.add(place.map((value) => Math.round(value / near)).join());
  const isThere = (place: readonly number[]): boolean => {
    const cell = place.map((value) => Math.round(value / near));
    for (let i = 0; i < 27; i++) {
      const beside = [
        cell[0] + (i % 3) - 1,
        cell[1] + (Math.floor(i / 3) % 3) - 1,
        cell[2] + Math.floor(i / 9) - 1,
      ];
      if (cells.has(beside.join())) return true;
    }
    return false;
  };
  const step = Math.max(1, Math.floor(places.length / TRIED));
  const tried = places.filter((_, i) => i % step === 0);
  for (let folds = MOST; folds > 1; folds--) {
    const [sin, cos] = [Math.sin((2 * Math.PI) / folds), Math.cos((2 * Math.PI) / folds)];
    if (tried.every(([x, a, b]) => isThere([x, cos * a - sin * b, sin * a + cos * b])))
      return folds >= ROUND ? Infinity : folds;
  }
  return 1;
}
