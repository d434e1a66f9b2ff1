import { refuseCircles, ridersBehind } from '../document/rider-graph.js';
import type { Cue } from '../document/shot-cue.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import type { CompiledPath } from '../path/compiled-path.js';
import type { PathError } from '../path/path-error.js';
import type { Halt, Motion } from '../pace/compiled-pace.js';
import { POSE } from '../rider/pose.js';
import type { PartMotion } from '../rider/part-motion.js';
import { wholeRetiming, type Retiming } from '../rider/retiming.js';
import type { PoseAt } from '../rider/ride-path.js';
import { Rides } from './rides.js';

/** A shot whose paths and riders answer questions at any frame. */
export interface EvaluatedShot {
  readonly shot: Shot;
  /** By path id: the curve, or why there is none. */
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  /** In the order of the document's riders. */
  readonly poses: readonly PoseAt[];
  /** In the same order: what moves of each rider's model by itself. */
  readonly parts: readonly (readonly PartMotion[])[];
  /** The time of everything, where the shot bends it. */
  readonly retiming: Retiming | null;
  /** A rider's place along its path, in the time of the work; null where it rides none. */
  motion(rider: Rider): Motion | null;
  /** The stops of a rider's own timing, before any cue. */
  ownHalts(rider: Rider): readonly Halt[];
  /** The frame of the work at which a cue acts that waits for its moment; null where it does not come. */
  moment(cue: Cue): number | null;
}

/**
 * Compiles what the document describes; a path without a curve leaves its riders at rest.
 *
 * @throws ShotError where riders wait for each other in a circle, with their names
 */
export function evaluateShot(shot: Shot): EvaluatedShot {
  refuseCircles(shot);
  const rides = new Rides(shot);
  const retiming = wholeRetiming(shot);
  // A ride is compiled when it is first asked for: an edit of one rider costs that one.
  const poses = shot.riders.map((rider): PoseAt => {
    let made: PoseAt | null = null;
    return (frame, out, at) => {
      made ??= rides.pose(rider);
      if (retiming === null) return made(frame, out, at);
      made(retiming.source(frame), out, at);
      out[at + POSE.speed] *= retiming.rate(frame);
    };
  });
  const parts = shot.riders.map((rider) =>
    rides
      .parts(rider)
      .map((part): PartMotion =>
        retiming ? { ...part, value: (frame) => part.value(retiming.source(frame)) } : part,
      ),
  );
  return {
    shot,
    paths: rides.paths,
    poses,
    parts,
    retiming,
    motion: (rider) => rides.course(rider)?.pace ?? null,
    ownHalts: (rider) => rides.ownPace(rider)?.halts ?? [],
    moment: (cue) => rides.moment(cue),
  };
}

/** Whether a rider's place can change over time: it rides, or what carries it does. */
export function isMoving(shot: Shot, rider: Rider): boolean {
  if (rider.hitch !== null) return true;
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
    // What moves a part of it is behind it as well, though not behind its pose.
    const cued = cues.filter(({ does }) => does.rider === next.id).flatMap(({ on }) => [on.rider, on.other]);
    for (const id of [...ridersBehind(next, cues), ...cued.filter((other) => other !== null)]) {
      const other = byId.get(id);
      if (other) found.add(other);
    }
  }
  return [...found];
}
