import type { Shot } from '../document/shot.js';
import { ShotError } from '../document/shot-error.js';
import { compiledPaceOf } from '../evaluate/compiled-pace-of.js';
import { curveRidden } from '../evaluate/compiled-path-of.js';
import { restingPhases } from '../gait/resting-phases.js';
import { moveStop } from '../pace/move-stop.js';
import { ownAxes } from '../rider/contact-points.js';
import { withHitch } from './change-rider.js';

/**
 * The shot with a walker's stops moved to where it naturally stands, each by the least: where the most of its feet are down.
 *
 * @throws ShotError where its feet are not known, or it has no stop of its own
 */
export function restStops(shot: Shot, riderId: string): Shot {
  const rider = shot.riders.find(({ id }) => id === riderId);
  const path = rider ? curveRidden(shot, rider) : null;
  const at = `riders[${shot.riders.findIndex(({ id }) => id === riderId)}]`;
  if (!rider?.hitch || path === null || rider.gait === null)
    throw new ShotError(`${at}.gait`, 'no walk on a path', 'a walker that rides a path');
  const phases = restingPhases(rider.gait);
  if (phases.length === 0)
    throw new ShotError(`${at}.gait.feet`, 'no feet', 'feet with stances, to stand on');
  const { gait, hitch } = rider;
  const { halts } = compiledPaceOf(hitch.pace, shot.fps, path);
  if (halts.length === 0) throw new ShotError(`${at}.hitch.pace`, 'no stop', 'a stop to move');
  const stride = gait.stride * ownAxes(rider).scale[0];
  const pace = halts.reduce((before, halt) => {
    const phase = gait.phase + (halt.distance + hitch.offset.along) / stride;
    const by = nearestStep(phase, phases) * stride;
    return moveStop(before, halt, by, path) ?? before;
  }, hitch.pace);
  return withHitch(shot, riderId, (own) => ({ ...own, pace }));
}

/** From a phase to the nearest of some, in whatever cycle; cycles. */
export function nearestStep(phase: number, phases: readonly number[]): number {
  const steps = phases.map((rest) => rest - phase - Math.round(rest - phase));
  return steps.reduce((best, step) => (Math.abs(step) < Math.abs(best) ? step : best), steps[0] ?? 0);
}
