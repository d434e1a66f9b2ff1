import type { Pace, PaceKey } from '../../document/shot-pace.js';
import { metresPerValue } from './change-unit.js';
import type { Track } from './track.js';

/** Least and greatest distance of a pace's keys, metres; null for one without keys. */
export function keyedStretch(pace: Pace, track: Pick<Track, 'length'>): [number, number] | null {
  if (pace.mode !== 'keys' || pace.keys.length === 0) return null;
  const metres = metresPerValue(pace, track);
  const values = pace.keys.map(({ value }) => value * metres);
  return [
    values.reduce((a, b) => Math.min(a, b), Infinity),
    values.reduce((a, b) => Math.max(a, b), -Infinity),
  ];
}

/** Keys moved and, where they reach too far, drawn together so that all lie between two distances, metres; their handles with them. */
export function fitKeys(
  pace: Pace,
  track: Pick<Track, 'length'>,
  [from, to]: readonly [number, number],
): Pace {
  const keyed = keyedStretch(pace, track);
  if (keyed === null) return pace;
  const metres = metresPerValue(pace, track);
  const [low, high] = keyed;
  const scale = high - low > to - from ? (to - from) / (high - low) : 1;
  const begin = Math.min(to - scale * (high - low), Math.max(from, low));
  const fitted = (value: number) => (begin + scale * (value * metres - low)) / metres;
  const slope = ([frames, rise]: [number, number]): [number, number] => [frames, scale * rise];
  const keys = pace.keys.map((key): PaceKey => ({
    ...key,
    value: fitted(key.value),
    in: slope(key.in),
    out: slope(key.out),
  }));
  return { ...pace, keys };
}
