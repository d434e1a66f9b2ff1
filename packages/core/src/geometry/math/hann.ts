import { modulo } from './angle.js';

/**
 * How much of a raised-cosine (Hann) window of width 1 about 0 lies left of x, from 0 to 1. The window is
 * smooth and even, so that what is averaged under it is delayed neither way.
 */
export function hannIntegral(x: number): number {
  if (x <= -0.5) return 0;
  if (x >= 0.5) return 1;
  return x + 0.5 + Math.sin(2 * Math.PI * x) / (2 * Math.PI);
}

/** How many neighbours to either side a Hann window reaches that is `width` neighbours wide. */
export const hannReach = (width: number): number => Math.max(0, Math.ceil(width / 2 - 0.5));

/** Weights of neighbours −reach … reach under a Hann window `width` neighbours wide, their sum 1. */
export function hannWeights(width: number): Float64Array {
  const reach = hannReach(width);
  const weights = new Float64Array(2 * reach + 1);
  for (let i = -reach; i <= reach; i++) {
    weights[i + reach] = hannIntegral((i + 0.5) / width) - hannIntegral((i - 0.5) / width);
  }
  return weights;
}

/** Weight of a neighbour that lies wholly in the window: even + wave · cos(angle · distance from the middle). */
export function hannInside(width: number): { even: number; wave: number; angle: number } {
  return { even: 1 / width, wave: Math.sin(Math.PI / width) / Math.PI, angle: (2 * Math.PI) / width };
}

/**
 * Values averaged with their neighbours by {@link hannWeights}, in a time that grows with their number and not with the window's width.
 * By the addition theorem of the cosine in {@link hannInside} three running sums, of the values by themselves and times
 * cosine and sine of where they are, tell what is under any window.
 *
 * @param values `size` numbers each
 * @param width  of the window, in neighbours, at least 1
 * @param loop   whether the last is followed by the first; else both ends go on as they are
 */
export function hannAverages(values: Float64Array, size: number, width: number, loop: boolean): Float64Array {
  const reach = hannReach(width);
  if (reach === 0) return values;
  const count = values.length / size;
  const padded = count + 2 * reach;
  const index = (j: number) =>
    loop ? modulo(j - reach, count) : Math.min(count - 1, Math.max(0, j - reach));
  const { even, wave, angle } = hannInside(width);
  const edge = 1 - hannIntegral((reach - 0.5) / width);
  const cosines = Float64Array.from({ length: padded }, (_, j) => Math.cos(angle * j));
  const sines = Float64Array.from({ length: padded }, (_, j) => Math.sin(angle * j));
  const [sums, byCosine, bySine] = [0, 1, 2].map(() => new Float64Array(padded + 1));
  const out = new Float64Array(values.length);
  for (let k = 0; k < size; k++) {
    for (let j = 0; j < padded; j++) {
      const value = values[size * index(j) + k];
      sums[j + 1] = sums[j] + value;
      byCosine[j + 1] = byCosine[j] + value * cosines[j];
      bySine[j + 1] = bySine[j] + value * sines[j];
    }
    for (let i = 0; i < count; i++) {
      const middle = i + reach;
      const last = middle + reach;
      const waved =
        cosines[middle] * (byCosine[last] - byCosine[i + 1]) + sines[middle] * (bySine[last] - bySine[i + 1]);
      const ends = values[size * index(i) + k] + values[size * index(last) + k];
      out[size * i + k] = even * (sums[last] - sums[i + 1]) + wave * waved + edge * ends;
    }
  }
  return out;
}
