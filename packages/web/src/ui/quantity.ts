/** What a number means, and so which units it may be typed in. */
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
 * Reads a typed quantity: "2.5", "2.5 m", "90 cm", "30 km/h", "1.5 s". Frames are also taken as
 * seconds, and seconds as frames, through `fps`.
 *
 * @returns the value in the kind's own unit, or a sentence about what was expected
 */
export function readQuantity(text: string, kind: QuantityKind, fps = 24): number | string {
  const match = /^\s*([+\-−]?(?:\d+[.,]?\d*|[.,]\d+)(?:e[+-]?\d+)?)\s*(\S*)\s*$/i.exec(text);
  const units = Object.keys(UNITS[kind]);
  const expected =
    units.length > 0 ? `Expected a number, or one with ${units.join(', ')}.` : 'Expected a number.';
  if (!match) return expected;
  const value = Number(match[1].replace('−', '-').replace(',', '.'));
  const unit = match[2].toLowerCase();
  if (unit === '') return value;
  if (kind === 'frame' && unit in UNITS.time) return value * UNITS.time[unit] * fps;
  if (kind === 'time' && unit === 'f') return value / fps;
  const factor = UNITS[kind][unit];
  return factor === undefined ? expected : value * factor;
}

/** A value as shown: at most `digits` decimals, no trailing zeros, a true minus. */
export function showNumber(value: number, digits = 3): string {
  const text = value.toFixed(digits).replace(/\.?0+$/, digits > 0 ? '' : '$&');
  return (text === '-0' ? '0' : text).replace('-', '−');
}
