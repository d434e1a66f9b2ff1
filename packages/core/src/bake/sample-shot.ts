import type { Shot } from '../document/shot.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { POSE, type PoseAt } from '../pose/index.js';
import { sampleParts, takeShortWay, type SampledParts } from './sampled-parts.js';

/** Every rider's pose at every frame of the range: {@link POSE}.size numbers a frame. */
export interface SampledShot {
  readonly shot: Shot;
  readonly frames: number;
  /** In the order of the document's riders. */
  readonly riders: readonly Float64Array[];
  /** In the same order what moves of each rider's model by itself. */
  readonly parts: readonly SampledParts[];
}

/** The number of frames of a shot, first and last included. */
export function frameCount(shot: Shot): number {
  return shot.range.last - shot.range.first + 1;
}

/** Seconds from the first frame. */
export function frameTime(shot: Shot, frame: number): number {
  return (frame - shot.range.first) / shot.fps;
}

/** Samples a whole shot at whole frames. */
export function sampleShot(evaluated: EvaluatedShot): SampledShot {
  const { shot } = evaluated;
  const frames = frameCount(shot);
  const riders = evaluated.poses.map((pose) => sampleRider(pose, shot.range.first, frames, 1));
  const parts = shot.riders.map((rider) => sampleParts(evaluated.parts(rider), shot.range.first, frames, 1));
  return { shot, frames, riders, parts };
}

/**
 * A rider's poses at `count` frames that are `step` apart; of the two quaternions of each rotation the one nearer
 * to that before it, so that what lies between can be interpolated.
 */
export function sampleRider(pose: PoseAt, first: number, count: number, step: number): Float64Array {
  const out = new Float64Array(count * POSE.size);
  for (let i = 0; i < count; i++) {
    const at = i * POSE.size;
    pose(first + i * step, out, at);
    if (i > 0) takeShortWay(out, at + POSE.rotation, POSE.size);
  }
  return out;
}
