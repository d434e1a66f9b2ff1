import type { ShotPath } from '../../document/shot-path.js';
import { distance3 } from '../math/vec.js';
import { pathCurve } from './compile-path.js';
import type { Curve } from './curve.js';
import { PathError } from './path-error.js';
import { segmentOf } from './segments.js';

/** Samples a segment, and the least for the whole curve. */
const PER_SEGMENT = 4;
const LEAST = 256;

/**
 * Points on a path at about even distances, both ends included, for drawing: the distances are those of chords, for which it need
 * not be measured.
 *
 * @returns x, y, z of each point in turn; null where the path's points make no curve
 */
export function pathOutline(path: ShotPath, count: number): Float64Array | null {
  const curve = curveOrNone(path);
  if (curve === null) return null;
  const { segments } = curve;
  const each = Math.max(PER_SEGMENT, Math.ceil(LEAST / segments.count));
  const chords = each * segments.count;
  const place = (chord: number, out: Float64Array) => {
    const segment = segmentOf(segments, chord / each);
    segments.position(segment, chord / each - segment, out);
  };
  const walked = new Float64Array(chords + 1);
  const [before, now] = [new Float64Array(3), new Float64Array(3)];
  place(0, before);
  for (let chord = 1; chord <= chords; chord++) {
    place(chord, now);
    walked[chord] = walked[chord - 1] + distance3(now, before);
    before.set(now);
  }
  const out = new Float64Array(3 * count);
  for (let i = 0, chord = 0; i < count; i++) {
    const wanted = (walked[chords] * i) / (count - 1);
    while (chord + 1 < chords && walked[chord + 1] < wanted) chord++;
    const length = walked[chord + 1] - walked[chord];
    const part = length > 0 ? Math.min(1, (wanted - walked[chord]) / length) : 0;
    place(chord + part, out.subarray(3 * i));
  }
  return out;
}

function curveOrNone(path: ShotPath): Curve | null {
  try {
    return pathCurve(path);
  } catch (error) {
    if (error instanceof PathError) return null;
    throw error;
  }
}
