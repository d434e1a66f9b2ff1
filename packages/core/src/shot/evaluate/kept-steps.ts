import type { KeptSteps } from '../../effects/forces/simulation.js';

/** Number of runs kept together; each holds a world. */
const MOST_RUNS = 24;

interface Run {
  readonly key: string;
  readonly ground: object | null;
  readonly steps: KeptSteps;
}

let runs: Run[] = [];

/**
 * Kept steps of the same bodies on the same ground, or else new ones: so an edit of something later in time keeps the
 * earlier frames.
 */
export function keptSteps(key: string, ground: object | null, make: () => KeptSteps): KeptSteps {
  const known = runs.find((run) => run.key === key && run.ground === ground);
  const run = known ?? { key, ground, steps: make() };
  runs = [run, ...runs.filter((other) => other !== run)];
  for (const old of runs.splice(MOST_RUNS)) old.steps.close();
  return run.steps;
}
