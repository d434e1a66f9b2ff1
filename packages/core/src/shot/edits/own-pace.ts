import type { PacedBy } from '../../document/shot-attachment.js';
import type { Pace } from '../../document/shot-pace.js';
import type { Rider } from '../../document/shot-rider.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { changeUnit } from '../../motion/pace/change-unit.js';
import { compiledPaceOf } from '../../motion/pace/compiled-pace-of.js';
import { heldPace } from '../../motion/pace/held-pace.js';
import { timesAsFast, withFrames } from '../../motion/pace/in-time.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';
import { POSE } from '../../motion/pose/pose.js';
import { hasOwnPace, leadingOf } from '../../motion/timing/leader.js';
import { poseOfRider } from './change-rider.js';

/**
 * A rider that had the pace of another, or was coupled behind it, with the same motion by its own pace. A coupled one
 * keeps its distance at the first frame.
 *
 * @param evaluated the shot as it is played while the other still leads
 */
export function withOwnPace(evaluated: EvaluatedShot, rider: Rider): Rider {
  const { attachment } = rider;
  if (attachment === null || hasOwnPace(attachment)) return rider;
  const { shot } = evaluated;
  const free = { ...attachment, coupledTo: null, pacedBy: null };
  const curve = curveRidden(shot, rider);
  if (curve === null || leadingOf(rider, riding(evaluated)) === null) return { ...rider, attachment: free };
  const own = paceInMetres(evaluated, rider);
  const pace = changeUnit(own, attachment.pace.unit, curve.length);
  if (attachment.coupledTo === null) return { ...rider, attachment: { ...free, pace } };
  const { first } = shot.range;
  const starts = heldPace(compiledPaceOf(own, shot.fps, curve), own, curve).distance(first);
  const along = poseOfRider(evaluated, rider.id, first)[POSE.distance] - starts;
  return { ...rider, attachment: { ...free, pace, offset: { ...attachment.offset, along } } };
}

/** Finds riders that ride a curve. */
function riding({ shot }: EvaluatedShot): (id: string) => Rider | undefined {
  return (id) => {
    const rider = shot.riders.find((other) => other.id === id);
    return curveRidden(shot, rider) ? rider : undefined;
  };
}

/** Resulting pace of a rider on a curve, in metres, without offsets along the path. */
function paceInMetres(evaluated: EvaluatedShot, rider: Rider): Pace {
  const find = riding(evaluated);
  const delays: PacedBy[] = [];
  let head = rider;
  for (let leading = leadingOf(head, find); leading; leading = leadingOf(head, find)) {
    if (leading.by === 'pacedBy' && leading.attachment.pacedBy) delays.unshift(leading.attachment.pacedBy);
    head = leading.leader;
  }
  const { shot } = evaluated;
  const length = curveRidden(shot, head)?.length ?? 1;
  const pace = changeUnit((head.attachment as NonNullable<Rider['attachment']>).pace, 'metres', length);
  return delays.reduce((before, delay) => laterPace(before, delay, shot.range.first), pace);
}

function laterPace(pace: Pace, { delay, rate }: PacedBy, first: number): Pace {
  return timesAsFast(withFrames(pace, { from: first, to: first + delay, scale: 1 / rate }), rate);
}
