import type { Camera } from '../../document/shot-camera.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';

/** A camera's focal length by frame, millimetres. */
export function compileFocal({ focal, keys }: Camera): (frame: number) => number {
  if (keys.length === 0) return () => focal;
  const curve = keyedCurve(keys);
  // Handles may swing over; a lens of no length there is none.
  return (frame) => Math.max(1, curve.value(frame));
}

/** A camera's focal length at one frame, millimetres. */
export function focalAt(camera: Camera, frame: number): number {
  return compileFocal(camera)(frame);
}

/** Half the picture's width and height at a distance of 1. */
export function pictureHalves({ sensor, aspect }: Camera, focal: number): { across: number; upward: number } {
  const across = sensor / (2 * focal);
  return { across, upward: across / aspect };
}

/** The field of view up and down, radians, as glTF has it. */
export function fieldOfView(camera: Camera, focal: number): number {
  return 2 * Math.atan(pictureHalves(camera, focal).upward);
}

/** The camera that is looked through at a frame by a shot's cuts: the id of its rider. */
export function cameraAt(cuts: readonly { frame: number; camera: string }[], frame: number): string | null {
  let found: string | null = cuts[0]?.camera ?? null;
  for (const cut of cuts) if (cut.frame <= frame) found = cut.camera;
  return found;
}
