import type { StageLabel } from './stage-labels';

/** A badge's room on the screen, pixels. */
export const BADGE = { width: 34, height: 22 };
/**
 * By the kind of a label its middle from the place it is of, and its room with a badge's, in which no badge can be: pixels, as badges
 * are placed. Tags are beside their place, grips below or on it.
 */
const ROOMS: Readonly<Record<string, { right: number; down: number; width: number; height: number }>> = {
  laid: { right: 0, down: 4, width: 47, height: 22 },
  import: { right: 0, down: -17, width: 47, height: 22 },
};
const TAG = { right: 31, down: -17, width: 39, height: 19 };
/** So many rings of places around its own are tried before a badge is left out. */
const RINGS = 5;
const HERE = [0, 0] as const;
/** Its own place and those around it, nearest first: below and above before beside. */
const HERE_AND_AROUND: readonly (readonly [x: number, y: number])[] = [
  HERE,
  ...Array.from({ length: RINGS }, (_, i) => i + 1).flatMap((ring) => {
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
  }),
];

/** Whether a label is a rider's badge. */
export const isBadge = ({ key }: StageLabel): boolean => key.startsWith('rider ');

/**
 * Moves riders' badges aside that would lie over one that comes before them, or under a tag, each by as little as there is room
 * for; where there is none near, a badge is left out. Others stay where they are.
 */
export function stepAside(labels: readonly StageLabel[]): StageLabel[] {
  const taken = labels
    .filter((label) => !isBadge(label))
    .map(({ key, x, y }) => {
      const { right, down, ...room } = ROOMS[key.split(' ')[0]] ?? TAG;
      return { x: x + right, y: y + down, ...room };
    });
  return labels.flatMap((label) => {
    if (!isBadge(label)) return [label];
    const isFree = ([dx, dy]: readonly [x: number, y: number]) =>
      taken.every(
        ({ x, y, width, height }) =>
          Math.abs(x - label.x - dx) >= width || Math.abs(y - label.y - dy) >= height,
      );
    const way = HERE_AND_AROUND.find(isFree);
    if (way === undefined) return [];
    const aside = { x: label.x + way[0], y: label.y + way[1] };
    taken.push({ ...aside, ...BADGE });
    return [way === HERE ? label : { ...label, aside }];
  });
}
