/** What steps come to, all of them taken at once. */
export function runToEnd<T>(steps: Generator<unknown, T, undefined>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
