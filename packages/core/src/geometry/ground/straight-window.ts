/**
 * Straight line fitted under a smooth window to values at evenly spaced nodes, read at the window's middle: the
 * weight of each node. Windows of one width and phase share their weights.
 */
export class StraightWindow {
  /** The first node under the window, and how many there are. */
  first = 0;
  count = 0;
  /** By node from the first on what part of its value counts; they sum up to 1. */
  readonly parts: Float64Array;
  private asked = NaN;

  /**
   * @param reach half the window's width, metres
   * @param step  metres from node to node
   */
  constructor(
    private readonly reach: number,
    private readonly step: number,
  ) {
    this.parts = new Float64Array(Math.ceil((2 * reach) / step) + 2);
  }

  /** Brings the window's middle to a place, metres from node 0. */
  moveTo(s: number): void {
    if (s === this.asked) return;
    this.asked = s;
    const { reach, step, parts } = this;
    const first = Math.ceil((s - reach) / step);
    const count = Math.floor((s + reach) / step) - first + 1;
    const scale = 1 / (reach * reach);
    let sum = 0;
    let ahead = 0;
    let square = 0;
    for (let i = 0; i < count; i++) {
      const off = (first + i) * step - s;
      const inside = 1 - off * off * scale;
      // Level at its middle and its ends (biweight), so that a place comes and goes without a jolt.
      const weight = inside * inside;
      parts[i] = weight;
      sum += weight;
      ahead += weight * off;
      square += weight * off * off;
    }
    const spread = sum * square - ahead * ahead;
    for (let i = 0; i < count; i++) {
      const off = (first + i) * step - s;
      parts[i] *= spread > 0 ? (square - ahead * off) / spread : 1 / sum;
    }
    this.first = first;
    this.count = count;
  }
}
