import type { Pace, PaceKey } from '../../document/shot-pace.js';
import type { Track } from './track.js';

/** Metres of one unit of a pace's values: a lap of the path, or a metre. */
export function metresPerValue({ unit }: Pick<Pace, 'unit'>, { length }: Pick<Track, 'length'>): number {
  return unit === 'laps' ? length : 1;
}

/**
 * The same motion with its values in another unit: keys, their handles and the start.
 *
 * @param length the path's length in metres, which is what a lap is worth; above 0
 */
export function changeUnit(pace: Pace, unit: Pace['unit'], length: number): Pace {
  if (unit === pace.unit) return pace;
  const factor = metresPerValue(pace, { length }) / metresPerValue({ unit }, { length });
  const scaled = (key: PaceKey): PaceKey => ({
    ...key,
    value: key.value * factor,
    in: [key.in[0], key.in[1] * factor],
    out: [key.out[0], key.out[1] * factor],
  });
  return {
    ...pace,
    unit,
    keys: pace.keys.map(scaled),
    start: { ...pace.start, value: pace.start.value * factor },
  };
}
