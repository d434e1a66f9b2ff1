import type { StageLabel } from './stage-labels';

/** A badge's room on the screen, pixels. */
export const BADGE = { width: 34, height: 22 };
/** A tag's middle from the place it is beside, and its room with a badge's, in which no badge can be: pixels, as badges are placed. */
const TAG = { right: 31, up: 17, width: 39, height: 19 };
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

/** Whether a label is a rider's badge. */
export const isBadge = ({ key }: StageLabel): boolean => key.startsWith('rider ');

/**
 * Moves riders' badges aside that would lie over one that comes before them, or under a tag, each by as little as there is room
 * for. Others stay where they are.
 */
export function stepAside(labels: readonly StageLabel[]): StageLabel[] {
  const taken = labels
    .filter((label) => !isBadge(label))
    .map(({ x, y }) => ({ x: x + TAG.right, y: y - TAG.up, width: TAG.width, height: TAG.height }));
  return labels.map((label) => {
    if (!isBadge(label)) return label;
    const isFree = (x: number, y: number) =>
      taken.every(
        ({ x: tx, y: ty, width, height }) => Math.abs(tx - x) >= width || Math.abs(ty - y) >= height,
      );
    const { x, y } = label;
    const way = isFree(x, y) ? undefined : AROUND.find(([dx, dy]) => isFree(x + dx, y + dy));
    const aside = { x: x + (way?.[0] ?? 0), y: y + (way?.[1] ?? 0) };
    taken.push({ ...aside, ...BADGE });
    return way === undefined ? label : { ...label, aside };
  });
}
