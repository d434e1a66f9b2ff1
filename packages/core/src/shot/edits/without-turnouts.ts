import type { Cue, CueAction } from '../../document/shot-cue.js';
import type { Shot } from '../../document/shot.js';
import { withoutLooseBursts } from './loose-bursts.js';

/** The shot without turnouts to a deleted path; of a cue with several actions the others stay. */
export function withoutTurnouts(shot: Shot, path: string): Shot {
  const stays = (action: CueAction) => action.path !== path;
  if (shot.cues.every(({ action, moreActions }) => stays(action) && moreActions.every(stays))) return shot;
  const left = shot.cues.flatMap((cue): Cue[] => {
    const [does, ...also] = [cue.action, ...cue.moreActions].filter(stays);
    return does === undefined ? [] : [{ ...cue, action: does, moreActions: also }];
  });
  // One that listened to what is gone has nothing left to hear.
  const heard = left.filter(
    ({ trigger }) => trigger.kind !== 'cue' || left.some(({ id }) => id === trigger.cue),
  );
  return withoutLooseBursts({ ...shot, cues: heard });
}
