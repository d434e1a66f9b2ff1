import { eachAction } from '../../document/each-action.js';
import type { Shot } from '../../document/shot.js';
import { movesByItself } from './evaluate-shot.js';
import { goesByGround, needsPhysics } from './scene-assets.js';

/** Whether a shot needs its models' files to be played, and not only to be seen. */
export function needsAssets({ riders, cues }: Pick<Shot, 'riders' | 'cues'>): boolean {
  return (
    eachAction(cues).some(({ action }) => action.node !== null) ||
    needsPhysics({ riders }) ||
    riders.some(
      (rider) =>
        rider.hangingParts.length > 0 ||
        movesByItself(rider) ||
        goesByGround(rider) ||
        rider.emitter?.from === 'part',
    )
  );
}
