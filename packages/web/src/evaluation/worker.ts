import type { GroundMesh, NodeHierarchy } from '@fleet-rail/core';
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
      ...update.riders.flatMap(({ poses, parts, gauges }) => [
        poses,
        parts.values,
        ...gauges.map(({ values }) => values),
      ]),
    ];
    return transfer(
      update,
      arrays.map((array) => array.buffer as ArrayBuffer),
    );
  },
};

export type EvaluationWorker = typeof api;

expose(api);
