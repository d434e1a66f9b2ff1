import type { Shot } from '@fleet-rail/core';
import {
  withEnds,
  withUpdate,
  type Evaluation,
  type EvaluationEnd,
  type EvaluationUpdate,
} from './evaluation';
import { Evaluator } from './evaluator';
import { encodeDelta, type ShotDelta } from './shot-delta';

/** Takes a changed shot up and evaluates all of it in one go, for tests. */
export function evaluateToEnd(
  evaluator: Evaluator,
  delta: ShotDelta,
): EvaluationUpdate & { readonly end: EvaluationEnd } {
  evaluator.begin(delta, { frame: 1, rider: null });
  const { end, ...update } = evaluator.next(Infinity);
  if (end === null) throw new Error('The evaluation did not finish.');
  return { ...update, end };
}

/** A shot as the page has it when all of it is evaluated, for tests. */
export function evaluateWhole(shot: Shot): Evaluation {
  const update = evaluateToEnd(new Evaluator(), encodeDelta(null, shot));
  return withEnds(withUpdate(null, update, shot), [update.end]);
}
