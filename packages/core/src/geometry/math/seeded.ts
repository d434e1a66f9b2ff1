/**
 * Even random numbers from −1 to 1 that are the same for the same seed and index, however many others there are.
 *
 * A counter is mixed as in SplitMix (Steele, Lea, Flood 2014) with the 32-bit finaliser of MurmurHash3.
 */
export function seededNumbers(seed: number, index: number): () => number {
  let state = (Math.imul(seed, 0x9e3779b1) ^ Math.imul(index + 1, 0x85ebca6b)) | 0;
  return () => {
    state = (state + 0x9e3779b9) | 0;
    let x = state;
    x = Math.imul(x ^ (x >>> 16), 0x85ebca6b);
    x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35);
    return ((x ^ (x >>> 16)) >>> 0) / 0x7fffffff - 1;
  };
}
