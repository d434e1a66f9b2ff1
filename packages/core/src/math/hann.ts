/**
 * How much of a raised-cosine (Hann) window of width 1 about 0 lies left of x, from 0 to 1. The window is
 * smooth and even, so that what is averaged under it is delayed neither way.
 */
export function hannIntegral(x: number): number {
  if (x <= -0.5) return 0;
  if (x >= 0.5) return 1;
  return x + 0.5 + Math.sin(2 * Math.PI * x) / (2 * Math.PI);
}

/** Weights of neighbours −reach … reach under a Hann window `width` neighbours wide, their sum 1. */
export function hannWeights(width: number): Float64Array {
  const reach = Math.max(0, Math.ceil(width / 2 - 0.5));
  const weights = new Float64Array(2 * reach + 1);
  for (let i = -reach; i <= reach; i++) {
    weights[i + reach] = hannIntegral((i + 0.5) / width) - hannIntegral((i - 0.5) / width);
  }
  return weights;
}
