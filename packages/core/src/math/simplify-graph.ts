/**
 * Which of the points of a graph have to stay for straight lines between them to be within a tolerance of all
 * (Ramer 1972; Douglas & Peucker 1973, with the distance taken straight up or down).
 *
 * @param x rising abscissae
 * @param y ordinates
 * @returns indexes in rising order, first and last among them
 */
export function simplifyGraph(x: ArrayLike<number>, y: ArrayLike<number>, tolerance: number): number[] {
  const last = x.length - 1;
  const kept = new Uint8Array(x.length);
  kept[0] = kept[last] = 1;
  const waiting: [number, number][] = [[0, last]];
  for (let run = waiting.pop(); run !== undefined; run = waiting.pop()) {
    const [from, to] = run;
    const slope = (y[to] - y[from]) / (x[to] - x[from]);
    let worst = tolerance;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const gap = Math.abs(y[i] - y[from] - slope * (x[i] - x[from]));
      if (gap > worst) {
        worst = gap;
        at = i;
      }
    }
    if (at < 0) continue;
    kept[at] = 1;
    waiting.push([from, at], [at, to]);
  }
  return [...kept.keys()].filter((i) => kept[i] === 1);
}
