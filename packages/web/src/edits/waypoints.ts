import {
  Camera,
  PaceKey,
  defaultsOf,
  newAttachment,
  withRider,
  type CompiledPath,
  type Shot,
} from '@fleet-rail/core';
import type { Edit } from './edit';
import { addPlainRider } from './rider-edits';

/** Rider for points clicked at equal intervals: the selected one if it is not attached; else a new camera. */
export function waypointRider({ riders }: Pick<Shot, 'riders'>, chosen: string | null): string | null {
  return riders.find(({ id, attachment }) => id === chosen && attachment === null)?.id ?? null;
}

/**
 * A rider that reaches the points of a path at equal intervals, starting with the shot.
 *
 * @param id null for a new camera
 */
export const rideWaypoints =
  (id: string | null, pathId: string, curve: CompiledPath, closed: boolean, seconds: number): Edit =>
  (shot) => {
    const made =
      id === null
        ? addPlainRider(shot, 'Camera', { kind: 'camera', camera: defaultsOf(Camera) })
        : { shot, id };
    const attachment = newAttachment(pathId, shot.range);
    const places = [...curve.pointDistances, ...(closed ? [curve.length] : [])];
    const keys = places.map((value, i) => ({
      ...defaultsOf(PaceKey),
      frame: shot.range.first + i * seconds * shot.fps,
      value,
      ease: 'smooth' as const,
    }));
    return withRider(made.shot, made.id, (rider) => ({
      ...rider,
      attachment: { ...attachment, pace: { ...attachment.pace, unit: 'metres', keys } },
    }));
  };
