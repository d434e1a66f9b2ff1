import { modulo } from '../math/angle.js';
import type { Act, Gait } from '../document/shot-rider.js';
import {
  clipNamed,
  initialPose,
  type Clip,
  type NodeHierarchy,
  type HierarchyPose,
} from '../hierarchy/node-hierarchy.js';
import { cycleClip, sampleCycle, type CycleClip } from './in-place.js';
import { blendPoses, sampleClip } from './sample-clip.js';
import { idleSpanAt, idleWeightIn, idleSpansOf, type IdleSpan } from './idle-spans.js';

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
  /** How much of its standing clip it shows, 0 to 1. */
  idleWeight(frame: number): number;
  /** Poses the node hierarchy by its clips; the pose has to be at rest before. Null where the walk's clip is missing. */
  readonly pose: ((frame: number, pose: HierarchyPose) => void) | null;
  /** Which nodes the clips move. */
  readonly nodes: readonly number[];
}

/** So much before and after the range is looked at for idleSpans and stances, seconds. */
export const MARGIN_SECONDS = 3;

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
  const idle = hierarchy && clipNamed(hierarchy, gait.idle);
  const acts = actsOf(gait, hierarchy, idleSpans);
  const idleWeight = (frame: number) => {
    const i = idleSpanAt(idleSpans, frame);
    return i < 0 || !(acts[i] ?? idle) ? 0 : idleWeightIn(idleSpans[i], blend, frame);
  };
  const plain = { phase, rate, idleSpans, idleWeight };
  if (hierarchy === null || clip === null) return { ...plain, pose: null, nodes: [] };
  const walk = cycleClip(hierarchy, clip);
  const over = initialPose(hierarchy);
  const rest = initialPose(hierarchy);
  const clips = [clip, idle, ...acts.map((act) => act?.clip ?? null)].filter((one) => one !== null);
  return {
    ...plain,
    nodes: [...new Set(clips.flatMap(({ channels }) => channels.map(({ node }) => node)))],
    pose(frame, pose) {
      sampleCycle(walk, phase(frame), pose);
      const part = idleWeight(frame);
      if (part <= 0) return;
      over.locals.set(rest.locals);
      over.weights.forEach((weights, i) => weights.set(rest.weights[i]));
      const i = idleSpanAt(idleSpans, frame);
      poseStanding(acts[i], idle as Clip, idleSpans[i], { first, fps }, frame, over);
      blendPoses(pose, over, part);
    },
  };
}

interface ActClip {
  readonly act: Act;
  readonly clip: Clip;
  readonly cycle: CycleClip;
}

/** By stand what is done in it: acts are counted from the first time it comes to a stand. */
function actsOf(
  gait: Gait,
  hierarchy: NodeHierarchy | null,
  idleSpans: readonly IdleSpan[],
): (ActClip | null)[] {
  let stop = -1;
  return idleSpans.map(({ from }) => {
    if (from > -Infinity) stop++;
    const act = from > -Infinity ? gait.acts.find((other) => other.stop === stop) : undefined;
    const clip = act && hierarchy && clipNamed(hierarchy, act.clip);
    return act && clip ? { act, clip, cycle: cycleClip(hierarchy, clip) } : null;
  });
}

function poseStanding(
  act: ActClip | null,
  idle: Clip,
  { from, to }: IdleSpan,
  { first, fps }: { first: number; fps: number },
  frame: number,
  pose: HierarchyPose,
): void {
  const begun = Number.isFinite(from) ? from : Number.isFinite(to) ? to : first;
  const seconds = (frame - begun) / fps;
  if (act === null) {
    sampleClip(idle, wrapped(seconds, idle.seconds), pose);
    return;
  }
  const end = Math.min(act.act.to ?? act.clip.seconds, act.clip.seconds);
  const length = Math.max(1e-6, end - act.act.from);
  const whole = act.act.fit === 'stretch' && Number.isFinite(to);
  const gone = whole ? (length * (frame - from)) / (to - from) : wrapped(seconds, length);
  sampleClip(act.clip, act.act.from + gone, pose);
}

const wrapped = (value: number, size: number) => (size > 0 ? modulo(value, size) : 0);
