import type { Shot } from '@fleet-rail/core';

/** Choice of what exported files contain. */
export interface GivenOut {
  readonly riders: 'all' | 'chosen';
  readonly first: number;
  readonly last: number;
  /** How far any place may be off where keys are left out, metres; 0 keeps every key. */
  readonly within: number;
  /** The same for rotations, degrees; null to go by positions alone. */
  readonly turns: number | null;
  readonly closing: boolean;
  readonly clips: boolean;
  readonly facts: boolean;
}

/** Everything, each frame a key; a loop with the key that closes it. */
export const newGivenOut = ({ range, loop }: Pick<Shot, 'range' | 'loop'>): GivenOut => ({
  riders: 'all',
  first: range.first,
  last: range.last,
  within: 0,
  turns: null,
  closing: loop,
  clips: true,
  facts: false,
});

/** The same within a range that was changed since. */
export function withinRange(given: GivenOut, { range }: Pick<Shot, 'range'>): GivenOut {
  const first = Math.min(Math.max(given.first, range.first), range.last);
  return { ...given, first, last: Math.max(first, Math.min(given.last, range.last)) };
}

/** As the server is asked for it. */
export function askedFor(given: GivenOut, chosen: readonly string[], format: string): string {
  const moving = format !== 'csv' && format !== 'tables';
  const fields: [string, string | null][] = [
    ['riders', given.riders === 'chosen' ? chosen.join(',') : null],
    ['from', `${given.first}`],
    ['to', `${given.last}`],
    ['closing', moving && given.closing ? '1' : null],
    ['within', moving && given.within > 0 ? `${given.within}` : null],
    ['turns', moving && given.within > 0 && given.turns !== null ? `${given.turns}` : null],
    ['clips', given.clips ? null : 'drop'],
    ['facts', given.facts ? '1' : null],
  ];
  const query = new URLSearchParams(
    fields.flatMap(([name, value]) => (value === null ? [] : [[name, value]])),
  );
  return query.toString();
}
