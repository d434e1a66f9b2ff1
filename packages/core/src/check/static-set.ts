import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import type { NodeHierarchy } from '../character/hierarchy/node-hierarchy.js';
import { restSpace } from '../character/hierarchy/model-space.js';
import { PIECE, bendAlong } from '../effects/dressing/place-pieces.js';
import { isGroundDressing, joined } from '../effects/dressing/dressing-ground.js';
import { dressingModels, type PlacedDressing } from '../effects/dressing/placed-dressings.js';
import { boxMesh } from '../geometry/solid/box-mesh.js';
import type { ModelMesh } from '../geometry/solid/model-mesh.js';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';
import { Solid } from './solid.js';
import { staticSetOfScene, type CheckScene } from './check-scene.js';

/** With more triangles than this, pieces are represented by their boxes. */
const MOST_TRIANGLES = 300_000;

interface Made {
  readonly staticSet: TriangleMesh | null;
  readonly parts: readonly unknown[];
  readonly solid: Solid;
}
let last: Made | null = null;

/** Static set of a shot: scenery, and dressing that is not ground. The same object until it changes. */
export function staticSetOf(evaluated: EvaluatedShot, scene: CheckScene): Solid | null {
  const laid = evaluated.dressings().filter((thing) => !isGroundDressing(thing.laid));
  if (laid.length === 0) return staticSetOfScene(scene);
  const meshOf = (id: string | null) => scene.models.get(id ?? '')?.mesh;
  const parts = laid.flatMap(({ laid: one, path, pieces, swept }): unknown[] => [
    JSON.stringify({ ...one, name: '', color: '' }),
    path,
    swept,
    pieces?.places.join(),
    ...dressingModels(one).map(meshOf),
  ]);
  const same =
    last?.staticSet === scene.staticSet &&
    last.parts.length === parts.length &&
    parts.every((part, i) => part === last?.parts[i]);
  if (last && same) return last.solid;
  const meshes = laid.flatMap((thing) => {
    if (thing.swept) return [thing.swept];
    return thing.pieces ? piecesMesh(thing, evaluated, scene) : [];
  });
  if (meshes.length === 0 && scene.staticSet === null) return null;
  const solid = new Solid(joined(scene.staticSet ? [scene.staticSet, ...meshes] : meshes));
  last = { staticSet: scene.staticSet, parts, solid };
  return solid;
}

function piecesMesh(thing: PlacedDressing, { assets }: EvaluatedShot, scene: CheckScene): TriangleMesh[] {
  const { laid, path, pieces } = thing;
  if (pieces === null) return [];
  const worn = dressingModels(laid).map((id) => {
    const mesh = scene.models.get(id ?? '')?.mesh;
    const hierarchy = assets.hierarchies.get(id ?? '');
    return mesh && hierarchy ? inModel(mesh, hierarchy) : null;
  });
  const all = [...pieces.models].reduce((sum, model) => sum + (worn[model]?.indices.length ?? 0) / 3, 0);
  const meshes = all > MOST_TRIANGLES ? worn.map((mesh) => mesh && boxed(mesh)) : worn;
  return Array.from({ length: pieces.count }, (_, i) => {
    const mesh = meshes[pieces.models[i]];
    if (!mesh) return [];
    const positions = Float64Array.from(mesh.positions);
    const at = PIECE.numbers * i;
    const size = pieces.places[at + PIECE.size];
    if (laid.bend) {
      const bent = { distance: pieces.places[at + PIECE.distance], side: pieces.sides[i], size };
      bendAlong(laid, path, bent, positions, null);
    } else place(positions, pieces.places, at, size);
    return [{ positions, indices: mesh.indices }];
  }).flat();
}

/** Transforms points of a piece to its position. */
function place(positions: Float64Array, places: Float64Array, at: number, size: number): void {
  const [x, y, z, w] = places.subarray(at + PIECE.rotation, at + PIECE.size);
  for (let i = 0; i < positions.length; i += 3) {
    const [a, b, c] = [size * positions[i], size * positions[i + 1], size * positions[i + 2]];
    // v + 2 q × (q × v + w v)
    const [u, v, t] = [y * c - z * b + w * a, z * a - x * c + w * b, x * b - y * a + w * c];
    positions[i] = a + 2 * (y * t - z * v) + places[at];
    positions[i + 1] = b + 2 * (z * u - x * t) + places[at + 1];
    positions[i + 2] = c + 2 * (x * v - y * u) + places[at + 2];
  }
}

/** Triangles of a model in its rest pose, in its own space. */
function inModel(mesh: ModelMesh, hierarchy: NodeHierarchy): TriangleMesh {
  const space = restSpace(hierarchy);
  return joined(
    mesh.map(({ node, positions: p, indices }) => {
      const m = space.subarray(16 * node, 16 * node + 16);
      const positions = new Float64Array(p.length);
      for (let i = 0; i < p.length; i += 3)
        for (let k = 0; k < 3; k++)
          positions[i + k] = m[k] * p[i] + m[4 + k] * p[i + 1] + m[8 + k] * p[i + 2] + m[12 + k];
      return { positions, indices };
    }),
  );
}

/** The box around triangles, as twelve. */
function boxed({ positions: p }: TriangleMesh): TriangleMesh {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i++) {
    low[i % 3] = Math.min(low[i % 3], p[i]);
    high[i % 3] = Math.max(high[i % 3], p[i]);
  }
  return boxMesh(low, high);
}
