import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';

/** The rider whose timing another goes by, and how: hung behind it, or so much later. */
export type Leading =
  | { readonly by: 'follows'; readonly leader: Rider; readonly hitch: Hitch }
  | { readonly by: 'pacedBy'; readonly leader: Rider; readonly hitch: Hitch };

/** The id of the rider a hitch names for its timing; null where it has a pace of its own. */
export function leaderIdOf({ follows, pacedBy }: Pick<Hitch, 'follows' | 'pacedBy'>): string | null {
  return (follows ?? pacedBy)?.rider ?? null;
}

/** Whether a hitch says itself when to be where: it names nobody for its timing. */
export function hasOwnPace(hitch: Pick<Hitch, 'follows' | 'pacedBy'>): boolean {
  return leaderIdOf(hitch) === null;
}

/**
 * Who leads a rider. A rider that is to hang behind one of another path, or takes its time from one that rides nothing,
 * goes by its own pace.
 *
 * @param find gives a rider by id
 * @returns null for one that goes by its own pace
 */
export function leadingOf({ hitch }: Rider, find: (id: string) => Rider | undefined): Leading | null {
  if (hitch === null) return null;
  const { follows, pacedBy } = hitch;
  const ahead = follows && find(follows.rider);
  if (ahead?.hitch && ahead.hitch.path === hitch.path) return { by: 'follows', leader: ahead, hitch };
  const clock = pacedBy && find(pacedBy.rider);
  return clock?.hitch ? { by: 'pacedBy', leader: clock, hitch } : null;
}

/** The rider at the head of those that go by one another's timing: the rider itself, where it goes by its own. */
export function headOf(rider: Rider, find: (id: string) => Rider | undefined): Rider {
  const passed = new Set<Rider>();
  let head = rider;
  // A document may be asked before circles are refused.
  for (
    let leading = leadingOf(head, find);
    leading && !passed.has(leading.leader);
    leading = leadingOf(head, find)
  ) {
    passed.add(head);
    head = leading.leader;
  }
  return head;
}
