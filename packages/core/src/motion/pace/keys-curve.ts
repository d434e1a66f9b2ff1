import type { Pace } from '../../document/shot-pace.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';
import type { PaceStop, PaceCurve } from './compiled-pace.js';

/** A pace by keys: the keyed value in metres. */
export function keysCurve({ keys }: Pace, metres: number): PaceCurve {
  const scaled = keys.map(({ frame, value, ease, in: into, out }) => ({
    frame,
    ease,
    value: value * metres,
    in: [into[0], into[1] * metres] as const,
    out: [out[0], out[1] * metres] as const,
  }));
  const { jet } = keyedCurve(scaled);
  const frames = keys.map(({ frame }) => frame);
  return { jet, corners: frames, stops: levels(scaled), from: frames[0], to: frames[frames.length - 1] };
}

/** A level stretch is a stop; several on end are one. */
function levels(keys: readonly { frame: number; value: number; ease: string }[]): PaceStop[] {
  const stops: PaceStop[] = [];
  for (let i = 0; i + 1 < keys.length; i++) {
    const { frame: from, value: distance, ease } = keys[i];
    if (ease !== 'hold' && keys[i + 1].value !== distance) continue;
    const before = stops[stops.length - 1];
    const goesOn = before?.to === from && before.distance === distance;
    stops[goesOn ? stops.length - 1 : stops.length] = {
      from: goesOn ? before.from : from,
      to: keys[i + 1].frame,
      distance,
    };
  }
  return stops;
}
