import type { ClipBlock } from '../../document/shot-clip-block.js';
import type { NodeDriver } from '../hierarchy/node-driver.js';
import {
  clipNamed,
  initialPose,
  type Clip,
  type HierarchyPose,
  type NodeHierarchy,
} from '../hierarchy/node-hierarchy.js';
import { modulo } from '../../geometry/math/angle.js';
import { smoothStep } from './idle-spans.js';
import { cycleClip, sampleCycle } from './in-place.js';
import { blendPoses, nodesMoved, partOfClip, sampleClip } from './sample-clip.js';

/** Inputs of clip blocks. */
export interface BlockRide {
  readonly first: number;
  readonly last: number;
  readonly fps: number;
  readonly loop: boolean;
  /** Metres travelled, and cycles of the gait; of what has none they stay 0. */
  distance(frame: number): number;
  phase(frame: number): number;
}

/** A clip over whatever else poses a model: how much of it, and how it poses. */
export interface PlayedClip {
  readonly clip: Clip;
  /** 0 to 1. */
  weight(frame: number): number;
  pose(frame: number, pose: HierarchyPose): void;
}

/** A block of the document as it plays. */
export interface PlayedBlock extends PlayedClip {
  readonly repeats: boolean;
  /** How often it has run through what is played of its clip, since its first frame; negative where it goes back. */
  runs(frame: number): number;
}

/**
 * How much of a block is shown at a frame, 0 to 1: it comes over the time in which the block before it still lasts, else over its own
 * `blend`, and goes over that where no block follows on it.
 */
function blockWeight(blocks: readonly ClipBlock[], i: number, fps: number, frame: number): number {
  const { frame: from, until, blend } = blocks[i];
  if (frame < from || frame >= until) return 0;
  const over = Math.min(blend * fps, (until - from) / 2);
  const before = i > 0 ? blocks[i - 1].until : -Infinity;
  const shared = Math.min(before, until) - from;
  // A block that begins where another ends replaces it at once.
  const comes =
    before >= from ? (shared > 0 ? (frame - from) / shared : 1) : over > 0 ? (frame - from) / over : 1;
  const followed = i < blocks.length - 1 && blocks[i + 1].frame <= until;
  const goes = followed || over <= 0 ? 1 : (until - frame) / over;
  return smoothStep(Math.min(1, comes)) * smoothStep(Math.min(1, goes));
}

/**
 * Blocks as they are played. In a loop one that lasts beyond its end goes on at its beginning. Clips that are not in the model are left
 * out.
 */
export function playBlocks(
  blocks: readonly ClipBlock[],
  hierarchy: NodeHierarchy,
  ride: BlockRide,
): PlayedBlock[] {
  const { first, last, fps, loop } = ride;
  const round = last - first + 1;
  const shifts = loop ? [0, round, -round] : [0];
  return blocks.flatMap((block, i): PlayedBlock[] => {
    const clip = clipNamed(hierarchy, block.clip);
    if (clip === null) return [];
    const { from, length } = partOfClip(block, clip);
    const cycle = block.by === 'time' ? null : cycleClip(hierarchy, clip);
    /** The frame of this round or of one beside it in which the block is shown. */
    const inRound = (frame: number) =>
      shifts.map((shift) => frame + shift).find((at) => at >= block.frame && at < block.until) ?? frame;
    const gone = (frame: number): number => {
      const at = inRound(frame);
      if (block.by === 'time') return ((at - block.frame) / fps) * block.rate;
      const value = block.by === 'distance' ? ride.distance : ride.phase;
      // The distance of the next round is computed from this one's, since the ride may end with the range.
      const lap = value(last + 1) - value(first);
      return (value(frame) + ((at - frame) / round) * lap - value(block.frame)) * block.rate * length;
    };
    return [
      {
        clip,
        repeats: block.end === 'repeat',
        runs: (frame) => gone(frame) / length,
        weight: (frame) => blockWeight(blocks, i, fps, inRound(frame)),
        pose(frame, pose) {
          const by = gone(frame);
          const ends = block.end === 'hold';
          // Backward it begins at its end.
          const on = block.rate < 0 ? length + by : by;
          const at = from + (ends ? Math.min(length, Math.max(0, on)) : modulo(on, length));
          if (cycle === null) sampleClip(clip, at, pose);
          else sampleCycle(cycle, at / Math.max(1e-6, clip.seconds), pose);
        },
      },
    ];
  });
}

/** Clips applied over a pose in order; nodes that a clip does not move stay. */
export function clipDriver(hierarchy: NodeHierarchy, played: readonly PlayedClip[]): NodeDriver {
  const over = initialPose(hierarchy);
  const layers = played.map((one) => ({ one, nodes: nodesMoved([one.clip]) }));
  return {
    nodes: nodesMoved(played.map(({ clip }) => clip)),
    apply(frame, pose) {
      for (const { one, nodes } of layers) {
        const weight = one.weight(frame);
        if (weight <= 0) continue;
        over.locals.set(pose.locals);
        over.weights.forEach((weights, i) => weights.set(pose.weights[i]));
        one.pose(frame, over);
        blendPoses(pose, over, weight, nodes);
      }
    },
  };
}
