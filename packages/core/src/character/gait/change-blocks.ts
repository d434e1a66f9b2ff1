import { defaultsOf } from '../../document/defaults.js';
import { ClipBlock } from '../../document/shot-clip-block.js';

type Blocks = readonly ClipBlock[];

/** The shortest a block can be, frames, and what is left of a clip, seconds. */
const LEAST = { frames: 1, seconds: 0.01 };

/** Blocks with one more, in its order; two cannot begin at one frame, so it begins at the next that is free. */
export function addBlock(blocks: Blocks, clip: string, frame: number, frames: number): ClipBlock[] {
  let at = frame;
  while (blocks.some((block) => block.frame === at)) at++;
  const block = { ...defaultsOf(ClipBlock), clip, frame: at, until: at + Math.max(LEAST.frames, frames) };
  return [...blocks, block].sort((a, b) => a.frame - b.frame);
}

/** A block some frames later or earlier; it stays between those before and after it. */
export function moveBlock(blocks: Blocks, i: number, by: number): ClipBlock[] {
  const { frame, until } = blocks[i];
  const to = between(blocks, i, frame + by);
  return put(blocks, i, { frame: to, until: until + to - frame });
}

/** A block with another start; of a clip that plays by its own time that much is cut off or restored at its start. */
export function beginBlock(
  blocks: Blocks,
  i: number,
  frame: number,
  { fps, seconds }: { readonly fps: number; readonly seconds: number },
): ClipBlock[] {
  const block = blocks[i];
  const to = Math.min(block.until - LEAST.frames, between(blocks, i, frame));
  if (block.by !== 'time' || block.rate <= 0) return put(blocks, i, { frame: to });
  const most = Math.min(block.to ?? seconds, seconds) - LEAST.seconds;
  const from = block.from + ((to - block.frame) / fps) * block.rate;
  return put(blocks, i, { frame: to, from: Math.max(0, Math.min(most, from)) });
}

/** A block that ends at another frame. */
export function endBlock(blocks: Blocks, i: number, until: number): ClipBlock[] {
  return put(blocks, i, { until: Math.max(blocks[i].frame + LEAST.frames, until) });
}

function between(blocks: Blocks, i: number, frame: number): number {
  const low = i > 0 ? blocks[i - 1].frame + LEAST.frames : -Infinity;
  const high = i < blocks.length - 1 ? blocks[i + 1].frame - LEAST.frames : Infinity;
  return Math.max(low, Math.min(high, frame));
}

const put = (blocks: Blocks, i: number, part: Partial<ClipBlock>): ClipBlock[] =>
  blocks.map((block, n) => (n === i ? { ...block, ...part } : block));
