/** Result of a generator, run to its end at once. */
export function runToEnd<T>(steps: Generator<unknown, T, undefined>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
