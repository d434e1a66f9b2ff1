/** Slots at first, and at most. Half of them at most are taken. */
const FEWEST = 64;
const MOST = 2 ** 16;
/** Mostly what is kept follows from the frames of a shot. */
const USUAL = 500;

const bits = new Float64Array(1);
const words = new Uint32Array(bits.buffer);

/**
 * Numbers that follow from a number, kept for when it is asked for again: flat arrays, in which nothing is boxed and nothing has
 * to be collected (open addressing). When as many are kept as may be, it begins anew.
 */
export class KeptNumbers {
  /** Cached values, `each` numbers a slot. */
  values: Float64Array;
  private keys: Float64Array;
  private count = 0;

  /**
   * @param each     numbers that follow from one
   * @param expected how many are likely to be kept: room is made for all of them at once
   */
  constructor(
    private readonly each: number,
    private readonly expected = USUAL,
  ) {
    this.keys = new Float64Array(FEWEST).fill(NaN);
    this.values = new Float64Array(each * FEWEST);
  }

  /** Index in `values` of the result for a number; −1 if it is not cached. */
  find(key: number): number {
    const slot = this.slotOf(key);
    return this.keys[slot] === key ? slot * this.each : -1;
  }

  /** Makes room for what follows from a number: where in `values` that begins, until another is put. */
  put(key: number): number {
    if (2 * this.count >= this.keys.length) this.makeRoom();
    const slot = this.slotOf(key);
    if (this.keys[slot] !== key) this.count++;
    this.keys[slot] = key;
    return slot * this.each;
  }

  /** Slot of a number, present or not. */
  private slotOf(key: number): number {
    const { keys } = this;
    const last = keys.length - 1;
    // Frames and places a step apart differ in few bits: all of them are mixed (the finalizer of MurmurHash3).
    bits[0] = key;
    let mixed = words[0] ^ Math.imul(words[1], 0x9e3779b1);
    mixed = Math.imul(mixed ^ (mixed >>> 16), 0x85ebca6b);
    mixed = Math.imul(mixed ^ (mixed >>> 13), 0xc2b2ae35);
    let slot = (mixed ^ (mixed >>> 16)) & last;
    while (keys[slot] !== key && !Number.isNaN(keys[slot])) slot = (slot + 1) & last;
    return slot;
  }

  private makeRoom(): void {
    const { keys, values, each } = this;
    this.count = 0;
    if (keys.length === MOST) {
      keys.fill(NaN);
      return;
    }
    let slots = 2 * keys.length;
    while (slots < 2 * this.expected && slots < MOST) slots *= 2;
    this.keys = new Float64Array(slots).fill(NaN);
    this.values = new Float64Array(each * slots);
    keys.forEach((key, slot) => {
      if (Number.isNaN(key)) return;
      const at = this.put(key);
      for (let k = 0; k < each; k++) this.values[at + k] = values[slot * each + k];
    });
  }
}
