import { lengthOnce, parameterAcceleration, parameterSpeed } from './segment-length.js';
import type { Segments } from './segments.js';

/**
 * The inverse of arc length, u(s), as a table of quintics that were each proven against the integral.
 *
 * Piece k holds from `start[k]` to `start[k + 1]` metres. With t from 0 to 1 across it, the path
 * parameter (segment + u) is segment[k] + Σ quintic[6 k + j] tʲ. `hint` cuts the length into even
 * cells and names the first piece that reaches into each, so that a look-up takes a step or two.
 */
export interface ArcTable {
  readonly length: number;
  readonly start: Float64Array;
  readonly segment: Int32Array;
  readonly quintic: Float64Array;
  readonly hint: Int32Array;
  /** Arc length at the start of each segment, and at the end of the last: count + 1. */
  readonly segmentStart: Float64Array;
}

/** Accepted error of a piece, as a part of the whole length. The promise is 1e-9. */
const TOLERANCE = 1e-10;
const DEEPEST = 40;

/**
 * Cuts every segment into pieces until, on each, the 12-point rule agrees with its halves and the
 * quintic Hermite interpolant of u(s) (from u′ = 1/σ, u″ = −σ′/σ³ at both ends) gives back the
 * integral at ¼, ½ and ¾. Where the speed σ vanishes (a handle of no length, a cusp) the pieces
 * shrink until they are shorter than the tolerance.
 */
export function buildArcTable(segments: Segments): ArcTable {
  const builder = new TableBuilder(segments);
  const segmentStart = new Float64Array(segments.count + 1);
  for (let i = 0; i < segments.count; i++) {
    segmentStart[i] = builder.length;
    builder.addSegment(i);
  }
  segmentStart[segments.count] = builder.length;
  return { ...builder.finish(), segmentStart };
}

/**
 * The path parameter (segment + u) at distance s.
 *
 * @param s metres, already brought into 0 … length
 */
export function parameterAt(table: ArcTable, s: number): number {
  const { start, hint, segment, quintic: q } = table;
  const cells = hint.length;
  const cell = Math.min(cells - 1, Math.max(0, Math.floor((s / table.length) * cells)));
  let k = hint[cell];
  const last = segment.length - 1;
  while (k < last && s >= start[k + 1]) k++;
  const from = start[k];
  const t = (s - from) / (start[k + 1] - from);
  const at = 6 * k;
  const u = q[at] + t * (q[at + 1] + t * (q[at + 2] + t * (q[at + 3] + t * (q[at + 4] + t * q[at + 5]))));
  return segment[k] + Math.min(1, Math.max(0, u));
}

class TableBuilder {
  length = 0;
  private readonly start: number[] = [];
  private readonly segment: number[] = [];
  private readonly quintic: number[] = [];
  private readonly tolerance: number;
  private readonly trial = new Float64Array(6);

  constructor(private readonly segments: Segments) {
    let rough = 0;
    for (let i = 0; i < segments.count; i++) rough += lengthOnce(segments, i, 0, 1);
    this.tolerance = rough * TOLERANCE;
  }

  addSegment(i: number): void {
    this.refine(i, 0, 1, lengthOnce(this.segments, i, 0, 1), 0);
  }

  finish(): Omit<ArcTable, 'segmentStart'> {
    const pieces = this.segment.length;
    const start = Float64Array.from([...this.start, this.length]);
    const hint = new Int32Array(Math.max(1, 2 * pieces));
    let k = 0;
    for (let cell = 0; cell < hint.length; cell++) {
      const s = (cell / hint.length) * this.length;
      while (k < pieces - 1 && start[k + 1] <= s) k++;
      // One piece early: rounding may put a distance a hair before its cell.
      hint[cell] = Math.max(0, k - 1);
    }
    return {
      length: this.length,
      start,
      hint,
      segment: Int32Array.from(this.segment),
      quintic: Float64Array.from(this.quintic),
    };
  }

  private refine(i: number, u0: number, u1: number, whole: number, depth: number): void {
    const middle = (u0 + u1) / 2;
    const left = lengthOnce(this.segments, i, u0, middle);
    const right = lengthOnce(this.segments, i, middle, u1);
    const length = left + right;
    const tiny = length < this.tolerance || depth === DEEPEST;
    const integrates = Math.abs(length - whole) <= this.tolerance / 100;
    if (tiny || (integrates && this.interpolates(i, u0, u1, length, left))) {
      if (tiny) this.setLinear(u0, u1);
      if (length > 0) this.push(i, length);
      return;
    }
    this.refine(i, u0, middle, left, depth + 1);
    this.refine(i, middle, u1, right, depth + 1);
  }

  private push(i: number, length: number): void {
    this.start.push(this.length);
    this.segment.push(i);
    this.quintic.push(...this.trial);
    this.length += length;
  }

  private setLinear(u0: number, u1: number): void {
    this.trial.fill(0);
    this.trial[0] = u0;
    this.trial[1] = u1 - u0;
  }

  /** Sets the trial quintic; true when it gives back the integral at ¼, ½ and ¾. */
  private interpolates(i: number, u0: number, u1: number, h: number, toMiddle: number): boolean {
    const { segments, trial } = this;
    const speed0 = parameterSpeed(segments, i, u0);
    const speed1 = parameterSpeed(segments, i, u1);
    if (speed0 === 0 || speed1 === 0) return false;
    const v0 = h / speed0;
    const v1 = h / speed1;
    const a0 = (-h * h * parameterAcceleration(segments, i, u0)) / speed0 ** 3;
    const a1 = (-h * h * parameterAcceleration(segments, i, u1)) / speed1 ** 3;
    const rise = u1 - u0;
    trial[0] = u0;
    trial[1] = v0;
    trial[2] = a0 / 2;
    trial[3] = 10 * rise - 6 * v0 - 4 * v1 - 1.5 * a0 + 0.5 * a1;
    trial[4] = -15 * rise + 8 * v0 + 7 * v1 + 1.5 * a0 - a1;
    trial[5] = 6 * rise - 3 * v0 - 3 * v1 - 0.5 * a0 + 0.5 * a1;
    const middle = (u0 + u1) / 2;
    for (let quarter = 1; quarter <= 3; quarter++) {
      const t = quarter / 4;
      let u = trial[5];
      for (let j = 4; j >= 0; j--) u = u * t + trial[j];
      if (!(u >= u0 && u <= u1)) return false;
      const reached = toMiddle + lengthOnce(segments, i, middle, u);
      if (Math.abs(reached - t * h) > this.tolerance) return false;
    }
    return true;
  }
}
