import type { Pace } from '../../document/shot-pace.js';
import type { Act, Rider } from '../../document/shot-rider.js';
import { ShotError } from '../../document/shot-error.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { hierarchyOfRider, type SceneAssets } from '../evaluate/scene-assets.js';
import { actSeconds } from '../../character/gait/stop-clips.js';
import { naturalStep, restingPhases } from '../../character/gait/resting-phases.js';
import type { PaceStop } from '../../motion/pace/compiled-pace.js';
import { compiledPaceOf } from '../../motion/pace/compiled-pace-of.js';
import { lengthenStop, moveStop } from '../../motion/pace/move-stop.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';
import { ownAxes } from '../../motion/ride/contact-points.js';
import { hasOwnPace } from '../../motion/timing/leader.js';
import { withAttachment } from './change-rider.js';

/** The stops of a walker's own timing, and what can be done with them; null is answered where that changes nothing. */
export interface WalkersStops {
  /** In the walker's own frames. */
  readonly list: readonly PaceStop[];
  /** The pace with a stop moved by some frames of travel, and from there to the nearest natural pose. */
  placed(stop: PaceStop, frames: number): Pace | null;
  /** The pace with a stop at the next natural pose on (1) or back (−1). */
  nextNatural(stop: PaceStop, way: number): Pace | null;
  /** The pace with a stop longer by some frames. */
  lengthened(stop: PaceStop, frames: number): Pace | null;
}

/** However slowly it comes in, a stop is drawn by this much of a stride a second. */
const SLOWEST = 0.3;
/** Tolerance of a natural stop, as a part of a cycle, and the steps of its search. */
const EXACT = 1e-7;
const STEPS = 12;

/**
 * Stops of a walker; its pose is natural if most of its feet are down. Null unless it walks by its own pace. A
 * snapshot: a drag continues from it.
 */
export function walkersStops(shot: Shot, assets: SceneAssets, rider: Rider): WalkersStops | null {
  const { gait, attachment } = rider;
  const path = curveRidden(shot, rider);
  if (gait === null || attachment === null || path === null || !hasOwnPace(attachment)) return null;
  const { fps } = shot;
  const { pace } = attachment;
  const run = compiledPaceOf(pace, fps, path);
  const stride = gait.stride * ownAxes(rider).scale[0];
  const phases = restingPhases(gait);
  /** The stop moved by a distance, and further by the distance of its phase from a natural one. */
  const naturalNear = (stop: PaceStop, metres: number): Pace | null => {
    const index = run.stops.indexOf(stop);
    let by = metres;
    let moved = moveStop(pace, stop, by, path);
    for (let step = 0; moved && phases.length > 0 && step < STEPS; step++) {
      const played = evaluateShot(withAttachment(shot, rider.id, withPace(moved)), assets);
      const off = naturalStep(phaseAtStop(played, rider.id, index), phases);
      if (Math.abs(off) < EXACT) break;
      by += off * stride;
      moved = moveStop(pace, stop, by, path);
    }
    return moved;
  };
  return {
    list: run.stops,
    placed(stop, frames) {
      // How fast it comes in over the second before.
      const came = Math.abs(run.distance(stop.from) - run.distance(stop.from - fps));
      return naturalNear(stop, (frames / fps) * Math.max(came, SLOWEST * stride));
    },
    nextNatural: (stop, way) => naturalNear(stop, (way * stride) / Math.max(1, phases.length)),
    lengthened: (stop, frames) => lengthenStop(pace, stop, frames, fps, path),
  };
}

/**
 * The shot with a walker's stop as long as its act.
 *
 * @throws ShotError where it makes no such stop by a timing of its own, or its model is not known
 */
export function stopAsLongAs(shot: Shot, assets: SceneAssets, riderId: string, act: Act): Shot {
  const i = shot.riders.findIndex(({ id }) => id === riderId);
  const rider = shot.riders[i];
  const stops = rider ? walkersStops(shot, assets, rider) : null;
  const stop = stops?.list[act.stop];
  const hierarchy = rider ? hierarchyOfRider(assets, rider) : null;
  if (!rider?.gait || !stops || !stop || !hierarchy)
    throw new ShotError(
      `riders[${i}].gait.acts`,
      `no stop ${act.stop + 1}`,
      'a stop of its own, to last as long',
    );
  const frames = actSeconds(rider.gait, hierarchy, act) * shot.fps - (stop.to - stop.from);
  const pace = stops.lengthened(stop, frames);
  return pace ? withAttachment(shot, riderId, withPace(pace)) : shot;
}

const withPace = (pace: Pace) => (attachment: NonNullable<Rider['attachment']>) => ({ ...attachment, pace });

/** The phase of a walk, in cycles, at one of its stops. */
function phaseAtStop(evaluated: EvaluatedShot, id: string, index: number): number {
  const rider = evaluated.shot.riders.find((other) => other.id === id) as Rider;
  const timing = evaluated.timing(rider);
  const phase = evaluated.gauges(rider).find(({ kind }) => kind === 'phase');
  const frame = timing?.stops[index]?.from ?? timing?.ownStops[index]?.from;
  return phase && frame !== undefined ? phase.value(frame) : 0;
}

/**
 * The shot with a walker's stops moved to natural poses, each as little as possible.
 *
 * @throws ShotError where its feet are not known, or it has no stop of its own
 */
export function naturalStops(shot: Shot, assets: SceneAssets, riderId: string): Shot {
  const i = shot.riders.findIndex(({ id }) => id === riderId);
  const at = `riders[${i}]`;
  const first = i < 0 ? null : walkersStops(shot, assets, shot.riders[i]);
  if (first === null)
    throw new ShotError(
      `${at}.gait`,
      'no walk of its own on a path',
      'a walker that rides a path by its own timing',
    );
  if (restingPhases(shot.riders[i].gait ?? { feet: [] }).length === 0)
    throw new ShotError(`${at}.gait.feet`, 'no feet', 'feet with stances, to stand on');
  if (first.list.length === 0) throw new ShotError(`${at}.attachment.pace`, 'no stop', 'a stop to move');
  let after = shot;
  // One after the other: where a stop lies, those after it begin elsewhere in their cycle.
  for (let k = 0; k < first.list.length; k++) {
    const stops = walkersStops(after, assets, after.riders[i]);
    const pace = stops && stops.list[k] ? stops.placed(stops.list[k], 0) : null;
    if (pace) after = withAttachment(after, riderId, withPace(pace));
  }
  return after;
}
