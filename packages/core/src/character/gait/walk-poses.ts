import type { Clip, HierarchyPose } from '../hierarchy/node-hierarchy.js';
import { idleSpanAt, type IdleSpan } from './idle-spans.js';
import { sampleCycle, type CycleClip } from './in-place.js';
import { naturalPhase } from './resting-phases.js';
import { blendPoses, clipOfNodes, nodesMoved } from './sample-clip.js';
import { clipsOf, poseStop, stopOf, type StopClips } from './stop-clips.js';

/** When a walker shows what of its clips. */
export interface WalkTiming {
  readonly first: number;
  readonly fps: number;
  /** Cycles since the start of its path. */
  phase(frame: number): number;
  readonly idleSpans: readonly IdleSpan[];
  /** Weight of the idle clip, 0 to 1. */
  idleWeight(frame: number): number;
  /** Phases at which its feet look as if it stood. */
  readonly restingPhases: readonly number[];
}

/** The clips of a walker: of its walk, and by idle span. */
export interface WalkClips {
  readonly walk: CycleClip;
  readonly stops: readonly StopClips[];
}

/** The figure at rest, and one to write on: shared by all that pose it. */
export interface WalkBuffers {
  readonly rest: HierarchyPose;
  readonly over: HierarchyPose;
}

/** A node hierarchy posed by the clips of a walker. The pose must be the rest pose before; nodes that no clip moves stay. */
export class WalkPoses {
  /** Which nodes the clips move. */
  readonly nodes: readonly number[];
  private readonly walk: CycleClip;
  private readonly stops: readonly StopClips[];

  /** @param only the nodes that are posed; null for all */
  constructor(
    { walk, stops }: WalkClips,
    private readonly timing: WalkTiming,
    private readonly buffers: WalkBuffers,
    only: ReadonlySet<number> | null,
  ) {
    const part = (clip: Clip) => (only === null ? clip : clipOfNodes(clip, only));
    this.walk = { ...walk, clip: part(walk.clip) };
    this.stops = stops.map((stop) => stopOf(stop, part));
    this.nodes = nodesMoved([this.walk.clip, ...this.stops.flatMap(clipsOf)]);
  }

  /** As it is at a frame: walking, standing, or between the two. */
  pose(frame: number, pose: HierarchyPose): void {
    const { timing } = this;
    const { over, rest } = this.buffers;
    const part = timing.idleWeight(frame);
    if (part >= 1) {
      this.standing(frame, pose);
      return;
    }
    this.atPhase(timing.phase(frame), pose);
    if (part <= 0) return;
    over.locals.set(rest.locals);
    over.weights.forEach((weights, i) => weights.set(rest.weights[i]));
    this.standing(frame, over);
    blendPoses(pose, over, part, this.nodes);
  }

  /** By the walk alone at a phase. */
  atPhase(phase: number, pose: HierarchyPose): void {
    sampleCycle(this.walk, phase, pose);
  }

  /** By the idle clip alone. */
  standing(frame: number, pose: HierarchyPose): void {
    const { timing, stops } = this;
    const i = idleSpanAt(timing.idleSpans, frame);
    if (i < 0) return;
    if (!poseStop(stops[i], timing.idleSpans[i], timing, frame, pose))
      this.atPhase(naturalPhase(timing.phase(frame), timing.restingPhases), pose);
  }
}
