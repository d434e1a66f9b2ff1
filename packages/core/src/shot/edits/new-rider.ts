import type { Shot } from '../../document/shot.js';

/** The first letter of the name, and the lowest number no badge has. */
export function freeBadge(name: string, { riders }: Pick<Shot, 'riders'>): string {
  const numbers = new Set(riders.map((rider) => Number(/\d+$/.exec(rider.badge)?.[0])));
  let number = 1;
  while (numbers.has(number)) number++;
  return `${(/[a-z]/i.exec(name)?.[0] ?? 'R').toUpperCase()}${number}`;
}

/** Of the eight line colours the one that the fewest riders have. */
export function leastUsedColor({ riders }: Pick<Shot, 'riders'>): number {
  const uses = Array.from(
    { length: 8 },
    (_, color) => riders.filter((rider) => rider.color === color).length,
  );
  return uses.indexOf(Math.min(...uses));
}
