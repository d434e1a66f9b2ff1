import { aimedAt } from './rider-axes.js';
import { cuesBehind, eachAction } from './each-action.js';
import { ShotError } from './shot-error.js';
import type { Cue } from './shot-cue.js';
import type { Rider } from './shot-rider.js';
import type { Shot } from './shot.js';

/** The cues that act on a rider's timing. */
export function timingCues(cues: readonly Cue[], id: string): Cue[] {
  return eachAction(cues).filter(
    ({ action, off }) =>
      !off && action.rider === id && (action.kind === 'start' || action.kind === 'stopEnd'),
  );
}

/** The riders that a cue listens to, by itself or through other cues. */
export function listenedTo(cue: Cue, cues: readonly Cue[]): string[] {
  return cuesBehind(cue, cues).flatMap(({ trigger }) =>
    trigger.kind === 'frame' || trigger.kind === 'cue'
      ? []
      : [trigger.rider, trigger.other].filter((id) => id !== null),
  );
}

/** Cues that control how much a rider follows its path, or faces its travel. */
export function blendingCues(cues: readonly Cue[], id: string): Cue[] {
  return eachAction(cues).filter(
    ({ action, off }) =>
      !off && action.rider === id && (action.kind === 'facing' || action.kind === 'attachment'),
  );
}

/** The cues that turn a rider out to another path. */
export function turnoutCues(cues: readonly Cue[], id: string): Cue[] {
  return eachAction(cues).filter(({ action, off }) => !off && action.rider === id && action.kind === 'path');
}

/**
 * The riders whose poses or timing a cue needs that blends a rider's own pose, or turns it out. How far it has come itself, how fast it goes and when
 * it stops do not follow from its pose.
 */
function blendedBy(cues: readonly Cue[], id: string): string[] {
  return [...blendingCues(cues, id), ...turnoutCues(cues, id)]
    .flatMap((cue) => cuesBehind(cue, cues))
    .flatMap(({ trigger }) => {
      const heard = trigger.kind === 'frame' || trigger.kind === 'cue' ? [] : [trigger.rider, trigger.other];
      return heard.filter((one) => one !== null && (one !== id || trigger.kind === 'gap')) as string[];
    });
}

/** A rider's dependency on another that a field of its own names. */
export interface RiderLink {
  /** Path of the field below the rider, for messages. */
  readonly field: string;
  /** Id of the other rider. */
  readonly rider: string;
  /** Whether the other's pace counts alone, and not its place. */
  readonly paceAlone: boolean;
}

/**
 * The riders that a rider's own fields make its pose depend on, field by field. Everything else that asks what depends
 * on what (circles, groups, forces, what an edit invalidates) follows from this and from the cues.
 */
export function riderLinks(rider: Rider): RiderLink[] {
  const { attachment, clearance, follow, frozen, parent, parentKeys } = rider;
  // A frozen rider depends on nothing.
  if (frozen !== null) return [];
  const links: RiderLink[] = [];
  const add = (field: string, id: string | null | undefined, paceAlone = false) => {
    if (id !== null && id !== undefined) links.push({ field, rider: id, paceAlone });
  };
  add('parent', parent);
  parentKeys.forEach((key, i) => add(`parentKeys[${i}].rider`, key.rider));
  add(attachment ? 'attachment.facing.target.rider' : 'restAim.target.rider', aimedAt(rider)?.rider);
  if (attachment === null) add('follow.rider', follow?.rider);
  else {
    add('attachment.coupledTo.rider', attachment.coupledTo?.rider);
    add('attachment.pacedBy.rider', attachment.pacedBy?.rider, true);
    clearance?.from.forEach((other, i) => add(`clearance.from[${i}].rider`, other.rider));
  }
  return links;
}

/** Riders that a rider's pose depends on: by its own fields and by cues. */
export function ridersBehind(rider: Rider, cues: readonly Cue[]): string[] {
  return [...riderLinks(rider).map((link) => link.rider), ...cuedBy(rider, cues)];
}

/** Riders whose place a rider's pose depends on: {@link ridersBehind} without those of which only the pace counts. */
export function placesBehind(rider: Rider, cues: readonly Cue[]): string[] {
  const links = riderLinks(rider).filter(({ paceAlone }) => !paceAlone);
  return [...links.map((link) => link.rider), ...cuedBy(rider, cues)];
}

/** Riders that a rider's pose depends on by cues. */
function cuedBy({ id, frozen }: Rider, cues: readonly Cue[]): string[] {
  if (frozen !== null) return [];
  return [...timingCues(cues, id).flatMap((cue) => listenedTo(cue, cues)), ...blendedBy(cues, id)];
}

/** Riders in groups, in the order of their first: those of one wait for none of another, for their poses or for what cues do to them. */
export function riderGroups(riders: readonly Rider[], cues: readonly Cue[]): Rider[][] {
  const byId = new Map(riders.map((rider) => [rider.id, rider]));
  const cuing = new Map<string, Cue[]>();
  for (const cue of eachAction(cues))
    cuing.set(cue.action.rider, [...(cuing.get(cue.action.rider) ?? []), cue]);
  const head = new Map(riders.map((rider) => [rider, rider]));
  const headOf = (rider: Rider): Rider => {
    let found = rider;
    for (let next = head.get(found); next && next !== found; next = head.get(found)) found = next;
    head.set(rider, found);
    return found;
  };
  for (const rider of riders) {
    const own = cuing.get(rider.id) ?? [];
    for (const id of [...ridersBehind(rider, cues), ...own.flatMap((cue) => listenedTo(cue, cues))]) {
      const other = byId.get(id ?? '');
      if (other) head.set(headOf(other), headOf(rider));
    }
  }
  // Dynamic bodies are computed together.
  const forced = riders.filter((rider) => rider.rigidBody !== null);
  for (const rider of forced.slice(1)) head.set(headOf(rider), headOf(forced[0]));
  const groups = new Map<Rider, Rider[]>();
  for (const rider of riders) {
    const group = groups.get(headOf(rider));
    if (group) group.push(rider);
    else groups.set(headOf(rider), [rider]);
  }
  return [...groups.values()];
}

/**
 * A circle of riders that each wait for the next: carried by it, following it, timed or cued by it, or aimed at it.
 *
 * @returns the riders of the circle, the first again at the end; null where there is none
 */
function riderCircle(riders: readonly Rider[], cues: readonly Cue[]): Rider[] | null {
  const byId = new Map(riders.map((rider) => [rider.id, rider]));
  const done = new Set<Rider>();
  for (const start of riders) {
    // A walk in depth with its own stack: chains of a thousand riders are allowed.
    const chain: Rider[] = [];
    const open: { rider: Rider; next: string[] }[] = [];
    const enter = (rider: Rider) => {
      chain.push(rider);
      open.push({ rider, next: ridersBehind(rider, cues) });
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
export function refuseCircles({ riders, cues }: Pick<Shot, 'riders' | 'cues'>): void {
  const circle = riderCircle(riders, cues);
  if (circle === null) return;
  const [first, second] = circle;
  const link = riderLinks(first).find(({ rider }) => rider === second.id);
  const cue = eachAction(cues).find(
    (one) => one.action.rider === first.id && !one.off && listenedTo(one, cues).includes(second.id),
  );
  throw new ShotError(
    link
      ? `riders[${riders.indexOf(first)}].${link.field}`
      : `cues[${cues.findIndex(({ id }) => id === cue?.id)}].trigger`,
    circle.map(({ name }) => name).join(' → '),
    'riders that carry, follow, time, cue, aim at and keep clear of each other in no circle',
  );
}
