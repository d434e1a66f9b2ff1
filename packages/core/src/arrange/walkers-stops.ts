import type { Pace } from '../document/shot-pace.js';
import type { Rider } from '../document/shot-rider.js';
import { ShotError } from '../document/shot-error.js';
import type { Shot } from '../document/shot.js';
import { compiledPaceOf } from '../pace/compiled-pace-of.js';
import { curveRidden } from '../path/compiled-path-of.js';
import { restingPhases } from '../gait/resting-phases.js';
import type { PaceStop } from '../pace/compiled-pace.js';
import { lengthenStop, moveStop } from '../pace/move-stop.js';
import { ownAxes } from '../ride/contact-points.js';
import { withHitch } from './change-rider.js';

/** The stops of a walker's own timing, and what can be done with them; null is answered where that changes nothing. */
export interface WalkersStops {
  readonly list: readonly PaceStop[];
  /** The pace with a stop so many frames further along its way in, and from there to the nearest rest. */
  placed(stop: PaceStop, frames: number): Pace | null;
  /** The pace with a stop at the next rest on (1) or back (−1). */
  nextRest(stop: PaceStop, way: number): Pace | null;
  /** The pace with a stop so many frames longer. */
  lengthened(stop: PaceStop, frames: number): Pace | null;
}

/** However slowly it comes in, a stop is drawn by this much of a stride a second. */
const SLOWEST = 0.3;

/**
 * A walker's stops; it rests where the most of its feet are down. Null where it does not walk by a timing of its own. As it is
 * when asked for: a drag goes on from there.
 */
export function walkersStops(shot: Shot, rider: Rider): WalkersStops | null {
  const { gait, hitch } = rider;
  const path = curveRidden(shot, rider);
  if (gait === null || hitch === null || path === null || hitch.follows || hitch.pacedBy) return null;
  const { fps } = shot;
  const { pace, offset } = hitch;
  const run = compiledPaceOf(pace, fps, path);
  const stride = gait.stride * ownAxes(rider).scale[0];
  const phases = restingPhases(gait);
  const restNear = (stop: PaceStop, metres: number) => {
    const phase = gait.phase + (stop.distance + metres + offset.along) / stride;
    const step = phases.length > 0 ? nearestStep(phase, phases) : 0;
    return moveStop(pace, stop, metres + step * stride, path);
  };
  return {
    list: run.stops,
    placed(stop, frames) {
      // How fast it comes in over the second before.
      const came = Math.abs(run.distance(stop.from) - run.distance(stop.from - fps));
      return restNear(stop, (frames / fps) * Math.max(came, SLOWEST * stride));
    },
    nextRest: (stop, way) => restNear(stop, (way * stride) / Math.max(1, phases.length)),
    lengthened: (stop, frames) => lengthenStop(pace, stop, frames, fps, path),
  };
}

/**
 * The shot with a walker's stops moved to where it naturally stands, each by the least.
 *
 * @throws ShotError where its feet are not known, or it has no stop of its own
 */
export function restStops(shot: Shot, riderId: string): Shot {
  const i = shot.riders.findIndex(({ id }) => id === riderId);
  const at = `riders[${i}]`;
  const first = i < 0 ? null : walkersStops(shot, shot.riders[i]);
  if (first === null)
    throw new ShotError(
      `${at}.gait`,
      'no walk of its own on a path',
      'a walker that rides a path by its own timing',
    );
  if (restingPhases(shot.riders[i].gait ?? { feet: [] }).length === 0)
    throw new ShotError(`${at}.gait.feet`, 'no feet', 'feet with stances, to stand on');
  if (first.list.length === 0) throw new ShotError(`${at}.hitch.pace`, 'no stop', 'a stop to move');
  return first.list.reduce((before, stop) => {
    const pace = walkersStops(before, before.riders[i])?.placed(stop, 0);
    return pace ? withHitch(before, riderId, (own) => ({ ...own, pace })) : before;
  }, shot);
}

/** From a phase to the nearest of some, in whatever cycle; cycles. */
function nearestStep(phase: number, phases: readonly number[]): number {
  const steps = phases.map((rest) => rest - phase - Math.round(rest - phase));
  return steps.reduce((best, step) => (Math.abs(step) < Math.abs(best) ? step : best), steps[0] ?? 0);
}
