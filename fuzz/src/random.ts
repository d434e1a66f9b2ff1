/** Numbers that look random and are the same for the same seed (mulberry32). */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = seed >>> 0;
  }

  /** From 0 to 1, 1 left out. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let t = this.state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.next();
  }

  /** A whole number from `low` to `high`, both included. */
  whole(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1));
  }

  chance(part: number): boolean {
    return this.next() < part;
  }

  of<T>(list: readonly T[]): T {
    return list[this.whole(0, list.length - 1)];
  }

  /** A list of a length, each item made by itself. */
  list<T>(low: number, high: number, make: (index: number) => T): T[] {
    return Array.from({ length: this.whole(low, high) }, (_, i) => make(i));
  }

  /** A size over many powers of ten. */
  size(low: number, high: number): number {
    return low * (high / low) ** this.next();
  }

  /** Numbers that rise, from a first one on. */
  rising(first: number, count: number, least: number, most: number): number[] {
    let at = first;
    return Array.from({ length: count }, () => (at += this.size(least, most)));
  }
}
