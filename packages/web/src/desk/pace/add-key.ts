import { PathError, compilePace, compiledPathOf, type PaceKey } from '@fleet-rail/core';
import { changePace } from '../../edits/rider-edits';
import type { Edit } from '../../edits/edit';

/** Adds a key where the rider is at a frame. */
export const addKeyAt =
  (riderId: string, frame: number): Edit =>
  (shot) => {
    const hitch = shot.riders.find((rider) => rider.id === riderId)?.hitch;
    const path = shot.paths.find((other) => other.id === hitch?.path);
    const curve = path && compiledPathOf(path);
    if (!hitch || !curve || curve instanceof PathError) return shot;
    const metres = compilePace(hitch.pace, shot.fps, curve.length).distance(frame);
    const value = hitch.pace.unit === 'laps' ? metres / curve.length : metres;
    return changePace(riderId, (pace) => {
      const before = pace.keys.findLast((key) => key.frame < frame);
      const key: PaceKey = { frame, value, ease: before?.ease ?? 'linear', in: [0, 0], out: [0, 0] };
      return { ...pace, keys: [...pace.keys, key].sort((a, b) => a.frame - b.frame) };
    })(shot);
  };
