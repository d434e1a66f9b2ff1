import { vec3 } from 'gl-matrix';
import type { Vec3 } from '../math/vec.js';
import type { Bezier } from '../path/bezier.js';

/** Places in order along something that is to become a curve. */
export interface FitSamples {
  /** x, y, z of each place in turn. */
  readonly positions: Float64Array;
  /** Unit tangents by place where they are known; else they are taken from the neighbours. */
  readonly tangents?: Float64Array;
}

/** A fitted piece and the samples it runs between. */
export interface FittedPiece {
  readonly bezier: Bezier;
  readonly from: number;
  readonly to: number;
}

const REFINEMENTS = 6;

/**
 * Cubic pieces through places, none farther from the places than the tolerance, as few as it takes.
 *
 * By least squares on the handles' lengths with the end tangents given, parameters bettered by Newton's
 * method; where that does not reach the tolerance the run is cut at its worst place (Schneider, "An
 * Algorithm for Automatically Fitting Digitized Curves", Graphics Gems, 1990).
 *
 * @param tolerance  metres, above 0
 * @param onProgress told the part (0 to 1) of the samples that is done
 */
export function fitCubics(
  samples: FitSamples,
  tolerance: number,
  onProgress?: (part: number) => void,
): FittedPiece[] {
  const last = samples.positions.length / 3 - 1;
  const pieces: FittedPiece[] = [];
  // An explicit stack: a hundred thousand points may recurse deeper than calls allow.
  const waiting = [{ from: 0, to: last, start: tangentAt(samples, 0, 1), end: tangentAt(samples, last, -1) }];
  for (let run = waiting.pop(); run !== undefined; run = waiting.pop()) {
    const { bezier, worst } = fitOnce(samples.positions, run, tolerance);
    if (worst === null) {
      pieces.push({ bezier, from: run.from, to: run.to });
      onProgress?.(run.to / last);
      continue;
    }
    const middle = tangentAt(samples, worst, 0);
    waiting.push({ from: worst, to: run.to, start: middle, end: run.end });
    waiting.push({ from: run.from, to: worst, start: run.start, end: middle });
  }
  return pieces;
}

/**
 * One cubic from the first to the last place that keeps the given end directions and comes as near to the
 * places between as it can.
 */
export function fitOneCubic(positions: Float64Array, startTangent: Vec3, endTangent: Vec3): Bezier {
  const last = positions.length / 3 - 1;
  const parameters = chordParameters(positions, 0, last);
  let bezier = leastSquares(positions, 0, last, parameters, startTangent, endTangent);
  for (let n = 0; n < 10 * REFINEMENTS; n++) {
    betterParameters(positions, 0, bezier, parameters);
    bezier = leastSquares(positions, 0, last, parameters, startTangent, endTangent);
  }
  return bezier;
}

/** A cubic for a run, and the place to cut the run at where that is not good enough. */
function fitOnce(
  positions: Float64Array,
  run: { from: number; to: number; start: Vec3; end: Vec3 },
  tolerance: number,
): { bezier: Bezier; worst: number | null } {
  const { from, to, start, end } = run;
  const parameters = chordParameters(positions, from, to);
  let bezier = leastSquares(positions, from, to, parameters, start, end);
  if (to - from < 2) return { bezier, worst: null };
  let error = worstPlace(positions, from, bezier, parameters);
  for (let n = 0; n < REFINEMENTS && error.gap > tolerance && error.gap < 16 * tolerance; n++) {
    betterParameters(positions, from, bezier, parameters);
    bezier = leastSquares(positions, from, to, parameters, start, end);
    error = worstPlace(positions, from, bezier, parameters);
  }
  return { bezier, worst: error.gap <= tolerance ? null : error.index };
}

/** The unit tangent at a sample: as given, or by its neighbours on one side (±1) or both (0). */
function tangentAt({ positions, tangents }: FitSamples, i: number, side: -1 | 0 | 1): Vec3 {
  if (tangents) return at(tangents, i);
  if (side !== 0) return directionTo(positions, i, side);
  const direction = vec3.subtract([0, 0, 0], at(positions, i + 1), at(positions, i - 1)) as Vec3;
  const size = vec3.length(direction);
  return size > 1e-9 ? (vec3.scale(direction, direction, 1 / size) as Vec3) : directionTo(positions, i, 1);
}

/** Direction of travel at a sample, towards the nearest distinct sample on one side. */
function directionTo(positions: Float64Array, i: number, side: 1 | -1): Vec3 {
  const last = positions.length / 3 - 1;
  const here = at(positions, i);
  for (let j = i + side; j >= 0 && j <= last; j += side) {
    const direction = vec3.subtract([0, 0, 0], at(positions, j), here) as Vec3;
    if (vec3.length(direction) > 1e-9)
      return vec3.scale(direction, direction, side / vec3.length(direction)) as Vec3;
  }
  return [0, 0, 1];
}

