import { mat3, quat } from 'gl-matrix';
import type { Hitch } from '../document/shot-hitch.js';
import type { Quat } from '../math/vec.js';
import type { CompiledPace } from '../pace/compile-pace.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { axesToTravel } from './axes.js';
import { offsetRotation } from './offset-rotation.js';
import { POSE } from './pose.js';

/** Writes a rider's pose at a (fractional) frame into `out[at …]`. */
export type PoseAt = (frame: number, out: Float64Array, at: number) => void;

/**
 * A rider on its path: at its pace's distance, turned to the frame of travel, moved by its offset.
 *
 * `along` is measured on the curve itself, so a rider set back by 3 m goes where the leader went.
 *
 * @param restRotation kept where the facing says `keep`
 */
export function ridePath(hitch: Hitch, path: CompiledPath, pace: CompiledPace, restRotation: Quat): PoseAt {
  const { offset, facing } = hitch;
  const frame = new Float64Array(12);
  const basis = mat3.create();
  const turn: Quat = [0, 0, 0, 1];
  const own = quat.multiply(
    quat.create(),
    offsetRotation(offset),
    axesToTravel(facing.forward, facing.up),
  ) as Quat;
  const keeps = facing.mode === 'keep';
  const reference = facing.reference === 'path' ? 'path' : 'world';
  return (frameNumber, out, at) => {
    const asked = pace.distance(frameNumber) + offset.along;
    const held = !path.closed && (asked < 0 || asked > path.length);
    const distance = path.closed ? asked : Math.min(path.length, Math.max(0, asked));
    path.frame(distance, frame, 0, reference);
    for (let k = 0; k < 3; k++) {
      out[at + k] = frame[k] + offset.side * frame[3 + k] + offset.rise * frame[6 + k];
    }
    if (keeps) {
      quat.copy(turn, restRotation);
    } else {
      for (let k = 0; k < 9; k++) basis[k] = frame[3 + k];
      quat.fromMat3(turn, basis);
      quat.multiply(turn, turn, own);
      quat.normalize(turn, turn);
    }
    for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = turn[k];
    out[at + POSE.distance] = distance;
    out[at + POSE.speed] = held ? 0 : pace.speed(frameNumber);
    out[at + POSE.bank] = 0;
  };
}
