/**
 * Nodes and weights of the Gauss-Legendre rule with n points on [-1, 1].
 *
 * Roots of the Legendre polynomial by Newton's method from Chebyshev guesses
 * (Press et al., Numerical Recipes, 4.6). Exact for polynomials of degree 2n − 1.
 */
export function gaussLegendreRule(n: number): { nodes: Float64Array; weights: Float64Array } {
  const nodes = new Float64Array(n);
  const weights = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let step = 0; step < 100; step++) {
      let previous = 1;
      let value = x;
      for (let k = 2; k <= n; k++) {
        const next = ((2 * k - 1) * x * value - (k - 1) * previous) / k;
        previous = value;
        value = next;
      }
      slope = (n * (x * value - previous)) / (x * x - 1);
      const move = value / slope;
      x -= move;
      if (Math.abs(move) < 1e-16) break;
    }
    nodes[i] = -x;
    weights[i] = 2 / ((1 - x * x) * slope * slope);
  }
  return { nodes, weights };
}
