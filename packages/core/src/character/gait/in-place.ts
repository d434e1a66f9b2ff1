import type { Vec3 } from '../../geometry/math/vec.js';
import {
  LOCAL,
  initialPose,
  type Clip,
  type NodeHierarchy,
  type HierarchyPose,
} from '../hierarchy/node-hierarchy.js';
import { sampleClip } from './sample-clip.js';

/** A clip as one cycle in place: a figure that walks away in its clip is taken back evenly. */
export interface CycleClip {
  readonly clip: Clip;
  /** The node that carries the figure away; −1 where it stays. */
  readonly carrier: number;
  /** By how much over the clip, in what that node hangs on, metres. */
  readonly drift: Vec3;
}

/** Less than this is no walking away, metres. */
const STAYS = 1e-3;

export function cycleClip(hierarchy: NodeHierarchy, clip: Clip): CycleClip {
  const moved = clip.channels.filter(({ path }) => path === 'translation').map(({ node }) => node);
  const carrier = moved.length === 0 ? -1 : Math.min(...moved);
  const drift: Vec3 = [0, 0, 0];
  if (carrier < 0) return { clip, carrier, drift };
  const [start, end] = [initialPose(hierarchy), initialPose(hierarchy)];
  sampleClip(clip, 0, start);
  sampleClip(clip, clip.seconds, end);
  const at = carrier * LOCAL.size;
  for (let k = 0; k < 3; k++) drift[k] = end.locals[at + k] - start.locals[at + k];
  return Math.hypot(...drift) > STAYS ? { clip, carrier, drift } : { clip, carrier: -1, drift: [0, 0, 0] };
}

/** Poses a node hierarchy at a place of the cycle; whole cycles are the same. */
export function sampleCycle({ clip, carrier, drift }: CycleClip, phase: number, pose: HierarchyPose): void {
  const part = phase - Math.floor(phase);
  sampleClip(clip, part * clip.seconds, pose);
  if (carrier < 0) return;
  for (let k = 0; k < 3; k++) pose.locals[carrier * LOCAL.size + k] -= part * drift[k];
}
