import { DEGREES, POSE, axesOf, axesToTravel, fieldOfView, focalAt, sourceFrame } from '@fleet-rail/core';
import * as THREE from 'three';
import { poseAt } from '../../evaluation/pose-at';
import type { DeskState } from '../desk-store';
import { lookedThrough } from './looked-through';
import type { Lens } from './views';

/** About up: a camera of the renderer looks along −Z, a rider's along its nose. */
export const HALF_TURN = new THREE.Quaternion(0, 1, 0, 0);

const pose = new Float64Array(POSE.size);

/** What the camera that is looked through sees at the shown frame; null while it is not evaluated. */
export function lensOf(state: DeskState): Lens | null {
  const rider = lookedThrough(state);
  const evaluated = rider && state.evaluation?.riders.get(rider.id);
  if (!rider?.camera || !evaluated || !state.evaluation) return null;
  poseAt(state.evaluation, evaluated, state.frame, pose);
  const { forward, up } = axesOf(rider);
  const toNose = new THREE.Quaternion(...axesToTravel(forward, up)).conjugate();
  const [x, y, z, ...turn] = pose.subarray(0, POSE.distance);
  return {
    position: new THREE.Vector3(x, y, z),
    turn: new THREE.Quaternion(...(turn as [number, number, number, number]))
      .multiply(toNose)
      .multiply(HALF_TURN),
    fieldOfView: fieldOfView(rider.camera, focalAt(rider.camera, sourceFrame(state.shot, state.frame))),
    aspect: rider.camera.aspect,
  };
}

/**
 * A renderer's camera that sees what a lens does, and no more; in a picture that is less wide for its height, all that is across.
 */
export function cameraOf(
  { position, turn, fieldOfView: upAndDown, aspect: own }: Lens,
  aspect = own,
): THREE.PerspectiveCamera {
  const whole = aspect < own ? 2 * Math.atan((Math.tan(upAndDown / 2) * own) / aspect) : upAndDown;
  const camera = new THREE.PerspectiveCamera(whole * DEGREES, aspect, 0.05, 4_000);
  camera.position.copy(position);
  camera.quaternion.copy(turn);
  camera.updateMatrixWorld();
  return camera;
}

/** The same camera for a picture of another width over height; as high as before. */
export function cameraOfAspect(
  camera: THREE.PerspectiveCamera | THREE.OrthographicCamera,
  aspect: number,
): THREE.Camera {
  const other = camera.clone();
  if (other instanceof THREE.PerspectiveCamera) other.aspect = aspect;
  else {
    const half = ((other.top - other.bottom) / 2) * aspect;
    [other.left, other.right] = [-half, half];
  }
  other.updateProjectionMatrix();
  other.updateMatrixWorld();
  return other;
}
