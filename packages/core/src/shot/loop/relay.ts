import { metresPerValue } from '../../motion/pace/change-unit.js';
import { freeBadge } from '../edits/new-rider.js';
import { freeId, freeName } from '../../document/free-name.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';
import { compilePace } from '../../motion/pace/compile-pace.js';
import { driveSeconds } from '../../motion/pace/drive-curve.js';
import { timesAsFast, withFrames } from '../../motion/pace/in-time.js';
import { hasOwnPace } from '../../motion/timing/leader.js';
import { PathError } from '../../geometry/path/path-error.js';

/** A long ride turned into a short loop of several riders. */
export interface Relay {
  readonly shot: Shot;
  /** The riders in it, the one there was first. */
  readonly ids: readonly string[];
  /** Frames the whole ride takes: as many cycles as there are riders. */
  readonly frames: number;
  /** Factor of its speed for that. */
  readonly rate: number;
}

/**
 * The ride of one as a loop of `count` riders, each an equal part of it ahead of the next: at the frame after the
 * last each is where the next one was at the first. The shot's range becomes one part.
 *
 * @param loopFrames how many frames the loop takes, the ride made faster or slower for it; null for the number at which its speed changes least
 * @throws PathError where the rider rides no curve, hangs behind another, or its ride has no length of its own
 */
export function relay(shot: Shot, id: string, count: number, loopFrames: number | null): Relay {
  const rider = shot.riders.find((other) => other.id === id);
  const curve = curveRidden(shot, rider);
  if (!rider?.attachment || curve === null) {
    throw new PathError('A relay runs along a path: attach the rider first.');
  }
  if (!hasOwnPace(rider.attachment)) {
    throw new PathError(`${rider.badge} has the pace of another rider; make a relay of that one.`);
  }
  const { pace } = rider.attachment;
  const compiled = compilePace(pace, shot.fps, curve);
  const lap = () => driveSeconds(pace, curve, metresPerValue(pace, curve)) * shot.fps;
  const long = Number.isFinite(compiled.to - compiled.from)
    ? compiled.to - compiled.from
    : pace.mode === 'drive'
      ? lap()
      : 0;
  if (!(long > 0)) {
    throw new PathError(
      `${rider.badge} does not reach the end of its ride: add keys to the end, or choose Driven.`,
    );
  }
  const { first } = shot.range;
  const part = loopFrames ?? Math.max(1, Math.round(long / count));
  const frames = part * count;
  const begins = Number.isFinite(compiled.from) ? compiled.from : pace.start.frame;
  const rate = long / frames;
  const timed = timesAsFast(withFrames(pace, { from: begins, to: first, scale: 1 / rate }), rate);
  const leader: Rider = {
    ...rider,
    attachment: { ...rider.attachment, pace: { ...timed, before: 'repeat', after: 'repeat' } },
  };
  let riders = shot.riders.map((other) => (other === rider ? leader : other));
  const ids = [id];
  for (let j = 1; j < count; j++) {
    const copy = freeId(rider.name, riders);
    riders = [
      ...riders,
      {
        ...leader,
        id: copy,
        name: freeName(rider.name, riders),
        badge: freeBadge(rider.name, { riders }),
        attachment: leader.attachment && {
          ...leader.attachment,
          takes: [],
          pacedBy: { rider: id, delay: -j * part, rate: 1 },
        },
      },
    ];
    ids.push(copy);
  }
  const after: Shot = { ...shot, riders, loop: true, range: { first, last: first + part - 1 } };
  return { shot: after, ids, frames, rate };
}
