import type { GroundMesh, NodeHierarchy, SeamGap } from '@fleet-rail/core';
import { expose, transfer } from 'comlink';
import { Evaluator } from './evaluator';
import type { ShotDelta } from './shot-delta';

const evaluator = new Evaluator();

const api = {
  setAssets(ground: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    evaluator.setAssets(ground, hierarchies);
  },
  evaluate(delta: ShotDelta) {
    const update = evaluator.evaluate(delta);
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
  },
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
