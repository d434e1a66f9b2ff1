import type { Cut } from '../../document/shot-camera.js';
import type { Shot } from '../../document/shot.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { PlacedDressing } from '../../effects/dressing/placed-dressings.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';
import type { Spray } from '../../effects/spray/spray.js';
import { betweenFrames, type PartBetween } from './between-frames.js';
import { sampleParts, takeShortWay, type SampledParts } from './sampled-parts.js';

/** Sampled part of a shot; a field left out means all. */
export interface SampleChoice {
  /** Ids of riders. */
  readonly riders?: ReadonlySet<string> | null;
  /** The frames, both included; they are kept within the range. */
  readonly first?: number | null;
  readonly last?: number | null;
  /** One more frame, equal to the first, with which a loop closes. */
  readonly closing?: boolean;
  /** Whether fast wheels are sampled between frames too. */
  readonly between?: boolean;
}

/** Riders' poses at every frame of a range: {@link POSE}.size numbers a frame. */
export interface SampledShot {
  /** With the riders that were sampled alone. */
  readonly shot: Shot;
  readonly first: number;
  readonly frames: number;
  /** Whether the last frame is the first again. */
  readonly closing: boolean;
  /** In the order of the document's riders. */
  readonly riders: readonly Float64Array[];
  /** In the same order what moves of each rider's model by itself. */
  readonly parts: readonly SampledParts[];
  /** Its parts that turn too fast for whole frames. */
  readonly between: readonly (readonly PartBetween[])[];
  /** And whether it is seen, by frame; null for a rider that always is. */
  readonly shown: readonly (readonly boolean[] | null)[];
  /** From which frame on which camera is looked through, with what cues cut to. */
  readonly cuts: readonly Cut[];
  /** Dressing along paths; it does not move. */
  readonly dressings: readonly PlacedDressing[];
  /** In the order of the riders what each sprays; null for those that spray nothing. */
  readonly sprays: readonly (Spray | null)[];
  /** By frame which second of the sprays is shown. */
  readonly seconds: Float64Array;
}

/** Samples a shot, or a part of it, at whole frames. */
export function sampleShot(evaluated: EvaluatedShot, choice: SampleChoice = {}): SampledShot {
  const { first, last } = sampledRange(evaluated.shot, choice);
  const chosen = withRiders(evaluated, choice.riders ?? null);
  const plain = sampleBlock(chosen, first, last - first + 1);
  const sampled = choice.closing ? closed(chosen, plain) : plain;
  const between = choice.between ? betweenFrames(chosen, sampled) : sampled.between;
  return { ...sampled, between };
}

/** The frames that are chosen, within those there are. */
export function sampledRange(
  { range }: Shot,
  { first, last }: SampleChoice,
): { first: number; last: number } {
  const from = Math.min(range.last, Math.max(range.first, first ?? range.first));
  return { first: from, last: Math.max(from, Math.min(range.last, last ?? range.last)) };
}

function withRiders(evaluated: EvaluatedShot, riders: ReadonlySet<string> | null): EvaluatedShot {
  if (riders === null) return evaluated;
  const { shot, poses } = evaluated;
  const is = ({ id }: { id: string }) => riders.has(id);
  return {
    ...evaluated,
    shot: { ...shot, riders: shot.riders.filter(is) },
    poses: poses.filter((_, r) => is(shot.riders[r])),
    // Dressing belongs to no rider.
    dressings: () => [],
    cuts: () => evaluated.cuts().filter(({ camera }) => riders.has(camera)),
  };
}

/** With one frame more, that closes it. */
function closed(evaluated: EvaluatedShot, plain: SampledBlock): SampledBlock {
  const after = closingFrame(evaluated, plain.first, plain);
  return {
    ...plain,
    closing: true,
    frames: plain.frames + 1,
    riders: plain.riders.map((poses, r) => joined(poses, after.riders[r])),
    parts: plain.parts.map((parts, r) => ({ ...parts, values: joined(parts.values, after.parts[r].values) })),
    shown: plain.shown.map((seen) => seen && [...seen, seen[0]]),
    seconds: joined(plain.seconds, after.seconds),
  };
}

