import {
  DEGREES,
  POSE,
  axesOf,
  axesToTravel,
  fieldOfView,
  focalAt,
  sourceFrame,
  type FreeEye,
  type Quat,
  type Rider,
} from '@fleet-rail/core';
import * as THREE from 'three';
import { poseAt } from '../../workers/evaluation/pose-at';
import type { DeskState } from '../../state/desk-store';
import { lookedThrough } from './looked-through';
import type { Lens } from './views';

/** About up: a camera of the renderer looks along −Z, a rider's along its nose. */
export const HALF_TURN = new THREE.Quaternion(0, 1, 0, 0);

const pose = new Float64Array(POSE.size);

/** Lens of the current camera at the shown frame; null until it is evaluated. */
export function lensOf(state: DeskState): Lens | null {
  const rider = lookedThrough(state);
  return rider && lensAt(state, rider, state.frame);
}

/** Lens of a camera rider at a frame; null until it is evaluated. */
export function lensAt(
  { shot, evaluation }: Pick<DeskState, 'shot' | 'evaluation'>,
  rider: Rider,
  frame: number,
): Lens | null {
  const evaluated = evaluation?.riders.get(rider.id);
  if (!rider.camera || !evaluated || !evaluation) return null;
  poseAt(evaluation, evaluated, frame, pose);
  const { forward, up } = axesOf(rider);
  const toNose = new THREE.Quaternion(...axesToTravel(forward, up)).conjugate();
  const [x, y, z, ...turn] = pose.subarray(0, POSE.distance);
  return {
    position: new THREE.Vector3(x, y, z),
    turn: new THREE.Quaternion(...(turn as [number, number, number, number]))
      .multiply(toNose)
      .multiply(HALF_TURN),
    fieldOfView: fieldOfView(rider.camera, focalAt(rider.camera, sourceFrame(shot, frame))),
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

/** A camera of the stage's own, as pictures are drawn by. */
export function freeEyeOf(camera: THREE.PerspectiveCamera | THREE.OrthographicCamera): FreeEye {
  const wide = camera instanceof THREE.PerspectiveCamera;
  return {
    position: camera.position.toArray(),
    rotation: camera.quaternion.toArray() as Quat,
    fieldOfView: wide ? camera.fov / DEGREES : null,
    height: wide ? null : (camera.top - camera.bottom) / camera.zoom,
  };
}

/** The renderer's camera for an eye; in a picture of any width it sees as much up and down. */
export function cameraOfFree(
  { position, rotation, fieldOfView: upAndDown, height }: FreeEye,
  aspect: number,
): THREE.PerspectiveCamera | THREE.OrthographicCamera {
  const half = (height ?? 0) / 2;
  const camera =
    upAndDown === null
      ? new THREE.OrthographicCamera(-half * aspect, half * aspect, half, -half, -4_000, 8_000)
      : new THREE.PerspectiveCamera(upAndDown * DEGREES, aspect, 0.1, 4_000);
  camera.position.set(...position);
  camera.quaternion.set(...rotation);
  camera.updateMatrixWorld();
  return camera;
}
