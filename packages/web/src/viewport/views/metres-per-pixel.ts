import * as THREE from 'three';

/** Nearest distance that counts, metres. */
const NEAREST = 0.1;

/**
 * Metres that one pixel spans at a place.
 *
 * @param height of the picture, pixels
 */
export function metresPerPixel(camera: THREE.Camera, place: THREE.Vector3, height: number): number {
  if (camera instanceof THREE.OrthographicCamera)
    return (camera.top - camera.bottom) / (camera.zoom * height);
  const ahead = camera.getWorldDirection(new THREE.Vector3());
  const depth = Math.max(NEAREST, place.clone().sub(camera.position).dot(ahead));
  const { fov } = camera as THREE.PerspectiveCamera;
  return (2 * depth * Math.tan((fov * Math.PI) / 360)) / height;
}
