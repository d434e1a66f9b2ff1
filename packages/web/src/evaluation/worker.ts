import type { GroundMesh, NodeHierarchy, SeamGap } from '@fleet-rail/core';
import { expose, transfer } from 'comlink';
import type { EvaluationUpdate, Focus, Share } from './evaluation';
import { Evaluator } from './evaluator';
import type { ShotDelta } from './shot-delta';

const evaluator = new Evaluator();

/** Milliseconds until the first picture goes out, and from one look at newer edits to the next. */
const FIRST = 16;
const SLICE = 30;

function sent(update: EvaluationUpdate): EvaluationUpdate {
  const arrays = [
    ...update.paths.map(({ frames }) => frames),
    ...update.riders.flatMap(({ poses, sideways, parts, gauges }) => [
      poses,
      sideways,
      parts.values,
      ...gauges.map(({ values }) => values),
    ]),
  ];
  return transfer(
    update,
    arrays.map((array) => array.buffer as ArrayBuffer),
  );
}

const api = {
  setAssets(ground: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    evaluator.setAssets(ground, hierarchies);
  },
  /** Takes a changed shot, and gives what is looked at of it. */
  begin(delta: ShotDelta, focus: Focus, share: Share) {
    evaluator.begin(delta, focus, share);
    return sent(evaluator.next(FIRST));
  },
  next: () => sent(evaluator.next(SLICE)),
  evaluateAside(delta: ShotDelta, riders: readonly string[]) {
    const aside = evaluator.evaluateAside(delta, riders);
    return transfer(
      aside,
      [...aside.poses.values()].map((array) => array.buffer as ArrayBuffer),
    );
  },
  seam: () => evaluator.seam(),
  closings: (gap: SeamGap) => evaluator.closings(gap),
};

export type EvaluationWorker = typeof api;

expose(api);
