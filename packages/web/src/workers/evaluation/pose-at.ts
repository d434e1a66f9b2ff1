import { POSE } from '@fleet-rail/core';
import type { EvaluatedRider, Evaluation } from './evaluation';

/**
 * A rider's pose at a (fractional) frame, read from its samples; between them it is interpolated. Where its pose at the shown
 * frame is known before its samples, it is that one.
 *
 * @param out POSE.size numbers
 */
export function poseAt(
  evaluation: Pick<Evaluation, 'first' | 'step'> & Partial<Pick<Evaluation, 'now'>>,
  { id, poses }: Pick<EvaluatedRider, 'poses'> & Partial<Pick<EvaluatedRider, 'id'>>,
  frame: number,
  out: Float64Array,
): void {
  const now = evaluation.now?.frame === frame ? evaluation.now.poses.get(id ?? '') : undefined;
  if (now !== undefined) {
    out.set(now);
    return;
  }
  const last = poses.length / POSE.size - 1;
  const place = Math.min(last, Math.max(0, (frame - evaluation.first) / evaluation.step));
  const i = Math.min(last, Math.floor(place + 1e-9));
  const part = place - i;
  const at = i * POSE.size;
  if (part < 1e-9 || i === last) {
    for (let k = 0; k < POSE.size; k++) out[k] = poses[at + k];
    return;
  }
  for (let k = 0; k < POSE.size; k++) out[k] = poses[at + k] * (1 - part) + poses[at + POSE.size + k] * part;
  const size = Math.hypot(out[3], out[4], out[5], out[6]);
  for (let k = POSE.rotation; k < POSE.rotation + 4; k++) out[k] /= size;
}
