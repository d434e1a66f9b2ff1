import { axisVector, type Axis } from '@fleet-rail/core';
import * as THREE from 'three';
import { clone } from 'three/examples/jsm/utils/SkeletonUtils.js';
import { modelFileUrl } from '../../api/models';

/** Models by their id on the server, each loaded once and handed out as copies. */
export class ModelLibrary {
  private readonly loads = new Map<string, Promise<THREE.Object3D>>();

  /** A copy of a model, to be placed anywhere. */
  async copyOf(assetId: string): Promise<THREE.Object3D> {
    const cached = this.loads.get(assetId) ?? this.load(assetId);
    this.loads.set(assetId, cached);
    return clone(await cached);
  }

  private async load(assetId: string): Promise<THREE.Object3D> {
    try {
      const { GLTFLoader } = await import('three/examples/jsm/loaders/GLTFLoader.js');
      const { scene } = await new GLTFLoader().loadAsync(modelFileUrl(assetId));
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

/** A stand-in for a camera without a model: a case whose hood opens towards its nose. */
export function cameraStandIn(color: string): THREE.Object3D {
  const material = new THREE.MeshStandardMaterial({ color, roughness: 0.8 });
  const group = new THREE.Group();
  const hood = new THREE.CylinderGeometry(0.28, 0.1, 0.3, 4, 1, true, Math.PI / 4);
  hood.rotateX(Math.PI / 2);
  hood.translate(0, 0, 0.15);
  const body = new THREE.BoxGeometry(0.3, 0.34, 0.5);
  body.translate(0, 0, -0.25);
  material.side = THREE.DoubleSide;
  group.add(new THREE.Mesh(hood, material), new THREE.Mesh(body, material));
  return group;
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
