import type { StageLabel } from './stage-labels';

/**
 * Size of a badge on the screen, pixels: for up to three letters, and an addition for each beyond; its middle is this
 * far below its rider.
 */
export const BADGE = { width: 34, letter: 7, height: 22, below: 17 };
/** By the kind of another label its middle from the place that it is of, and its room. Tags are beside their place, grips below or on it. */
const ROOMS: Readonly<Record<string, Room>> = {
  laid: { x: 0, y: 21, width: 60, height: 22 },
  import: { x: 0, y: 0, width: 60, height: 22 },
};
const TAG: Room = { x: 31, y: 0, width: 44, height: 16 };
/** So many rings of places around its own are tried before a badge is left out. */
const RINGS = 5;
const HERE = [0, 0] as const;
/** Its own place and those around it, in badges, nearest first: below and above before beside. */
const HERE_AND_AROUND: readonly (readonly [x: number, y: number])[] = [
  HERE,
  ...Array.from({ length: RINGS }, (_, i) => i + 1).flatMap(
    (ring) =>
      [
        [0, ring],
        [0, -ring],
        [ring, 0],
        [-ring, 0],
        [ring, ring],
        [-ring, ring],
        [ring, -ring],
        [-ring, -ring],
      ] as const,
  ),
];

/** A rectangle about its middle. */
interface Room {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Whether a label is a rider's badge. */
export const isBadge = ({ key }: StageLabel): boolean => key.startsWith('rider ');

/**
 * Moves riders' badges aside that would lie over one that comes before them, or under another label, each by as little as there is
 * room for; where there is none near, a badge is left out. Others stay where they are.
 */
export function stepAside(labels: readonly StageLabel[]): StageLabel[] {
  const taken = labels.filter((label) => !isBadge(label)).map(roomOf);
  return labels.flatMap((label) => {
    if (!isBadge(label)) return [label];
    const own = badgeRoom(label);
    const at = ([x, y]: readonly [x: number, y: number]): Room => ({
      ...own,
      x: own.x + x * own.width,
      y: own.y + y * own.height,
    });
    const way = HERE_AND_AROUND.find((one) => taken.every((other) => isApart(at(one), other)));
    if (way === undefined) return [];
    const room = at(way);
    taken.push(room);
    return [way === HERE ? label : { ...label, aside: { x: room.x, y: room.y - BADGE.below } }];
  });
}

function roomOf({ key, x, y }: StageLabel): Room {
  const room = ROOMS[key.split(' ')[0]] ?? TAG;
  return { ...room, x: x + room.x, y: y + room.y };
}

function badgeRoom({ x, y, letters = 0 }: StageLabel): Room {
  const width = BADGE.width + BADGE.letter * Math.max(0, letters - 3);
  return { x, y: y + BADGE.below, width, height: BADGE.height };
}

const isApart = (a: Room, b: Room): boolean =>
  Math.abs(a.x - b.x) >= (a.width + b.width) / 2 || Math.abs(a.y - b.y) >= (a.height + b.height) / 2;
