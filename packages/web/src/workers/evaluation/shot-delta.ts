import type { Shot } from '@fleet-rail/core';

/** A path or rider unchanged since the last shot. */
interface Unchanged {
  readonly same: string;
}

/** One of which only some fields are other objects than before; the rest keeps its identity on the other side. */
interface Changed<T> {
  readonly of: string;
  readonly fields: Partial<T>;
}

type Sent<T> = T | Unchanged | Changed<T>;

/**
 * A shot as it is sent to the worker: an object that is the same as last time is sent as its id. So the worker keeps
 * its own objects, and everything cached by their identity.
 */
export interface ShotDelta {
  readonly shot: Omit<Shot, 'paths' | 'riders'>;
  readonly paths: readonly Sent<Shot['paths'][number]>[];
  readonly riders: readonly Sent<Shot['riders'][number]>[];
}

/** Message that brings a worker from `before` to `after`. */
export function encodeDelta(before: Shot | null, after: Shot): ShotDelta {
  const { paths, riders, ...shot } = after;
  return { shot, paths: changed(before?.paths, paths), riders: changed(before?.riders, riders) };
}

/** The shot of a delta, built on the one before it. */
export function decodeDelta(before: Shot | null, delta: ShotDelta): Shot {
  return {
    ...delta.shot,
    paths: restored(before?.paths, delta.paths),
    riders: restored(before?.riders, delta.riders),
  };
}

function changed<T extends { id: string }>(before: readonly T[] | undefined, after: readonly T[]): Sent<T>[] {
  const known = new Map(before?.map((item) => [item.id, item]));
  return after.map((item): Sent<T> => {
    const kept = known.get(item.id);
    if (kept === undefined) return item;
    if (kept === item) return { same: item.id };
    const keys = Object.keys(item) as (keyof T & string)[];
    // A removed field cannot be expressed.
    if (keys.length !== Object.keys(kept).length) return item;
    const other = keys.filter((key) => item[key] !== kept[key]);
    const fields = Object.fromEntries(other.map((key) => [key, item[key]])) as Partial<T>;
    return { of: item.id, fields };
  });
}

function restored<T extends { id: string }>(before: readonly T[] | undefined, sent: readonly Sent<T>[]): T[] {
  const previous = new Map(before?.map((item) => [item.id, item]));
  const known = (id: string): T => {
    const kept = previous.get(id);
    if (kept === undefined) throw new Error(`The worker does not know "${id}".`);
    return kept;
  };
  return sent.map((item) => {
    if ('same' in item) return known(item.same);
    if ('fields' in item) return { ...known(item.of), ...item.fields };
    return item;
  });
}
