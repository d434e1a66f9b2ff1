import type { Pace, SpeedKey } from '../../document/shot-pace.js';
import { keyedCurve, type CurveKey } from '../../geometry/math/keyed-curve.js';
import { newJet } from '../../geometry/math/jet.js';
import type { PaceStop, PaceCurve } from './compiled-pace.js';
import { speedField } from './speed-field.js';
import type { Track } from './track.js';

/**
 * A pace by speed: keys by frame are integrated in closed form, keys by distance solve ds/dt = v(s). Beyond
 * its keys the speed stays, unless cycles are asked for there.
 *
 * @param metres what the start's value is in
 */
export function speedCurve(pace: Pace, track: Track, fps: number, metres: number): PaceCurve {
  const { speeds, start } = pace;
  return speeds[0].frame === undefined
    ? byDistance(speeds, start.value * metres, start.frame, track, fps)
    : byFrame(pace, start.value * metres, fps);
}

function byFrame({ speeds, start, before, after }: Pace, place: number, fps: number): PaceCurve {
  const keys = speeds.map(({ frame, speed, ease }): CurveKey => ({ frame: frame ?? 0, value: speed, ease }));
  const curve = keyedCurve(keys);
  const base = place - curve.integral(start.frame) / fps;
  const frames = keys.map(({ frame }) => frame);
  const goesOn = (outside: Pace['before']) => outside === 'hold' || outside === 'run';
  const speed = newJet();
  const single = keys.length < 2;
  return {
    jet(frame, out) {
      curve.jet(frame, speed);
      out[0] = base + curve.integral(frame) / fps;
      for (let k = 1; k < 4; k++) out[k] = speed[k - 1] / fps;
    },
    corners: frames,
    stops: stopsOf(keys, (frame) => base + curve.integral(frame) / fps),
    from: single || goesOn(before) ? -Infinity : frames[0],
    to: single || goesOn(after) ? Infinity : frames[frames.length - 1],
  };
}

function stopsOf(keys: readonly CurveKey[], distance: (frame: number) => number): PaceStop[] {
  return keys.flatMap(({ frame, value, ease }, i): PaceStop[] => {
    const next = keys[i + 1];
    if (value !== 0 || next === undefined || (ease !== 'hold' && next.value !== 0)) return [];
    return [{ from: frame, to: next.frame, distance: distance(frame) }];
  });
}

function byDistance(
  speeds: readonly SpeedKey[],
  place: number,
  startFrame: number,
  track: Track,
  fps: number,
): PaceCurve {
  const keys = speeds.map(({ distance, speed, ease }): CurveKey => ({
    frame: distance ?? 0,
    value: speed,
    ease,
  }));
  const field = speedField(keys, track);
  const begun = field.timeAt(place);
  const now = newJet();
  const [squared, cubed] = [fps ** 2, fps ** 3];
  return {
    jet(frame, out) {
      const s = field.placeAt(begun + (frame - startFrame) / fps);
      field.jet(s, now);
      const [v, slope, bend] = now;
      out[0] = s;
      out[1] = v / fps;
      out[2] = (v * slope) / squared;
      out[3] = (v * (slope * slope + v * bend)) / cubed;
    },
    corners: [],
    stops: [],
    from: -Infinity,
    to: Infinity,
  };
}
