import { readSum } from './sum';

/** Meaning of a number, and so the units in which it may be typed. */
export type QuantityKind = 'length' | 'angle' | 'speed' | 'time' | 'frame' | 'count';

/** Factor to the kind's own unit (metres, degrees, m/s, seconds, frames), by unit as typed. */
const UNITS: Record<QuantityKind, Record<string, number>> = {
  length: { m: 1, cm: 0.01, mm: 0.001, km: 1000, ft: 0.3048, in: 0.0254 },
  angle: { '°': 1, deg: 1, rad: 180 / Math.PI, turn: 360 },
  speed: { 'm/s': 1, 'km/h': 1 / 3.6, mph: 0.44704 },
  time: { s: 1, ms: 0.001, min: 60 },
  frame: { f: 1 },
  count: {},
};

/** The unit a kind is shown in. */
export const SHOWN_UNIT: Record<QuantityKind, string> = {
  length: 'm',
  angle: '°',
  speed: 'm/s',
  time: 's',
  frame: 'f',
  count: '',
};

/**
 * Reads a typed quantity: "2.5", "2.5 m", "90 cm", "30 km/h", "1.5 s", or a sum of such: "232.8 / 12". One that begins with a sign
 * goes on from the value that is there: "+2 m", "*1.5"; "20 %" is a part of it. Frames are also taken as seconds, and seconds as
 * frames, through `fps`.
 *
 * @param now the value that is there
 * @returns the value in the kind's own unit, or a sentence about what was expected
 */
export function readQuantity(text: string, kind: QuantityKind, fps = 24, now = 0): number | string {
  const units = Object.keys(UNITS[kind]);
  const expected =
    units.length > 0
      ? `Expected a number, one with ${units.join(', ')}, or a sum of them.`
      : 'Expected a number, or a sum.';
  const inUnits = (value: number, unit: string): number | null => {
    if (unit === '') return value;
    if (kind === 'frame' && unit in UNITS.time) return value * UNITS.time[unit] * fps;
    if (kind === 'time' && unit === 'f') return value / fps;
    const factor = UNITS[kind][unit];
    return factor === undefined ? null : value * factor;
  };
  return readSum(text, now, inUnits) ?? expected;
}

/** A value as shown: at most `digits` decimals, no trailing zeros, a true minus. */
export function showNumber(value: number, digits = 3): string {
  const text = value.toFixed(digits).replace(/\.?0+$/, digits > 0 ? '' : '$&');
  return (text === '-0' ? '0' : text).replace('-', '−');
}
