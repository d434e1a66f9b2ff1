import { guardedNewton } from '../math/search.js';
import { gaussLegendreRule } from '../math/gauss-legendre.js';
import { lengthOnce } from './segment-length.js';
import type { Segments } from './segments.js';

/**
 * The inverse of arc length, u(s), as a table of quintics that were each proven against the speed.
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
const TOLERANCE = 5e-10;
const DEEPEST = 40;

/**
 * Cuts every segment into pieces until, on each, the quintic Hermite interpolant of u(s) (from
 * u′ = 1/σ, u″ = −σ′/σ³ at both ends) is proven to run at one metre a metre. Where the speed σ vanishes
 * (a handle of no length, a cusp) the pieces shrink until they are shorter than the tolerance.
 *
 * The proof: with h the length of the piece by 12-point Gauss-Legendre, δ(t) = σ(u(t)) u′(t) / h − 1 is the
 * rate at which the interpolant gains on the true length. Nowhere has it gained more than h times the mean of
 * |δ|, taken at five nodes that are none of the rule's own. The mean of δ is the error of h: it has to be
 * nought within what five nodes can tell. On a piece so short that a quintic is this good, whose error is of the
 * sixth order, that of the rule, of the 24th, is far below it.
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
  const size = start[k + 1] - from;
  // A segment too short for double precision at its position has an end and no inside.
  const t = size > 0 ? (s - from) / size : 1;
  const at = 6 * k;
  const u = q[at] + t * (q[at + 1] + t * (q[at + 2] + t * (q[at + 3] + t * (q[at + 4] + t * q[at + 5]))));
  return segment[k] + Math.min(1, Math.max(0, u));
}

/**
 * The distance at u of a segment: the inverse of {@link parameterAt}, by Newton's method on the piece that holds it.
 */
export function distanceAt(table: ArcTable, i: number, u: number): number {
  if (u <= 0) return table.segmentStart[i];
  if (u >= 1) return table.segmentStart[i + 1];
  const { start, segment, quintic: q } = table;
  let k = 0;
  let high = segment.length - 1;
  while (k < high) {
    const middle = (k + high + 1) >> 1;
    if (segment[middle] + q[6 * middle] <= i + u) k = middle;
    else high = middle - 1;
  }
  const at = 6 * k;
  const wanted = i + u - segment[k];
  const t = guardedNewton(
    (x, out) => {
      const c3 = q[at + 3];
      const c4 = q[at + 4];
      const c5 = q[at + 5];
      out[0] = q[at] + x * (q[at + 1] + x * (q[at + 2] + x * (c3 + x * (c4 + x * c5)))) - wanted;
      out[1] = q[at + 1] + x * (2 * q[at + 2] + x * (3 * c3 + x * (4 * c4 + x * 5 * c5)));
    },
    0,
    1,
    0.5,
    1e-15,
  );
  return start[k] + t * (start[k + 1] - start[k]);
}

const proof = gaussLegendreRule(5);

/** One end of a piece: its parameter, and speed and its change there. */
interface PieceEnd {
  readonly u: number;
  readonly speed: number;
  readonly slope: number;
}

class TableBuilder {
  length = 0;
  private count = 0;
  private start = new Float64Array(64);
  private segment = new Int32Array(64);
  private quintic = new Float64Array(6 * 64);
  private readonly tolerance: number;
  private readonly wholes: Float64Array;

  constructor(private readonly segments: Segments) {
    this.wholes = new Float64Array(segments.count);
    let rough = 0;
    for (let i = 0; i < segments.count; i++) {
      this.wholes[i] = lengthOnce(segments, i, 0, 1);
      rough += this.wholes[i];
    }
    this.tolerance = rough * TOLERANCE;
  }

  addSegment(i: number): void {
    this.refine(i, this.endAt(i, 0), this.endAt(i, 1), this.wholes[i], 0);
  }

  private endAt(i: number, u: number): PieceEnd {
    return { u, speed: this.segments.speed(i, u), slope: this.segments.speedSlope(i, u) };
  }

  finish(): Omit<ArcTable, 'segmentStart'> {
    const pieces = this.count;
    const start = this.start.slice(0, pieces + 1);
    start[pieces] = this.length;
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
      segment: this.segment.slice(0, pieces),
      quintic: this.quintic.slice(0, 6 * pieces),
    };
  }

  private refine(i: number, from: PieceEnd, to: PieceEnd, length: number, depth: number): void {
    if (length < this.tolerance || depth === DEEPEST) {
      if (length > 0) this.push(i, length, from.u, to.u - from.u, 0, 0, 0, 0);
      return;
    }
    if (this.tryPiece(i, from, to, length)) return;
    const middle = this.endAt(i, (from.u + to.u) / 2);
    this.refine(i, from, middle, lengthOnce(this.segments, i, from.u, middle.u), depth + 1);
    this.refine(i, middle, to, lengthOnce(this.segments, i, middle.u, to.u), depth + 1);
  }

  /** Keeps the quintic of a piece where it proves true; false where it does not. */
  private tryPiece(i: number, from: PieceEnd, to: PieceEnd, h: number): boolean {
    const { segments, tolerance } = this;
    const { u: u0, speed: speed0 } = from;
    const { u: u1, speed: speed1 } = to;
    if (speed0 === 0 || speed1 === 0) return false;
    const v0 = h / speed0;
    const v1 = h / speed1;
    const a0 = (-v0 * v0 * from.slope) / speed0;
    const a1 = (-v1 * v1 * to.slope) / speed1;
    const rise = u1 - u0;
    const c2 = a0 / 2;
    const c3 = 10 * rise - 6 * v0 - 4 * v1 - 1.5 * a0 + 0.5 * a1;
    const c4 = -15 * rise + 8 * v0 + 7 * v1 + 1.5 * a0 - a1;
    const c5 = 6 * rise - 3 * v0 - 3 * v1 - 0.5 * a0 + 0.5 * a1;
    let gain = 0;
    let strays = 0;
    for (let k = 0; k < 5; k++) {
      const t = (1 + proof.nodes[k]) / 2;
      const u = u0 + t * (v0 + t * (c2 + t * (c3 + t * (c4 + t * c5))));
      if (!(u >= u0 && u <= u1)) return false;
      const rate = v0 + t * (2 * c2 + t * (3 * c3 + t * (4 * c4 + t * 5 * c5)));
      const delta = (segments.speed(i, u) * rate) / h - 1;
      gain += (proof.weights[k] / 2) * delta;
      strays += (proof.weights[k] / 2) * Math.abs(delta);
      if (h * strays > tolerance) return false;
    }
    if (h * Math.abs(gain) > tolerance / 20) return false;
    this.push(i, h, u0, v0, c2, c3, c4, c5);
    return true;
  }

  private push(i: number, h: number, c0: number, c1: number, c2: number, c3: number, c4: number, c5: number) {
    if (this.count + 1 >= this.start.length) this.grow();
    const { quintic } = this;
    const at = 6 * this.count;
    this.start[this.count] = this.length;
    this.segment[this.count] = i;
    quintic[at] = c0;
    quintic[at + 1] = c1;
    quintic[at + 2] = c2;
    quintic[at + 3] = c3;
    quintic[at + 4] = c4;
    quintic[at + 5] = c5;
    this.count++;
    this.length += h;
  }

  private grow(): void {
    const size = 2 * this.start.length;
    const { start, segment, quintic } = this;
    this.start = new Float64Array(size);
    this.start.set(start);
    this.segment = new Int32Array(size);
    this.segment.set(segment);
    this.quintic = new Float64Array(6 * size);
    this.quintic.set(quintic);
  }
}
