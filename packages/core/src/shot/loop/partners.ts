import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';

/** The frames of a shot's cycle: frame last + 1 is frame first again. */
export function cycleFrames({ range }: Pick<Shot, 'range'>): number {
  return range.last - range.first + 1;
}

/** Partner of a rider at the seam. */
export interface Partner {
  readonly rider: Rider;
  /** True for the last of a relay, which gives way to the first: it leaves where that one enters. */
  readonly handsOver: boolean;
}

/**
 * Rider at the first frame that takes the place of this one after the last: itself, or in a relay the copy that is a
 * cycle ahead.
 */
export function seamPartner(shot: Shot, rider: Rider): Partner {
  const leader = rider.attachment?.pacedBy?.rider ?? rider.id;
  const family = shot.riders.filter(({ id, attachment }) => {
    const timed = attachment?.pacedBy;
    const sameWay = attachment?.path === rider.attachment?.path;
    return sameWay && (id === leader || (timed?.rider === leader && timed.rate === 1));
  });
  const delayOf = ({ attachment }: Rider) => attachment?.pacedBy?.delay ?? 0;
  const frames = cycleFrames(shot);
  const near = (delay: number) => family.find((other) => Math.abs(delayOf(other) - delay) < 1e-6);
  const next = near(delayOf(rider) - frames);
  if (next) return { rider: next, handsOver: false };
  if (!near(delayOf(rider) + frames)) return { rider, handsOver: false };
  const first = family.reduce((a, b) => (delayOf(b) > delayOf(a) ? b : a));
  return { rider: first, handsOver: true };
}
