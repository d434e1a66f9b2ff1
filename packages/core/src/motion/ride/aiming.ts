import { quat, vec3 } from 'gl-matrix';
import type { Camera } from '../../document/shot-camera.js';
import type { Facing } from '../../document/shot-facing.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { frameTarget, limitDirection, lookAlong } from './aim.js';
import { trackDirection, type TrackRange } from './aim-track.js';
import { compileFocal, pictureHalves } from '../pose/camera.js';
import { compileInfluence } from '../pose/influence.js';
import type { Travel } from './travel.js';
import { RADIANS } from '../../geometry/math/angle.js';

/** Writes the place that is aimed at, at a frame. */
export type TargetAt = (frame: number, out: Vec3) => void;

/** Inputs of aiming beside the rider itself. */
export interface AimParts {
  /** Null for a point ahead on the path: where the rider itself will be. */
  readonly target: TargetAt | null;
  readonly range: TrackRange;
  /** −1 where the rider travels tail first: its nose is aimed all the same. */
  readonly travelSign: 1 | -1;
  /** How much it aims, where that is not as keyed. */
  readonly influence?: ((frame: number) => number) | null;
  /** How far it is rolled beside, degrees: what it frames stays where it is in the picture. */
  readonly roll: (frame: number) => number;
}

/** A rider that turns to something. */
export interface Aiming {
  /** 0 to 1. */
  influence(frame: number): number;
  /**
   * The turn of the frame of travel that looks there.
   *
   * @param way the frame of travel, also as a rotation
   * @returns false where what is aimed at is in the rider's own place: there is no direction then
   */
  turn(frame: number, way: Float64Array, wayTurn: Quat, out: Quat): boolean;
}

/** @returns null where there is nothing to aim at */
export function compileAiming(
  { camera }: Rider,
  { aim, ahead, mode }: Pick<Facing, 'aim' | 'ahead' | 'mode'>,
  travel: Travel['place'],
  { target, range, travelSign, influence: cued, roll }: AimParts,
): Aiming | null {
  if (mode !== 'aim' || (target === null && ahead === 0)) return null;
  const focal = camera && compileFocal(camera);
  const influence = cued ?? compileInfluence(aim.influence) ?? (() => 1);
  const here = new Float64Array(12);
  const further = new Float64Array(12);
  const there: Vec3 = [0, 0, 0];
  const left: Vec3 = [0, 0, 0];
  const direction: Vec3 = [0, 0, 1];
  const noseTurn: Quat = [0, 0, 0, 1];
  const findTarget: TargetAt =
    target ??
    ((frame, out) => {
      travel(frame, further, ahead);
      for (let k = 0; k < 3; k++) out[k] = further[k];
    });
  const tracked = trackDirection(
    (frame, out) => {
      travel(frame, here);
      findTarget(frame, there);
      for (let k = 0; k < 3; k++) left[k] = there[k] - here[k];
      const gap = vec3.length(left);
      if (gap < 1e-9) return false;
      vec3.scale(out, left, 1 / gap);
      return true;
    },
    range,
    aim.deadZone > 0 ? (frame) => zoneInPicture(aim.deadZone * RADIANS, camera, focal, frame) : null,
    aim.damping,
  );
  const limited = aim.yawLimit < 180 || aim.pitchLimit < 90;
  return {
    influence,
    turn(frame, way, wayTurn, out) {
      if (!tracked(frame, direction)) return false;
      if (camera && focal) frameTarget(direction, camera, focal(frame), roll(frame) * RADIANS, direction);
      if (limited) {
        quat.copy(noseTurn, wayTurn);
        if (travelSign < 0) quat.rotateY(noseTurn, noseTurn, Math.PI);
        limitDirection(direction, noseTurn, aim.yawLimit * RADIANS, aim.pitchLimit * RADIANS, direction);
      }
      for (let k = 0; k < 3; k++) left[k] = travelSign * way[3 + k];
      lookAlong(direction, left, out);
      // Its own offset turns it round, and the nose is where the tail would be.
      if (travelSign < 0) quat.rotateY(out, out, Math.PI);
      return true;
    },
  };
}

/** A dead zone about the place in the picture that its target is kept at: no wider there than it is in the picture's middle. */
function zoneInPicture(
  zone: number,
  camera: Camera | null,
  focal: ((frame: number) => number) | null,
  frame: number,
): number {
  if (camera === null || focal === null || zone >= Math.PI / 4) return zone;
  const { across, upward } = pictureHalves(camera, focal(frame));
  const [x, y] = camera.framing;
  const aside = Math.hypot(x * across, y * upward);
  return aside === 0 ? zone : Math.atan(aside + Math.tan(zone)) - Math.atan(aside);
}
