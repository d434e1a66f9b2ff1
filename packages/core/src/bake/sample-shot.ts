import { frameCount } from '../document/frames.js';
import type { Cut } from '../document/shot-camera.js';
import type { Shot } from '../document/shot.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { LaidThing } from '../laid/index.js';
import { POSE, type PoseAt } from '../pose/index.js';
import type { Spray } from '../spray/index.js';
import { sampleParts, takeShortWay, type SampledParts } from './sampled-parts.js';

/** Every rider's pose at every frame of the range: {@link POSE}.size numbers a frame. */
export interface SampledShot {
  readonly shot: Shot;
  readonly frames: number;
  /** In the order of the document's riders. */
  readonly riders: readonly Float64Array[];
  /** In the same order what moves of each rider's model by itself. */
  readonly parts: readonly SampledParts[];
  /** And whether it is seen, by frame; null for a rider that always is. */
  readonly shown: readonly (readonly boolean[] | null)[];
  /** From which frame on which camera is looked through, with what cues cut to. */
  readonly cuts: readonly Cut[];
  /** What is laid along paths; it stands still. */
  readonly laid: readonly LaidThing[];
  /** In the order of the riders what each sprays; null for those that spray nothing. */
  readonly sprays: readonly (Spray | null)[];
  /** By frame which second of the sprays is shown. */
  readonly seconds: Float64Array;
}

/** Samples a whole shot at whole frames. */
export function sampleShot(evaluated: EvaluatedShot): SampledShot {
  const { shot } = evaluated;
  return sampleBlock(evaluated, shot.range.first, frameCount(shot));
}

/** Some frames of a shot, from `first` on. */
export interface SampledBlock extends SampledShot {
  readonly first: number;
}

/**
 * The same in blocks of frames, one after the other.
 *
 * @param most numbers a block holds, but for one frame's at least
 */
export function* sampleBlocks(
  evaluated: EvaluatedShot,
  most: number,
): Generator<SampledBlock, void, undefined> {
  const { shot } = evaluated;
  const { first, last } = shot.range;
  const perFrame = shot.riders.reduce((sum, rider) => sum + POSE.size + evaluated.parts(rider).size, 0);
  const frames = Math.max(1, Math.floor(most / Math.max(1, perFrame)));
  let before: SampledBlock | undefined;
  for (let frame = first; frame <= last; frame += frames) {
    before = sampleBlock(evaluated, frame, Math.min(frames, last - frame + 1), before);
    yield before;
  }
}

function sampleBlock(
  { shot, poses, parts, shows, cuts, laid, spray, workSeconds }: EvaluatedShot,
  first: number,
  frames: number,
  before?: SampledBlock,
): SampledBlock {
  return {
    shot,
    first,
    frames,
    riders: poses.map((pose, r) => sampleRider(pose, first, frames, 1, before?.riders[r])),
    parts: shot.riders.map((rider, r) =>
      sampleParts(parts(rider), first, frames, 1, before?.parts[r].values),
    ),
    shown: shot.riders.map((rider) => {
      const seen = shows(rider);
      return seen && Array.from({ length: frames }, (_, i) => seen(first + i));
    }),
    cuts: before?.cuts ?? cuts(),
    laid: before?.laid ?? laid(),
    sprays: before?.sprays ?? shot.riders.map(spray),
    seconds: Float64Array.from({ length: frames }, (_, i) => workSeconds(first + i)),
  };
}

/**
 * A rider's poses at `count` frames that are `step` apart; of the two quaternions of each rotation the one nearer
 * to that before it, so that what lies between can be interpolated.
 *
 * @param before the samples that these go on from
 */
export function sampleRider(
  pose: PoseAt,
  first: number,
  count: number,
  step: number,
  before?: Float64Array,
): Float64Array {
  const out = new Float64Array(count * POSE.size);
  for (let i = 0; i < count; i++) {
    const at = i * POSE.size;
    pose(first + i * step, out, at);
    if (i > 0) takeShortWay(out, at + POSE.rotation, out, at + POSE.rotation - POSE.size);
    else if (before) takeShortWay(out, POSE.rotation, before, before.length - POSE.size + POSE.rotation);
  }
  return out;
}
