import { riderGroups, type Rider, type Shot } from '@fleet-rail/core';

/** Riders that depend on each other, in shares of about the same size. */
export function shares(riders: readonly Rider[], cues: Shot['cues'], count: number): string[][] {
  if (count === 1) return [riders.map(({ id }) => id)];
  const all = Array.from({ length: count }, (): string[] => []);
  const groups = riderGroups(riders, cues).sort((a, b) => b.length - a.length);
  for (const group of groups) {
    const least = all.reduce((a, b) => (b.length < a.length ? b : a));
    least.push(...group.map(({ id }) => id));
  }
  return all;
}
