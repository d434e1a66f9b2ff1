import type { KeptSteps } from '../../effects/forces/simulation.js';

/** So many runs are kept at once; each holds a world. */
const MOST_RUNS = 24;

interface Run {
  readonly key: string;
  readonly ground: object | null;
  readonly steps: KeptSteps;
}

let runs: Run[] = [];

/**
 * What was stepped forward of the same things on the same ground before, or else new steps: so an edit of something later in time keeps
 * what came before it.
 */
export function keptSteps(key: string, ground: object | null, make: () => KeptSteps): KeptSteps {
  const known = runs.find((run) => run.key === key && run.ground === ground);
  const run = known ?? { key, ground, steps: make() };
  runs = [run, ...runs.filter((other) => other !== run)];
  for (const old of runs.splice(MOST_RUNS)) old.steps.close();
  return run.steps;
}
