import {
  LIMITS,
  focalAt,
  frameCount,
  simplifyGraph,
  sourceFrame,
  withRider,
  type Camera,
  type Shot,
} from '@fleet-rail/core';
import type { Edit } from './edit';

/** The size is held within this part of itself between keys. */
const WITHIN = 0.004;

/**
 * Keys of the focal length that hold the size of a target in the picture at a frame: the lens is proportional to the
 * distance. Null if the lens would be longer or shorter than lenses are.
 *
 * @param distances by frame of the range how far the target is, metres
 */
export function sizeHeld(
  shot: Shot,
  camera: Camera,
  distances: ArrayLike<number>,
  frame: number,
): Camera['keys'] | null {
  const { first } = shot.range;
  const now = distances[Math.round(frame) - first];
  if (!(now > 0)) return null;
  const focal = focalAt(camera, sourceFrame(shot, frame));
  const frames = Array.from({ length: frameCount(shot) }, (_, i) => first + i);
  const values = frames.map((_, i) => (focal * distances[i]) / now);
  // As in rules of the document.
  if (values.some((value) => !(value >= 1 && value <= 10_000))) return null;
  const kept = simplifyGraph(frames, values, WITHIN * focal);
  if (kept.length > LIMITS.keysPerPace) return null;
  return kept.map((i) => ({
    frame: sourceFrame(shot, frames[i]),
    value: values[i],
    ease: 'linear' as const,
  }));
}

export const holdSize =
  (id: string, keys: Camera['keys']): Edit =>
  (shot) =>
    withRider(shot, id, (rider) => (rider.camera ? { ...rider, camera: { ...rider.camera, keys } } : rider));