/** Parameters from 0 to 1 by the lengths of the chords. */
function chordParameters(positions: Float64Array, from: number, to: number): Float64Array {
  const parameters = new Float64Array(to - from + 1);
  for (let i = from + 1; i <= to; i++) {
    const a = 3 * i;
    const step = Math.hypot(
      positions[a] - positions[a - 3],
      positions[a + 1] - positions[a - 2],
      positions[a + 2] - positions[a - 1],
    );
    parameters[i - from] = parameters[i - from - 1] + step;
  }
  const whole = parameters[to - from];
  if (whole > 0) for (let n = 0; n < parameters.length; n++) parameters[n] /= whole;
  else for (let n = 0; n < parameters.length; n++) parameters[n] = n / (to - from);
  return parameters;
}

/** The cubic with the given end tangents whose handle lengths bring it nearest to the places. */
function leastSquares(
  positions: Float64Array,
  from: number,
  to: number,
  parameters: Float64Array,
  start: Vec3,
  end: Vec3,
): Bezier {
  const first = at(positions, from);
  const last = at(positions, to);
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let x0 = 0;
  let x1 = 0;
  const alike = vec3.dot(start, end);
  for (let n = 0; n < parameters.length; n++) {
    const u = parameters[n];
    const v = 1 - u;
    const b1 = 3 * u * v * v;
    const b2 = 3 * u * u * v;
    const bFirst = v * v * v + b1;
    const bLast = u * u * u + b2;
    let alongStart = 0;
    let alongEnd = 0;
    for (let k = 0; k < 3; k++) {
      const rest = positions[3 * (from + n) + k] - bFirst * first[k] - bLast * last[k];
      alongStart += rest * start[k];
      alongEnd -= rest * end[k];
    }
    c00 += b1 * b1;
    c01 -= b1 * b2 * alike;
    c11 += b2 * b2;
    x0 += b1 * alongStart;
    x1 += b2 * alongEnd;
  }
  const chord = vec3.distance(first, last);
  const determinant = c00 * c11 - c01 * c01;
  let out = determinant > 1e-12 ? (x0 * c11 - x1 * c01) / determinant : 0;
  let into = determinant > 1e-12 ? (c00 * x1 - c01 * x0) / determinant : 0;
  // Handles that point backward or vanish make loops: a third of the chord is the safe choice (Schneider).
  const least = 1e-4 * chord;
  if (!(out > least && into > least)) out = into = chord / 3;
  return [
    first,
    vec3.scaleAndAdd([0, 0, 0], first, start, out) as Vec3,
    vec3.scaleAndAdd([0, 0, 0], last, end, -into) as Vec3,
    last,
  ];
}

function worstPlace(
  positions: Float64Array,
  from: number,
  bezier: Bezier,
  parameters: Float64Array,
): { gap: number; index: number } {
  const here: Vec3 = [0, 0, 0];
  let most = 0;
  let index = from + (parameters.length >> 1);
  for (let n = 1; n < parameters.length - 1; n++) {
    bezierAt(bezier, parameters[n], here);
    const a = 3 * (from + n);
    const gap = Math.hypot(positions[a] - here[0], positions[a + 1] - here[1], positions[a + 2] - here[2]);
    if (gap > most) {
      most = gap;
      index = from + n;
    }
  }
  return { gap: most, index };
}

/** One step of Newton's method for each parameter towards the place of the curve nearest to its sample. */
function betterParameters(
  positions: Float64Array,
  from: number,
  [p0, p1, p2, p3]: Bezier,
  parameters: Float64Array,
) {
  for (let n = 1; n < parameters.length - 1; n++) {
    const u = parameters[n];
    const v = 1 - u;
    let slope = 0;
    let bend = 0;
    for (let k = 0; k < 3; k++) {
      const value = v * v * v * p0[k] + 3 * u * v * v * p1[k] + 3 * u * u * v * p2[k] + u * u * u * p3[k];
      const first = 3 * (v * v * (p1[k] - p0[k]) + 2 * u * v * (p2[k] - p1[k]) + u * u * (p3[k] - p2[k]));
      const second = 6 * (v * (p2[k] - 2 * p1[k] + p0[k]) + u * (p3[k] - 2 * p2[k] + p1[k]));
      const gap = value - positions[3 * (from + n) + k];
      slope += gap * first;
      bend += first * first + gap * second;
    }
    if (bend > 0) parameters[n] = Math.min(1, Math.max(0, u - slope / bend));
  }
}

function bezierAt([p0, p1, p2, p3]: Bezier, u: number, out: Vec3): void {
  const v = 1 - u;
  for (let k = 0; k < 3; k++) {
    out[k] = v * v * v * p0[k] + 3 * u * v * v * p1[k] + 3 * u * u * v * p2[k] + u * u * u * p3[k];
  }
}

function at(positions: Float64Array, i: number): Vec3 {
  return [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
}
