import * as THREE from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { clone } from 'three/examples/jsm/utils/SkeletonUtils.js';
import { modelFileUrl } from '../../api/models';

/** Models by their id on the server, each loaded once and handed out as copies. */
export class ModelLibrary {
  private readonly loader = new GLTFLoader();
  private readonly loads = new Map<string, Promise<THREE.Object3D>>();

  /** A copy of a model, to be placed anywhere. */
  async copyOf(assetId: string): Promise<THREE.Object3D> {
    const known = this.loads.get(assetId) ?? this.load(assetId);
    this.loads.set(assetId, known);
    return clone(await known);
  }

  private async load(assetId: string): Promise<THREE.Object3D> {
    try {
      const { scene } = await this.loader.loadAsync(modelFileUrl(assetId));
      return scene;
    } catch (error) {
      // Not kept, so that the next look tries again.
      this.loads.delete(assetId);
      throw error;
    }
  }
}

/** A stand-in for a rider without a model: a carriage with a nose, 1 m long, on the ground. */
export function standIn(color: string): THREE.Object3D {
  const outline = new THREE.Shape([
    new THREE.Vector2(-0.35, -0.5),
    new THREE.Vector2(0.35, -0.5),
    new THREE.Vector2(0.35, 0.15),
    new THREE.Vector2(0, 0.6),
    new THREE.Vector2(-0.35, 0.15),
  ]);
  const geometry = new THREE.ExtrudeGeometry(outline, { depth: 0.25, bevelEnabled: false });
  geometry.rotateX(-Math.PI / 2);
  geometry.rotateY(Math.PI);
  return new THREE.Mesh(geometry, new THREE.MeshStandardMaterial({ color, roughness: 0.8 }));
}

/** Makes an object a pale shape of one colour: what would be, not what is. */
export function makeGhost(object: THREE.Object3D, color: string): void {
  const material = new THREE.MeshStandardMaterial({
    color,
    transparent: true,
    opacity: 0.55,
    roughness: 1,
    depthWrite: false,
  });
  object.traverse((part) => {
    if (part instanceof THREE.Mesh) part.material = material;
  });
}
