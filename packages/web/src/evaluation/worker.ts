import { expose, transfer } from 'comlink';
import { Evaluator } from './evaluator';
import type { ShotDelta } from './shot-delta';

const evaluator = new Evaluator();

const api = {
  evaluate(delta: ShotDelta) {
    const update = evaluator.evaluate(delta);
    const arrays = [...update.paths.map((path) => path.frames), ...update.riders.map((rider) => rider.poses)];
    return transfer(
      update,
      arrays.map((array) => array.buffer as ArrayBuffer),
    );
  },
};

export type EvaluationWorker = typeof api;

expose(api);
