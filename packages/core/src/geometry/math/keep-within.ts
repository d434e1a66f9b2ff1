/** Error of entry i against the interpolation between the two kept entries `from` and `to`. */
export type ErrorBetween = (from: number, to: number, i: number) => number;

/**
 * Which entries of a list have to stay for what lies between kept neighbours to come within a tolerance of all the others. The
 * furthest one is kept until none is too far (Ramer 1972; Douglas & Peucker 1973).
 *
 * @param count at least 1
 * @returns indexes in rising order, first and last among them
 */
export function keepWithin(count: number, errorBetween: ErrorBetween, tolerance: number): number[] {
  const kept = new Uint8Array(count);
  kept[0] = kept[count - 1] = 1;
  const open: [number, number][] = [[0, count - 1]];
  for (let run = open.pop(); run !== undefined; run = open.pop()) {
    const [from, to] = run;
    let [worst, at] = [tolerance, -1];
    for (let i = from + 1; i < to; i++) {
      const error = errorBetween(from, to, i);
      if (error > worst) [worst, at] = [error, i];
    }
    if (at < 0) continue;
    kept[at] = 1;
    open.push([from, at], [at, to]);
  }
  return Array.from(kept.keys()).filter((i) => kept[i] === 1);
}
