import { metresPerValue } from './change-unit.js';
import type { Pace } from '../../document/shot-pace.js';
import { cubicJet } from '../../geometry/math/jet.js';
import { paceOf, type CompiledPace, type PaceCurve } from './compiled-pace.js';
import { driveCurve } from './drive-curve.js';
import type { BentTrack } from '../../geometry/path/corners.js';
import { keysCurve } from './keys-curve.js';
import { withOutside } from './outside.js';
import { speedCurve } from './speed-curve.js';

/**
 * Compiles a pace by keys, by speed or by drive. Without what its mode asks for the rider stays at the pace's
 * start.
 *
 * @param fps   frames a second
 * @param track the path; its length is what a lap is worth, its bends what a driven rider slows for
 */
export function compilePace(pace: Pace, fps: number, track: BentTrack): CompiledPace {
  const metres = metresPerValue(pace, track);
  const curve = curveOf(pace, fps, track, metres);
  const [low, high] = track.closed ? [-Infinity, Infinity] : [0, track.length];
  const held = pace.within
    ? ([Math.max(low, pace.within[0]), Math.min(high, pace.within[1])] as const)
    : null;
  return paceOf({ ...curve, jet: withOutside(curve, pace, held ?? [low, high]) }, fps);
}

function curveOf(pace: Pace, fps: number, track: BentTrack, metres: number): PaceCurve {
  if (pace.mode === 'drive' && track.length > 0) return driveCurve(pace, track, fps, metres);
  if (pace.mode === 'speed' && pace.speeds.length > 0) return speedCurve(pace, track, fps, metres);
  if (pace.mode === 'keys' && pace.keys.length > 0) return keysCurve(pace, metres);
  const place = pace.start.value * metres;
  return {
    jet: (_, out) => cubicJet(place, 0, 0, 0, 0, out),
    corners: [],
    stops: [],
    from: -Infinity,
    to: Infinity,
  };
}
