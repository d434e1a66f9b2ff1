import type { Gait } from '../../document/shot-rider.js';
import { clipNamed, initialPose, type Clip, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { idleSpanAt, idleSpansOf, idleWeightIn, type IdleSpan } from './idle-spans.js';
import { cycleClip } from './in-place.js';
import { restingPhases } from './resting-phases.js';
import { stopsOf } from './stop-clips.js';
import { WalkPoses } from './walk-poses.js';

/** Inputs of a gait. */
export interface WalkRide {
  readonly first: number;
  readonly last: number;
  readonly fps: number;
  /** Metres gone ahead of the walker's own front since the start of its path, over the ground. */
  travelled(frame: number): number;
  /** Metres a second of the same. */
  speed(frame: number): number;
  /** How much larger the walker is than its model, along its front. */
  readonly scale: number;
}

/** A walker before its feet are planted. */
export interface WalkPhase {
  /** Cycles since the start of its path, with where the gait begins. */
  phase(frame: number): number;
  /** Cycles a second, negative walking backward. */
  rate(frame: number): number;
  readonly idleSpans: readonly IdleSpan[];
  /** Weight of the idle clip, 0 to 1. */
  idleWeight(frame: number): number;
  /** Null where the clip of its walk is missing. */
  readonly posed: PosedWalk | null;
}

/** How a walker's clips pose it. */
export interface PosedWalk {
  /** That of its walk. */
  readonly clip: Clip;
  /** All of it, or some nodes alone. */
  posesOf(only: ReadonlySet<number> | null): WalkPoses;
}

/** Seconds before and after the range that are searched for idle spans and stances. */
export const MARGIN_SECONDS = 3;

/** A stop that is shorter than this is a pause in the walk: nothing else is shown in it, seconds. */
const SHORTEST_STAND = 0.4;

/** Phase by distance; idle spans by speed; clips over each other. A node hierarchy that is not known is not posed. */
export function compileWalkPhase(gait: Gait, hierarchy: NodeHierarchy | null, ride: WalkRide): WalkPhase {
  const { fps, first, last } = ride;
  const stride = gait.stride * ride.scale;
  const phase = (frame: number) => gait.phase + ride.travelled(frame) / stride;
  const rate = (frame: number) => ride.speed(frame) / stride;
  const margin = MARGIN_SECONDS * fps;
  // A walker that walks from the first frame on did not stop before: it is shown under way.
  const idleSpans = idleSpansOf(rate, {
    from: Math.floor(first - margin),
    to: Math.ceil(last + margin),
    fps,
  }).filter(({ from, to }) => to > first && from < last);
  const blend = gait.blend * fps;
  const clip = hierarchy && clipNamed(hierarchy, gait.clip);
  if (hierarchy === null || clip === null)
    return { phase, rate, idleSpans, idleWeight: () => 0, posed: null };
  const clips = { walk: cycleClip(hierarchy, clip), stops: stopsOf(gait, hierarchy, idleSpans) };
  const phases = restingPhases(gait);
  const idleWeight = (frame: number) => {
    const i = idleSpanAt(idleSpans, frame);
    if (i < 0 || idleSpans[i].to - idleSpans[i].from < SHORTEST_STAND * fps) return 0;
    // Without anything to show, and without feet to know a natural pose by, it waits as it came.
    const { act, idle } = clips.stops[i];
    return (act ?? idle ?? phases.length > 0) ? idleWeightIn(idleSpans[i], blend, frame) : 0;
  };
  const timing = { first, fps, phase, idleSpans, idleWeight, restingPhases: phases };
  const buffers = { over: initialPose(hierarchy), rest: initialPose(hierarchy) };
  const posesOf = (only: ReadonlySet<number> | null) => new WalkPoses(clips, timing, buffers, only);
  return { phase, rate, idleSpans, idleWeight, posed: { clip, posesOf } };
}
