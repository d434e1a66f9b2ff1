import type { Gait } from '../document/shot-rider.js';
import {
  clipNamed,
  initialPose,
  type HierarchyPose,
  type NodeHierarchy,
} from '../hierarchy/node-hierarchy.js';
import { idleSpanAt, idleSpansOf, idleWeightIn, type IdleSpan } from './idle-spans.js';
import { cycleClip, sampleCycle } from './in-place.js';
import { naturalPhase, restingPhases } from './resting-phases.js';
import { blendPoses } from './sample-clip.js';
import { clipsOf, poseStop, stopsOf } from './stop-clips.js';

/** What a gait goes by. */
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
export interface FreeWalk {
  /** Cycles since the start of its path, with where the gait begins. */
  phase(frame: number): number;
  /** Cycles a second, negative walking backward. */
  rate(frame: number): number;
  readonly idleSpans: readonly IdleSpan[];
  /** How much of what it does while it stands it shows, 0 to 1. */
  idleWeight(frame: number): number;
  /** Poses the node hierarchy by its clips; the pose has to be at rest before. Null where the walk's clip is missing. */
  readonly pose: ((frame: number, pose: HierarchyPose) => void) | null;
  /** The same by what it does while it stands alone; and by the walk alone at a phase. */
  atPhase(phase: number, pose: HierarchyPose): void;
  standing(frame: number, pose: HierarchyPose): void;
  /** Which nodes the clips move. */
  readonly nodes: readonly number[];
}

/** So much before and after the range is looked at for idle spans and stances, seconds. */
export const MARGIN_SECONDS = 3;

/** A stop that is shorter than this is a pause in the walk: nothing else is shown in it, seconds. */
const SHORTEST_STAND = 0.4;

/** Phase by distance; idle spans by speed; clips over each other. A node hierarchy that is not known is not posed. */
export function compileFreeWalk(gait: Gait, hierarchy: NodeHierarchy | null, ride: WalkRide): FreeWalk {
  const { fps, first, last } = ride;
  const stride = gait.stride * ride.scale;
  const phase = (frame: number) => gait.phase + ride.travelled(frame) / stride;
  const rate = (frame: number) => ride.speed(frame) / stride;
  const margin = MARGIN_SECONDS * fps;
  // One that walks from the first frame on has not stood before: it is seen on its way.
  const idleSpans = idleSpansOf(rate, {
    from: Math.floor(first - margin),
    to: Math.ceil(last + margin),
    fps,
  }).filter(({ from, to }) => to > first && from < last);
  const blend = gait.blend * fps;
  const clip = hierarchy && clipNamed(hierarchy, gait.clip);
  if (hierarchy === null || clip === null) {
    const nothing = () => undefined;
    const idleWeight = () => 0;
    return { phase, rate, idleSpans, idleWeight, pose: null, atPhase: nothing, standing: nothing, nodes: [] };
  }
  const walk = cycleClip(hierarchy, clip);
  const stops = stopsOf(gait, hierarchy, idleSpans);
  const phases = restingPhases(gait);
  const idleWeight = (frame: number) => {
    const i = idleSpanAt(idleSpans, frame);
    const { from, to } = idleSpans[Math.max(0, i)] ?? { from: 0, to: 0 };
    if (to - from < SHORTEST_STAND * fps) return 0;
    // Without anything to show, and without feet to know a natural pose by, it waits as it came.
    if (i < 0 || !(stops[i].act ?? stops[i].idle ?? phases.length > 0)) return 0;
    return idleWeightIn(idleSpans[i], blend, frame);
  };
  const atPhase = (at: number, pose: HierarchyPose) => sampleCycle(walk, at, pose);
  const standing = (frame: number, pose: HierarchyPose) => {
    const i = idleSpanAt(idleSpans, frame);
    if (i < 0) return;
    if (!poseStop(stops[i], idleSpans[i], { first, fps }, frame, pose))
      atPhase(naturalPhase(phase(frame), phases), pose);
  };
  const over = initialPose(hierarchy);
  const rest = initialPose(hierarchy);
  const clips = [clip, ...stops.flatMap(clipsOf)];
  return {
    phase,
    rate,
    idleSpans,
    idleWeight,
    atPhase,
    standing,
    nodes: [...new Set(clips.flatMap(({ channels }) => channels.map(({ node }) => node)))],
    pose(frame, pose) {
      const part = idleWeight(frame);
      atPhase(phase(frame), pose);
      if (part <= 0) return;
      over.locals.set(rest.locals);
      over.weights.forEach((weights, i) => weights.set(rest.weights[i]));
      standing(frame, over);
      blendPoses(pose, over, part);
    },
  };
}
