/** Numbers nearer to 0 are 0: a trillionth of a metre or of a second is none, and its powers would vanish. */
const DUST = 1e-12;

/** A number, or 0 where it is no more than dust. */
export const withoutDust = (value: number): number => (Math.abs(value) < DUST ? 0 : value);
