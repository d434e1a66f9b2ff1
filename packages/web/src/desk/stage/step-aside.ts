import type { StageLabel } from './stage-labels';

/** A badge's room on the screen, pixels. */
export const BADGE = { width: 34, height: 22 };
/** So many rings of places around its own are tried before a badge lies over another after all. */
const RINGS = 5;
/** Around its own place, nearest first: below and above before beside. */
const AROUND: readonly (readonly [x: number, y: number])[] = Array.from(
  { length: RINGS },
  (_, i) => i + 1,
).flatMap((ring) => {
  const [x, y] = [ring * BADGE.width, ring * BADGE.height];
  return [
    [0, y],
    [0, -y],
    [x, 0],
    [-x, 0],
    [x, y],
    [-x, y],
    [x, -y],
    [-x, -y],
  ] as const;
});

/**
 * Moves riders' badges aside that would lie over one that comes before them, each by as little as there is room for. Others
 * stay where they are.
 */
export function stepAside(labels: readonly StageLabel[]): StageLabel[] {
  const taken: { readonly x: number; readonly y: number }[] = [];
  return labels.map((label) => {
    if (!label.key.startsWith('rider ')) return label;
    const isFree = (x: number, y: number) =>
      taken.every((other) => Math.abs(other.x - x) >= BADGE.width || Math.abs(other.y - y) >= BADGE.height);
    const { x, y } = label;
    const way = isFree(x, y) ? undefined : AROUND.find(([dx, dy]) => isFree(x + dx, y + dy));
    const aside = { x: x + (way?.[0] ?? 0), y: y + (way?.[1] ?? 0) };
    taken.push(aside);
    return way === undefined ? label : { ...label, aside };
  });
}
