import { POSE, type Rider } from '@fleet-rail/core';
import { poseAt } from '../workers/evaluation/pose-at';
import { useDesk, type DeskState } from './desk-store';

/** A rider's pose at the shown frame: POSE.size numbers, or null until it is evaluated. */
export function riderPose(
  { evaluation, frame }: Pick<DeskState, 'evaluation' | 'frame'>,
  { id }: Rider,
): Float64Array | null {
  const evaluated = evaluation?.riders.get(id);
  if (!evaluation || !evaluated) return null;
  const out = new Float64Array(POSE.size);
  poseAt(evaluation, evaluated, frame, out);
  return out;
}

/** The same, followed. */
export function useRiderPose(rider: Rider | null): Float64Array | null {
  const evaluation = useDesk((state) => state.evaluation);
  const frame = useDesk((state) => state.frame);
  return rider && riderPose({ evaluation, frame }, rider);
}
