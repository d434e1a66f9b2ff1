import * as THREE from 'three';

/** Looks down at a box from before its corner, with room around it. */
export function cameraNear(box: THREE.Box3, like: THREE.Camera): THREE.PerspectiveCamera {
  const aspect = like instanceof THREE.PerspectiveCamera ? like.aspect : 16 / 9;
  const camera = new THREE.PerspectiveCamera(35, aspect, 0.1, 2000);
  const { center, radius } = box.getBoundingSphere(new THREE.Sphere());
  camera.position
    .copy(center)
    .addScaledVector(new THREE.Vector3(1, 0.7, 1).normalize(), 4 * Math.max(radius, 0.5));
  camera.lookAt(center);
  return camera;
}
