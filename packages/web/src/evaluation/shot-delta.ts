import type { Shot } from '@fleet-rail/core';

/** A path or rider that is as it was in the shot sent before. */
interface Unchanged {
  readonly same: string;
}

/**
 * A shot as it is sent to the worker: what is the very same object as last time travels as its id.
 * The worker thereby keeps its own objects, and all that is cached by their identity.
 */
export interface ShotDelta {
  readonly shot: Omit<Shot, 'paths' | 'riders'>;
  readonly paths: readonly (Shot['paths'][number] | Unchanged)[];
  readonly riders: readonly (Shot['riders'][number] | Unchanged)[];
}

/** What has to be sent to bring a worker from `before` to `after`. */
export function encodeDelta(before: Shot | null, after: Shot): ShotDelta {
  const { paths, riders, ...shot } = after;
  return { shot, paths: changed(before?.paths, paths), riders: changed(before?.riders, riders) };
}

/** The shot a delta stands for, built on the one before it. */
export function decodeDelta(before: Shot | null, delta: ShotDelta): Shot {
  return {
    ...delta.shot,
    paths: restored(before?.paths, delta.paths),
    riders: restored(before?.riders, delta.riders),
  };
}

function changed<T extends { id: string }>(
  before: readonly T[] | undefined,
  after: readonly T[],
): (T | Unchanged)[] {
  const cached = new Set(before);
  return after.map((item) => (cached.has(item) ? { same: item.id } : item));
}

function restored<T extends { id: string }>(
  before: readonly T[] | undefined,
  sent: readonly (T | Unchanged)[],
): T[] {
  const cached = new Map(before?.map((item) => [item.id, item]));
  return sent.map((item) => {
    if (!('same' in item)) return item;
    const kept = cached.get(item.same);
    if (kept === undefined) throw new Error(`The worker does not know "${item.same}".`);
    return kept;
  });
}
