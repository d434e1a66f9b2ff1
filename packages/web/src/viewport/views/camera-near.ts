import * as THREE from 'three';
import { seeingDirection } from './seeing-direction';

/**
 * Camera that looks down at a box from a corner, with room around it; from elsewhere if something is in the way.
 *
 * @param blocked whether something stands between two places
 */
export function cameraNear(
  box: THREE.Box3,
  like: THREE.Camera,
  blocked: (from: THREE.Vector3, to: THREE.Vector3) => boolean,
): THREE.PerspectiveCamera {
  const aspect = like instanceof THREE.PerspectiveCamera ? like.aspect : 16 / 9;
  const camera = new THREE.PerspectiveCamera(35, aspect, 0.1, 2000);
  const { center, radius } = box.getBoundingSphere(new THREE.Sphere());
  const far = 4 * Math.max(radius, 0.5);
  const way = seeingDirection(box, new THREE.Vector3(1, 0.7, 1), far, blocked);
  camera.position.copy(center).addScaledVector(way, far);
  camera.lookAt(center);
  return camera;
}
