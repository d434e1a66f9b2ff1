import type { Act, Gait } from '../document/shot-rider.js';
import { clipNamed, restPose, type Clip, type Puppet, type PuppetPose } from '../puppet/puppet.js';
import { cycleClip, sampleCycle, type CycleClip } from './in-place.js';
import { blendPoses, sampleClip } from './sample-clip.js';
import { standAt, standWeight, standsOf, type Stand } from './stands.js';

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
  readonly stands: readonly Stand[];
  /** How much of its standing clip it shows, 0 to 1. */
  standing(frame: number): number;
  /** Poses the puppet by its clips; the pose has to be at rest before. Null where the walk's clip is missing. */
  readonly pose: ((frame: number, pose: PuppetPose) => void) | null;
  /** Which nodes the clips move. */
  readonly nodes: readonly number[];
}

/** So much before and after the range is looked at for stands and stances, seconds. */
export const MARGIN_SECONDS = 3;

/** Phase by distance; stands by speed; clips over each other. A puppet that is not known is not posed. */
export function compileFreeWalk(gait: Gait, puppet: Puppet | null, ride: WalkRide): FreeWalk {
  const { fps, first, last } = ride;
  const stride = gait.stride * ride.scale;
  const phase = (frame: number) => gait.phase + ride.travelled(frame) / stride;
  const rate = (frame: number) => ride.speed(frame) / stride;
  const margin = MARGIN_SECONDS * fps;
  // One that walks from the first frame on has not stood before: it is seen on its way.
  const stands = standsOf(rate, {
    from: Math.floor(first - margin),
    to: Math.ceil(last + margin),
    fps,
  }).filter(({ from, to }) => to > first && from < last);
  const blend = gait.blend * fps;
  const clip = puppet && clipNamed(puppet, gait.clip);
  const idle = puppet && clipNamed(puppet, gait.idle);
  const acts = actsOf(gait, puppet, stands);
  const standing = (frame: number) => {
    const i = standAt(stands, frame);
    return i < 0 || !(acts[i] ?? idle) ? 0 : standWeight(stands[i], blend, frame);
  };
  const plain = { phase, rate, stands, standing };
  if (puppet === null || clip === null) return { ...plain, pose: null, nodes: [] };
  const walk = cycleClip(puppet, clip);
  const over = restPose(puppet);
  const rest = restPose(puppet);
  const clips = [clip, idle, ...acts.map((act) => act?.clip ?? null)].filter((one) => one !== null);
  return {
    ...plain,
    nodes: [...new Set(clips.flatMap(({ channels }) => channels.map(({ node }) => node)))],
    pose(frame, pose) {
      sampleCycle(walk, phase(frame), pose);
      const part = standing(frame);
      if (part <= 0) return;
      over.locals.set(rest.locals);
      over.weights.forEach((weights, i) => weights.set(rest.weights[i]));
      const i = standAt(stands, frame);
      poseStanding(acts[i], idle as Clip, stands[i], { first, fps }, frame, over);
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
function actsOf(gait: Gait, puppet: Puppet | null, stands: readonly Stand[]): (ActClip | null)[] {
  let stop = -1;
  return stands.map(({ from }) => {
    if (from > -Infinity) stop++;
    const act = from > -Infinity ? gait.acts.find((other) => other.stop === stop) : undefined;
    const clip = act && puppet && clipNamed(puppet, act.clip);
    return act && clip ? { act, clip, cycle: cycleClip(puppet, clip) } : null;
  });
}

function poseStanding(
  act: ActClip | null,
  idle: Clip,
  { from, to }: Stand,
  { first, fps }: { first: number; fps: number },
  frame: number,
  pose: PuppetPose,
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

const wrapped = (value: number, size: number) => (size > 0 ? ((value % size) + size) % size : 0);