/**
 * The frame after the last, with which a loop closes. A rider is where it is at the first; its parts are where they go on to, since
 * a wheel may close after any part of a turn that looks the same.
 */
function closingFrame(evaluated: EvaluatedShot, first: number, before: SampledBlock): SampledBlock {
  const after = sampleBlock(evaluated, before.first + before.frames, 1, before);
  const { riders, shown, seconds } = sampleBlock(evaluated, first, 1);
  riders.forEach((pose, r) => {
    const poses = before.riders[r];
    takeShortWay(pose, POSE.rotation, poses, poses.length - POSE.size + POSE.rotation);
  });
  return { ...after, riders, shown, seconds };
}

function joined(before: Float64Array, after: Float64Array): Float64Array {
  const all = new Float64Array(before.length + after.length);
  all.set(before);
  all.set(after, before.length);
  return all;
}

/** Some frames of a shot. */
export type SampledBlock = SampledShot;

/**
 * The same in consecutive blocks of frames. A block's arrays are reused by the next but one, so that a long shot does
 * not leave thousands of them behind.
 *
 * @param most numbers a block holds, but for one frame's at least
 */
export function* sampleBlocks(
  evaluated: EvaluatedShot,
  most: number,
  choice: SampleChoice = {},
): Generator<SampledBlock, void, undefined> {
  const chosen = withRiders(evaluated, choice.riders ?? null);
  const { first, last } = sampledRange(evaluated.shot, choice);
  const perFrame = chosen.shot.riders.reduce((sum, rider) => sum + POSE.size + chosen.parts(rider).size, 0);
  const frames = Math.max(1, Math.floor(most / Math.max(1, perFrame)));
  let [spare, before]: (SampledBlock | undefined)[] = [];
  for (let frame = first; frame <= last; frame += frames) {
    const count = Math.min(frames, last - frame + 1);
    const block = sampleBlock(chosen, frame, count, before, count === frames ? spare : undefined);
    yield block;
    [spare, before] = [before, block];
  }
  if (choice.closing && before) yield closingFrame(chosen, first, before);
}

function sampleBlock(
  { shot, poses, parts, shows, cuts, dressings, spray, workSeconds }: EvaluatedShot,
  first: number,
  frames: number,
  before?: SampledBlock,
  into?: SampledBlock,
): SampledBlock {
  return {
    shot,
    first,
    frames,
    closing: false,
    between: shot.riders.map(() => []),
    riders: poses.map((pose, r) => sampleRider(pose, first, frames, 1, before?.riders[r], into?.riders[r])),
    parts: shot.riders.map((rider, r) =>
      sampleParts(parts(rider), first, frames, 1, before?.parts[r].values, into?.parts[r].values),
    ),
    shown: shot.riders.map((rider) => {
      const seen = shows(rider);
      return seen && Array.from({ length: frames }, (_, i) => seen(first + i));
    }),
    cuts: before?.cuts ?? cuts(),
    dressings: before?.dressings ?? dressings(),
    sprays: before?.sprays ?? shot.riders.map(spray),
    seconds: Float64Array.from({ length: frames }, (_, i) => workSeconds(first + i)),
  };
}

/**
 * A rider's poses at `count` frames that are `step` apart; of the two quaternions of each rotation the one nearer
 * to that before it, so that what lies between can be interpolated.
 *
 * @param before the samples that these go on from
 * @param into   where they are put, in place of an array of their own
 */
export function sampleRider(
  pose: PoseAt,
  first: number,
  count: number,
  step: number,
  before?: Float64Array,
  into?: Float64Array,
): Float64Array {
  const { size, rotation } = POSE;
  const out = into ?? new Float64Array(count * size);
  for (let i = 0, at = 0; i < count; i++, at += size) {
    pose(first + i * step, out, at);
    if (i > 0) takeShortWay(out, at + rotation, out, at + rotation - size);
    else if (before) takeShortWay(out, rotation, before, before.length - size + rotation);
  }
  return out;
}
