/**
 * Aggregate of whole numbers over ranges, such as their maximum or sum: each range is joined from parts whose lengths
 * are powers of two, computed once. Wide overlapping ranges cost little more than narrow ones.
 */
export class KeptRanges<T> {
  /** By power of two the parts of that length, by their place among those. */
  private readonly levels: Map<number, T>[] = [];

  /**
   * @param one  what a number comes to by itself
   * @param both what two parts come to, one after the other
   */
  constructor(
    private readonly one: (k: number) => T,
    private readonly both: (a: T, b: T) => T,
  ) {}

  /** Takes parts, in no order, that make up all numbers from `from` up to but not `to`; both within 32 bits. */
  over(from: number, to: number, take: (part: T) => void): void {
    let [a, b] = [from, to];
    for (let level = 0; a < b; level++) {
      if (a & 1) take(this.part(level, a++));
      if (b & 1) take(this.part(level, --b));
      a >>= 1;
      b >>= 1;
    }
  }

  private part(level: number, i: number): T {
    const kept = (this.levels[level] ??= new Map<number, T>());
    let known = kept.get(i);
    if (known === undefined) {
      known =
        level === 0 ? this.one(i) : this.both(this.part(level - 1, 2 * i), this.part(level - 1, 2 * i + 1));
      kept.set(i, known);
    }
    return known;
  }
}
