import { axisVector, nodeNames, type Axis } from '@fleet-rail/core';
import * as THREE from 'three';
import type { GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import type { KTX2Loader } from 'three/examples/jsm/loaders/KTX2Loader.js';
import { clone } from 'three/examples/jsm/utils/SkeletonUtils.js';
import { modelFileUrl } from '../../api/models';

const loadReader = () => import('three/examples/jsm/loaders/GLTFLoader.js');

/** Models by their id on the server, each loaded once and handed out as copies. */
export class ModelLibrary {
  private readonly loads = new Map<string, Promise<THREE.Object3D>>();

  constructor() {
    // On its way before the first model is wanted; one that does not come is asked for again then.
    loadReader().catch(() => undefined);
  }

  /** A copy of a model, to be placed anywhere. */
  async copyOf(assetId: string): Promise<THREE.Object3D> {
    const cached = this.loads.get(assetId) ?? this.load(assetId);
    this.loads.set(assetId, cached);
    return clone(await cached);
  }

  private async load(assetId: string): Promise<THREE.Object3D> {
    try {
      const { GLTFLoader } = await loadReader();
      const loader = new GLTFLoader();
      // Of a reader of KTX2 pictures it uses this one way to read.
      loader.setKTX2Loader(new PicturesWhenMet() as unknown as KTX2Loader);
      const gltf = await loader.loadAsync(modelFileUrl(assetId));
      callNodes(gltf);
      return gltf.scene;
    } catch (error) {
      // Not kept, so that the next look tries again.
      this.loads.delete(assetId);
      throw error;
    }
  }
}

/** Reads KTX2 pictures; what it takes is fetched when the first one is met. */
class PicturesWhenMet extends THREE.Loader<THREE.CompressedTexture> {
  override load(...[url, onLoad, onProgress, onError]: Parameters<KTX2Loader['load']>): void {
    import('../../workers/scene-assets/compressed-pictures')
      .then(({ compressedPictures }) => compressedPictures.load(url, onLoad, onProgress, onError))
      .catch((error: unknown) => onError?.(error));
  }
}

/** Gives nodes the unique names that the shot uses, which a file's names need not be. */
function callNodes({ parser }: GLTF): void {
  const { nodes = [], meshes = [] } = parser.json as { nodes?: NodeJson[]; meshes?: { name?: string }[] };
  const names = nodeNames(
    nodes.map(({ name, mesh }) => ({ name, mesh: mesh === undefined ? undefined : meshes[mesh]?.name })),
  );
  for (const [object, at] of parser.associations)
    // The material that the loader gives to what has none comes from nothing in the file.
    if (at?.nodes !== undefined && object instanceof THREE.Object3D) object.userData.name = names[at.nodes];
}

interface NodeJson {
  readonly name?: string;
  readonly mesh?: number;
}

/** Makes an object a pale shape of one colour: what would be, not what is. */
export function makeGhost(object: THREE.Object3D, color: string): void {
  const material = new THREE.MeshStandardMaterial({
    color,
    transparent: true,
    opacity: 0.6,
    roughness: 1,
  });
  object.traverse((part) => {
    if (part instanceof THREE.Mesh) part.material = material;
  });
}

/** An arrow on the ground before an object's nose, in its own space: which way it faces. */
export function noseArrow(object: THREE.Object3D, forward: Axis, color: string): THREE.Object3D {
  const direction = new THREE.Vector3(...axisVector(forward));
  const box = new THREE.Box3().setFromObject(object);
  const size = box.getSize(new THREE.Vector3());
  const nose = Math.max(box.max.dot(direction), box.min.dot(direction));
  const length = Math.max(0.6, 0.4 * Math.max(size.x, size.z));
  const from = direction.clone().multiplyScalar(nose + 0.15 * length);
  return new THREE.ArrowHelper(direction, from, length, color, 0.5 * length, 0.4 * length);
}
