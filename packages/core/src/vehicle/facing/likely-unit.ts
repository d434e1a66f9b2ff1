import type { Vec3 } from '../../geometry/math/vec.js';

/** Units that models are made in, metres each. */
export const MODEL_UNITS = [
  { id: 'm', name: 'metres', metres: 1 },
  { id: 'cm', name: 'centimetres', metres: 0.01 },
  { id: 'mm', name: 'millimetres', metres: 0.001 },
  { id: 'in', name: 'inches', metres: 0.0254 },
  { id: 'ft', name: 'feet', metres: 0.3048 },
] as const;
export type ModelUnit = (typeof MODEL_UNITS)[number]['id'];

/** Usual heights of figures and lengths of other things, and the factor within which a size is plausible. */
const FIGURE = { size: 1.75, odd: 4 };
const THING = { size: 4, odd: 15 };

/**
 * Likely unit of a model by its size in metres in the rest pose: metres, unless that is implausible and another is
 * much less so.
 *
 * @param figure whether it is one that walks
 */
export function likelyUnit(low: Vec3, high: Vec3, figure: boolean): ModelUnit {
  const sides = [0, 1, 2].map((k) => high[k] - low[k]);
  const size = Math.max(...sides);
  const usual = figure ? FIGURE : THING;
  const off = (metres: number) => Math.abs(Math.log((size * metres) / usual.size));
  if (!(size > 0) || off(1) <= Math.log(usual.odd)) return 'm';
  const best = MODEL_UNITS.reduce((least, unit) => (off(unit.metres) < off(least.metres) ? unit : least));
  return off(best.metres) < off(1) / 1.5 ? best.id : 'm';
}
