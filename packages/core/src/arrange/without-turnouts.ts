import type { Cue, CueAction } from '../document/shot-cue.js';
import type { Shot } from '../document/shot.js';
import { withoutLooseBursts } from './loose-bursts.js';

/** The shot without what turns riders out to a path that goes; of a cue that does several things the others stay. */
export function withoutTurnouts(shot: Shot, path: string): Shot {
  const stays = (action: CueAction) => action.path !== path;
  if (shot.cues.every(({ does, also }) => stays(does) && also.every(stays))) return shot;
  const left = shot.cues.flatMap((cue): Cue[] => {
    const [does, ...also] = [cue.does, ...cue.also].filter(stays);
    return does === undefined ? [] : [{ ...cue, does, also }];
  });
  // One that listened to what is gone has nothing left to hear.
  const heard = left.filter(({ on }) => on.kind !== 'cue' || left.some(({ id }) => id === on.cue));
  return withoutLooseBursts({ ...shot, cues: heard });
}
