import { ShotError } from './shot-error.js';
import type { Rider } from './shot-rider.js';

/** The riders that a rider's pose is computed from: what carries it, leads it, times it, or is looked at. */
export function ridersBehind({ parent, hitch }: Rider): string[] {
  const ids = [parent, hitch?.follows?.rider, hitch?.pacedBy?.rider];
  if (hitch?.facing.mode === 'aim') ids.push(hitch.facing.target?.rider);
  return ids.filter((id) => id !== null && id !== undefined);
}

/**
 * A circle of riders that each wait for the next: carried by it, following it, timed by it or aimed at it.
 *
 * @returns the riders of the circle, the first again at the end; null where there is none
 */
function riderCircle(riders: readonly Rider[]): Rider[] | null {
  const byId = new Map(riders.map((rider) => [rider.id, rider]));
  const done = new Set<Rider>();
  for (const start of riders) {
    // A walk in depth with its own stack: chains of a thousand riders are allowed.
    const chain: Rider[] = [];
    const open: { rider: Rider; next: string[] }[] = [];
    const enter = (rider: Rider) => {
      chain.push(rider);
      open.push({ rider, next: ridersBehind(rider) });
    };
    if (!done.has(start)) enter(start);
    while (open.length > 0) {
      const { rider, next } = open[open.length - 1];
      const other = byId.get(next.pop() ?? '');
      if (other !== undefined) {
        const at = chain.indexOf(other);
        if (at >= 0) return [...chain.slice(at), other];
        if (!done.has(other)) enter(other);
      } else if (next.length === 0) {
        done.add(rider);
        open.pop();
        chain.pop();
      }
    }
  }
  return null;
}

/**
 * @throws ShotError with the names of riders that wait for each other in a circle
 */
export function refuseCircles(riders: readonly Rider[]): void {
  const circle = riderCircle(riders);
  if (circle === null) return;
  const [first, second] = circle;
  const { parent, hitch } = first;
  const field =
    parent === second.id
      ? 'parent'
      : hitch?.follows?.rider === second.id
        ? 'hitch.follows.rider'
        : hitch?.pacedBy?.rider === second.id
          ? 'hitch.pacedBy.rider'
          : 'hitch.facing.target.rider';
  throw new ShotError(
    `riders[${riders.indexOf(first)}].${field}`,
    circle.map(({ name }) => name).join(' → '),
    'riders that carry, follow, time and aim at each other in no circle',
  );
}
