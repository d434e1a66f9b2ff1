import { eachAction } from '../document/each-action.js';
import { leaderIdOf } from '../motion/timing/leader.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** A rider on a path that stays where it is over the whole range. */
export function findNeverMoves(look: RiderLook): RawFinding[] {
  const { rider, count, curve, evaluated } = look;
  if (curve === null || rider.attachment === null || count < 2) return [];
  // A rider that waits for its cue is reported with the cue.
  const waits = eachAction(evaluated.shot.cues).some(
    ({ off, action }) => !off && action.kind === 'start' && action.rider === rider.id,
  );
  if (waits || leaderIdOf(rider.attachment) !== null) return [];
  const begin = look.distance(0);
  for (let i = 1; i < count; i++) if (Math.abs(look.distance(i) - begin) > 1e-6) return [];
  return [
    found(
      'never-moves',
      'note',
      { rider: rider.id, path: rider.attachment.path, distance: begin, fix: 'set-off' },
      ({ rider: badge, path }) =>
        `${badge(rider.id)} rides ${path(rider.attachment?.path ?? '')}, but stays at ${begin.toFixed(2)} m; key its distance, or detach it.`,
    ),
  ];
}
