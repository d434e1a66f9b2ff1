import { aimedAt } from '../../document/rider-axes.js';
import { eachAction } from '../../document/each-action.js';
import { listenedTo, refuseCircles, ridersBehind } from '../../document/rider-graph.js';
import type { Cue } from '../../document/shot-cue.js';
import type { Chassis, Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import type { PathError } from '../../geometry/path/path-error.js';
import type { Motion } from '../../motion/pace/compiled-pace.js';
import { cachedFor } from '../../geometry/math/cached-for.js';
import { POSE } from '../../motion/pose/pose.js';
import type { Spray } from '../../effects/spray/spray.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { wholeRetiming, wholeRetimeStep, type Retiming } from '../../motion/timing/retiming.js';
import type { PoseAt } from '../../motion/pose/pose.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import type { Cut } from '../../document/shot-camera.js';
import { cuedClips, cuedParts, cuedShow, cueValue } from './cue-values.js';
import { cutsWithCues } from './cued-cuts.js';
import { NO_PARTS, type MovedParts } from '../../character/hierarchy/node-driver.js';
import { compileAxleDistances, type AxleDistances } from '../../motion/ride/axle-distances.js';
import type { TargetAt } from '../../motion/ride/aiming.js';
import { groundItself, groundWithDressing } from '../../effects/dressing/dressing-ground.js';
import { placedDressings, type PlacedDressing } from '../../effects/dressing/placed-dressings.js';
import { frozenParts } from './frozen.js';
import { sprayOf } from './emitted.js';
import { gaugesOf, type Gauge } from './gauges.js';
import { compileMovedParts } from './moved-parts.js';
import { compileContact, sidewaysOf, type RiderContact } from './rider-contact.js';
import { riderTiming, type RiderTiming } from './rider-timing.js';
import { Rides } from './rides.js';
import { hierarchyOfRider, type SceneAssets } from './scene-assets.js';

/** A shot whose paths and riders answer questions at any frame. */
export interface EvaluatedShot {
  readonly shot: Shot;
  /** Assets it is played with; ground dressing is part of the ground. */
  readonly assets: SceneAssets;
  /** Dressing along paths. */
  dressings(): PlacedDressing[];
  /** By path id: the curve, or why there is none. */
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  /** In the order of the document's riders. */
  readonly poses: readonly PoseAt[];
  /** The time of everything, where the shot bends it. */
  readonly retiming: Retiming | null;
  /** The curve a rider rides, with those it turns out to; null where it rides none. */
  ridden(rider: Rider): CompiledPath | null;
  /** A rider's place along its path, in the time of the work; null where it rides none. */
  motion(rider: Rider): Motion | null;
  /** Timing of a rider by its own pace, and the frames of the shot that show it; null if it is not attached. */
  timing(rider: Rider): RiderTiming | null;
  /** A rider's axles and couplings, metres of the world. */
  axles(rider: Rider): Chassis | null;
  /**
   * Writes the distances of a rider's origin and axles along its path at a frame of the shot; null if it is held by
   * its origin, or has no axles.
   */
  axleDistances(rider: Rider): ((frame: number, out: AxleDistances) => void) | null;
  /** The sideways acceleration of a rider's own track, m/s², positive to the left, at a frame of the shot. */
  sideways(rider: Rider): (frame: number) => number;
  /** Moved parts of a rider's model. */
  parts(rider: Rider): MovedParts;
  /** All that a rider sprays, by seconds of the work; null where it sprays nothing. */
  spray(rider: Rider): Spray | null;
  /** The second of the work, from the range's first frame on, that a frame of the shot shows. */
  workSeconds(frame: number): number;
  /**
   * Simulates dynamic riders, a frame a step, and yields the part that is done. If not called, it runs when the first
   * of it is asked for.
   */
  settle(): Generator<number, void, undefined>;
  /** Gauges of a rider beside its pose. */
  gauges(rider: Rider): readonly Gauge[];
  /** In a loop, by how much each part that swings is turned otherwise after the last frame than at the first, radians. */
  swingGaps(rider: Rider): readonly { readonly node: string; readonly gap: number }[];
  /** How a rider meets the ground, in the time of the work. */
  contact(rider: Rider): RiderContact;
  /** Writes how far a rider is led away from what it keeps clear of, metres, at a frame of the shot; null where of nothing. */
  away(rider: Rider): TargetAt | null;
  /** Writes the place that a rider aims at, at a frame of the shot; null where it aims at none. */
  target(rider: Rider): TargetAt | null;
  /** Whether a rider is seen at a frame of the shot; null where no cue ever shows or hides it. */
  shows(rider: Rider): ((frame: number) => boolean) | null;
  /** From which frame of the shot on which camera is looked through, with what cues cut to. */
  cuts(): readonly Cut[];
  /** Value of a cue at a frame of the work. */
  cue(cue: Cue): (frame: number) => number;
  /** The frame of the work at which a cue acts that waits for its moment; null where it does not come. */
  moment(cue: Cue): number | null;
}

/**
 * Compiles what the document describes; a path without a curve leaves its riders at rest.
 *
 * @param given what it is played with, besides the document: where there is none of it, nothing of a model moves by itself and
 *   riders keep the height of their paths
 * @throws ShotError where riders wait for each other in a circle, with their names
 */
export function evaluateShot(shot: Shot, given: SceneAssets): EvaluatedShot {
  refuseCircles(shot);
  const itself = groundItself(given.ground);
  const ground = groundWithDressing(shot, itself);
  const assets = ground === given.ground ? given : { ...given, ground };
  const rides = new Rides(shot, assets);
  const retiming = wholeRetiming(shot);
  const source = (frame: number) => (retiming === null ? frame : retiming.source(frame));
  // A ride is compiled when it is first asked for: an edit of one rider costs that one.
  const poses = shot.riders.map((rider): PoseAt => {
    let built: PoseAt | null = null;
    return (frame, out, at) => {
      built ??= rides.pose(rider);
      if (retiming === null) return built(frame, out, at);
      built(retiming.source(frame), out, at);
      out[at + POSE.speed] *= retiming.rate(frame);
    };
  });
  // A dynamic ball does not roll by its distance as well.
  const rolling = cachedFor((rider: Rider): Rider =>
    rides.forced(rider) === null ? rider : { ...rider, wheels: [], ball: null },
  );
  const contact = cachedFor((rider: Rider) =>
    compileContact(rolling(rider), {
      shot,
      assets,
      motion: rides.motion(rider),
      chassis: rides.chassis(rider),
      groundFit: rides.groundFit(rider),
      own: rides.own(rider),
      hierarchy: hierarchyOfRider(assets, rider),
    }),
  );
  // In the time of the work, which sprays use.
  const workParts = cachedFor((rider: Rider): MovedParts => {
    const hierarchy = hierarchyOfRider(assets, rider);
    if (hierarchy !== null && rider.frozen !== null) return frozenParts(rider, rider.frozen, hierarchy);
    const cued = {
      parts: cuedParts(shot, rider, rides.sources),
      clips: (nodes: NodeHierarchy) => cuedClips(shot, rider, nodes, rides.sources),
    };
    if (hierarchy === null) return NO_PARTS;
    const moves = movesByItself(rolling(rider)) || rides.hanging(rider) !== null;
    if (cued.parts.length === 0 && !moves && !playsOnCue(shot, rider)) return NO_PARTS;
    return compileMovedParts(
      rolling(rider),
      hierarchy,
      contact(rider),
      { ...cued, hanging: rides.hanging(rider)?.drivers() ?? [] },
      rides.pose(rider),
    );
  });
  const parts = cachedFor((rider: Rider): MovedParts => {
    const moved = workParts(rider);
    if (retiming === null || moved === NO_PARTS) return moved;
    return { ...moved, pose: (frame, out, at) => moved.pose(source(frame), out, at) };
  });
  const spray = cachedFor((rider: Rider): Spray | null => {
    if (rider.emitter === null) return null;
    return sprayOf(shot, rider, rider.emitter, {
      pose: rides.pose(rider),
      parts: workParts(rider),
      hierarchy: hierarchyOfRider(assets, rider),
      shows: cuedShow(shot, rider, rides.sources),
      moment: (id) => rides.sources.momentOf(id),
    });
  });
  const gauges = cachedFor((rider: Rider): readonly Gauge[] => {
    if (rider.frozen !== null) return [];
    const cued = cuedParts(shot, rider, rides.sources);
    const forced = rides.forced(rider);
    if (cued.length === 0 && !movesByItself(rider) && forced === null) return [];
    return gaugesOf(rolling(rider), contact(rider), cued, forced?.lag(rider) ?? null).map(
      ({ kind, part, value }) => ({
        kind,
        part,
        value: (frame) => value(source(frame)),
      }),
    );
  });
  const timing = cachedFor((rider: Rider): RiderTiming | null => {
    const own = rides.timing(rider);
    if (own === null) return null;
    return riderTiming(own.begins, own.ownStops, [...own.steps, ...wholeRetimeStep(shot)], shot.range);
  });
  return {
    shot,
    assets,
    dressings: () => placedDressings(shot, itself),
    paths: rides.paths,
    poses,
    parts,
    spray,
    settle: () => rides.settle(),
    workSeconds: (frame) => (source(frame) - shot.range.first) / shot.fps,
    gauges,
    retiming,
    swingGaps: (rider) =>
      rides.hanging(rider)?.gaps(source(shot.range.last + 1), source(shot.range.first)) ?? [],
    contact,
    ridden: (rider) => rides.ridden(rider),
    motion: (rider) => rides.motion(rider)?.pace ?? null,
    timing,
    axles: (rider) => rides.axles(rider),
    axleDistances: (rider) => {
      const [motion, chassis] = [rides.motion(rider), rides.axles(rider)];
      if (motion === null || chassis === null || rider.frozen !== null) return null;
      if (rider.attachment === null || rider.attachment.anchor === 'origin') return null;
      const places = compileAxleDistances(motion, chassis);
      return (frame, out) => places(source(frame), out);
    },
    sideways: (rider) => {
      const push = sidewaysOf(rider, rides.motion(rider), shot.fps);
      const rate = (frame: number) => retiming?.rate(frame) ?? 1;
      // A retime of everything multiplies speeds by its rate, and accelerations by its square.
      return (frame) => push(source(frame)) * rate(frame) ** 2;
    },
    away(rider) {
      const away = rides.away(rider);
      return away && ((frame, out) => away(source(frame), out));
    },
    target(rider) {
      const aimed = rides.target(aimedAt(rider));
      return aimed && ((frame, out) => aimed(source(frame), out));
    },
    shows(rider) {
      const seen = cuedShow(shot, rider, rides.sources);
      return seen && ((frame) => seen(source(frame)));
    },
    cuts() {
      const { shown } = mapFrames(wholeRetimeStep(shot), shot.range);
      return cutsWithCues(shot, (cue) => {
        const at = rides.moment(cue);
        return at === null ? null : shown(at);
      });
    },
    cue: (cue) => cueValue(cue, rides.sources),
    moment: (cue) => rides.moment(cue),
  };
}

/** Whether a rider has anything that moves of its model by itself, but for what cues do to it. */
export function movesByItself({ wheels, body, steering, gait, cycles, clips, ball }: Rider): boolean {
  return (
    wheels.length + cycles.length + clips.length > 0 ||
    body.node !== null ||
    steering.node !== null ||
    gait !== null ||
    ball !== null
  );
}

/** Whether a cue plays a clip of a rider's model. */
function playsOnCue({ cues }: Pick<Shot, 'cues'>, rider: Rider): boolean {
  return eachAction(cues).some(
    ({ action, off }) => !off && action.kind === 'play' && action.rider === rider.id,
  );
}

/** Whether a rider's place can change over time: it rides, is held by hand, or what carries it does. */
export function isMoving(shot: Shot, rider: Rider): boolean {
  const { attachment, shake, frozen, restAim, transformKeys, follow, parentKeys, rigidBody } = rider;
  if (rigidBody !== null || attachment !== null || shake !== null || frozen !== null || follow !== null)
    return true;
  if (restAim !== null || parentKeys.length > 0 || (transformKeys?.keys.length ?? 0) > 1) return true;
  const parent = shot.riders.find((other) => other.id === rider.parent);
  return parent !== undefined && isMoving(shot, parent);
}

/** A rider and all that its pose follows from, each once; riders are found by id. */
export function withRidersBehind(
  byId: ReadonlyMap<string, Rider>,
  cues: readonly Cue[],
  rider: Rider,
): Rider[] {
  const found = new Set([rider]);
  for (const next of found) {
    // A rider that moves a part of it is behind it as well, though not behind its pose.
    const cued = eachAction(cues)
      .filter(({ action }) => action.rider === next.id)
      .flatMap((cue) => listenedTo(cue, cues));
    for (const id of [...ridersBehind(next, cues), ...cued]) {
      const other = byId.get(id);
      if (other) found.add(other);
    }
  }
  return [...found];
}
