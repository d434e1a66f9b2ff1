import type { Shot } from '@fleet-rail/core';
import { Mesh, type Object3D, Vector3 } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { modelFileUrl } from '../api/models';
import type { GroundMesh } from './ground-height';

/** The triangles of a shot's ground, as it stands; null where it has none of its own. */
export async function loadGround({ ground, models }: Shot): Promise<GroundMesh | null> {
  const asset = models.find((model) => model.id === ground.model)?.source.asset;
  if (asset === undefined) return null;
  const { scene } = await new GLTFLoader().loadAsync(modelFileUrl(asset));
  scene.updateMatrixWorld(true);
  const nodes = new Set(ground.nodes);
  return trianglesOf(scene, (part) => nodes.size === 0 || isUnder(part, nodes));
}

function isUnder(part: Object3D, names: ReadonlySet<string>): boolean {
  for (let node: Object3D | null = part; node !== null; node = node.parent)
    if (names.has(node.name)) return true;
  return false;
}

function trianglesOf(scene: Object3D, counts: (part: Object3D) => boolean): GroundMesh | null {
  const positions: number[] = [];
  const indices: number[] = [];
  const place = new Vector3();
  scene.traverse((part) => {
    if (!(part instanceof Mesh) || !counts(part)) return;
    const first = positions.length / 3;
    const vertices = part.geometry.getAttribute('position');
    for (let i = 0; i < vertices.count; i++) {
      place.fromBufferAttribute(vertices, i).applyMatrix4(part.matrixWorld);
      positions.push(place.x, place.y, place.z);
    }
    const index = part.geometry.getIndex();
    const count = index?.count ?? vertices.count;
    for (let i = 0; i < count; i++) indices.push(first + (index ? index.getX(i) : i));
  });
  if (indices.length === 0) return null;
  return { positions: new Float32Array(positions), indices: new Uint32Array(indices) };
}
