/** Puts a key among others: in the place of one at its frame, else in order. */
export function withKey<T extends { frame: number }>(keys: readonly T[], key: T): T[] {
  return [...keys.filter(({ frame }) => frame !== key.frame), key].sort((a, b) => a.frame - b.frame);
}
