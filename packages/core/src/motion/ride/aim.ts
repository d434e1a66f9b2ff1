import { quat, vec3 } from 'gl-matrix';
import type { Camera } from '../../document/shot-camera.js';
import { softLimit } from '../../geometry/math/soft-limit.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { pictureHalves } from '../pose/camera.js';
import { newMat3 } from '../../geometry/math/new-matrix.js';

/** Nearer to straight up or down than this the picture is let turn rather than kept level. */
const UPRIGHT = 0.15;

const left: Vec3 = [0, 0, 0];
const up: Vec3 = [0, 0, 0];
const level: Vec3 = [0, 0, 0];
const basis = newMat3();

/**
 * The turn that brings forward (+Z) onto a direction with left level, in the frame of travel's sense of up.
 * Straight up and down nothing is level: towards there it goes over into the frame's own left, without a jump.
 *
 * @param direction  unit, in the world
 * @param frameLeft  the left of the frame of travel
 */
export function lookAlong(direction: Vec3, frameLeft: Vec3, out: Quat): void {
  vec3.scaleAndAdd(left, frameLeft, direction, -vec3.dot(frameLeft, direction));
  if (vec3.length(left) < 1e-6)
    vec3.cross(left, direction, Math.abs(direction[0]) < 0.9 ? [1, 0, 0] : [0, 0, 1]);
  vec3.normalize(left, left);
  vec3.set(level, direction[2], 0, -direction[0]);
  const flat = vec3.length(level);
  if (flat > 1e-9) {
    vec3.scale(level, level, 1 / flat);
    vec3.cross(up, direction, left);
    const turn = Math.atan2(vec3.dot(level, up), vec3.dot(level, left));
    const t = Math.min(1, flat / UPRIGHT);
    const part = turn * t * t * (3 - 2 * t);
    vec3.scale(left, left, Math.cos(part));
    vec3.scaleAndAdd(left, left, up, Math.sin(part));
  }
  vec3.cross(up, direction, left);
  for (let k = 0; k < 3; k++) {
    basis[k] = left[k];
    basis[3 + k] = up[k];
    basis[6 + k] = direction[k];
  }
  quat.fromMat3(out, basis);
  quat.normalize(out, out);
}

const turned: Vec3 = [0, 0, 0];
const back: Quat = [0, 0, 0, 1];

/**
 * A direction kept within yaw and pitch limits of the way of travel, softly.
 *
 * @param travel the frame of travel as a rotation
 * @param yawLimit, pitchLimit radians
 */
export function limitDirection(
  direction: Vec3,
  travel: Quat,
  yawLimit: number,
  pitchLimit: number,
  out: Vec3,
): void {
  vec3.transformQuat(turned, direction, quat.conjugate(back, travel));
  const yaw = within(Math.atan2(turned[0], turned[2]), yawLimit, Math.PI);
  const pitch = within(Math.asin(Math.min(1, Math.max(-1, turned[1]))), pitchLimit, Math.PI / 2);
  vec3.set(out, Math.cos(pitch) * Math.sin(yaw), Math.sin(pitch), Math.cos(pitch) * Math.cos(yaw));
  vec3.transformQuat(out, out, travel);
}

/** At its widest a limit is none at all. */
function within(angle: number, limit: number, widest: number): number {
  return limit >= widest - 1e-12 ? angle : softLimit(angle, limit);
}

/**
 * Which way a level camera has to look for a target in a direction to be at a place in its picture, once it is rolled.
 *
 * With the camera's own direction to that place (left, up, forward) = (l, u, f), pitch and then yaw follow
 * in closed form: only pitch changes how high the direction points.
 *
 * @param direction unit, to the target
 * @param focal     millimetres
 * @param roll      of the camera about where it looks, radians, right side down
 */
export function frameTarget(direction: Vec3, camera: Camera, focal: number, roll: number, out: Vec3): void {
  const [x, y] = camera.framing;
  if (x === 0 && y === 0) {
    vec3.copy(out, direction);
    return;
  }
  const { across, upward } = pictureHalves(camera, focal);
  // Direction to that point while the camera is still level.
  const l = -x * across * Math.cos(roll) - y * upward * Math.sin(roll);
  const u = y * upward * Math.cos(roll) - x * across * Math.sin(roll);
  const size = Math.hypot(l, u, 1);
  const height = Math.min(1, Math.max(-1, (direction[1] * size) / Math.hypot(u, 1)));
  const pitch = Math.asin(height) - Math.atan2(u, 1);
  // Level part of the pitched camera's direction to the point: left l, forward f.
  const f = Math.cos(pitch) - u * Math.sin(pitch);
  const yaw = Math.atan2(direction[0], direction[2]) - Math.atan2(l, f);
  vec3.set(out, Math.cos(pitch) * Math.sin(yaw), Math.sin(pitch), Math.cos(pitch) * Math.cos(yaw));
}
