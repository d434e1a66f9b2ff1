import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { POSE } from '../../motion/pose/pose.js';

/** The shot with another rider in the place of the one with this id. */
export function withRider(shot: Shot, id: string, change: (rider: Rider) => Rider): Shot {
  return { ...shot, riders: shot.riders.map((rider) => (rider.id === id ? change(rider) : rider)) };
}

/** The shot with a rider's attachment changed, where it has one. */
export function withAttachment(shot: Shot, id: string, change: (attachment: Attachment) => Attachment): Shot {
  return withRider(shot, id, (rider) =>
    rider.attachment ? { ...rider, attachment: change(rider.attachment) } : rider,
  );
}

/**
 * A rider's pose at a frame: POSE.size numbers.
 *
 * @throws Error where the shot has no such rider
 */
export function poseOfRider({ shot, poses }: EvaluatedShot, id: string, frame: number): Float64Array {
  const pose = new Float64Array(POSE.size);
  const index = shot.riders.findIndex((rider) => rider.id === id);
  if (index < 0) throw new Error(`There is no rider "${id}".`);
  poses[index](frame, pose, 0);
  return pose;
}
