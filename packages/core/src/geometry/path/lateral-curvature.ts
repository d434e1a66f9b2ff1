import { vec3 } from 'gl-matrix';
import { hannWeights } from '../math/hann.js';
import type { Vec3 } from '../math/vec.js';
import type { CompiledPath, FrameReference } from './compiled-path.js';

/** Cells a window is divided into. */
const CELLS = 12;
/** No cell is longer, so that the turn within one is never half a circle, metres. */
const LONGEST_CELL = 0.5;
const MOST_CELLS = 1 << 20;

/**
 * How sharply a path turns sideways, averaged under a window: 1/m, positive to the left, in the level plane
 * of its frame of travel (roll of its points left out).
 *
 * The turn of the tangent is what is averaged, cell by cell, so that a corner of a polyline counts for the
 * turn it makes, and a joint where the curvature jumps gives a ramp with no corner in it. On a circle the
 * average is exactly one over the radius. Only what is asked for is computed.
 */
export class LateralCurvature {
  private readonly cells: number;
  private readonly cell: number;
  private readonly weights: Float64Array;
  private readonly turns: Float64Array;
  private readonly averages: Float64Array;
  /** By edge of a cell tangent and left, six numbers. */
  private readonly edges: Float64Array;

  /** @param window metres, above 0 */
  constructor(
    private readonly path: CompiledPath,
    private readonly reference: FrameReference,
    window: number,
  ) {
    const width = Math.min(window, path.length);
    const wanted = Math.ceil(path.length / Math.min(width / CELLS, LONGEST_CELL));
    this.cells = Math.max(4, Math.min(MOST_CELLS, wanted));
    this.cell = path.length / this.cells;
    this.weights = hannWeights(width / this.cell);
    this.turns = new Float64Array(this.cells).fill(NaN);
    this.averages = new Float64Array(this.cells).fill(NaN);
    this.edges = new Float64Array(6 * (this.cells + 1)).fill(NaN);
  }

  /** At a distance; between the middles of cells it runs along a cubic through four of them. */
  at(distance: number): number {
    // Beyond the ends of an open path it goes straight on, and the window leaves the last bend gradually.
    const place = (this.path.closed ? this.path.wrap(distance) : distance) / this.cell - 0.5;
    const i = Math.floor(place);
    const t = place - i;
    const [a, b, c, d] = [this.average(i - 1), this.average(i), this.average(i + 1), this.average(i + 2)];
    // Catmull-Rom: once continuously differentiable, and exact where the average is even.
    return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
  }

  private average(i: number): number {
    const cell = this.index(i);
    if (cell === null) return this.sum(i);
    const cached = this.averages[cell];
    if (!Number.isNaN(cached)) return cached;
    return (this.averages[cell] = this.sum(cell));
  }

  private sum(cell: number): number {
    const reach = (this.weights.length - 1) / 2;
    if (cell < -reach - 1 || (!this.path.closed && cell > this.cells + reach)) return 0;
    let sum = 0;
    for (let k = -reach; k <= reach; k++) sum += this.weights[k + reach] * this.turn(cell + k);
    return sum / this.cell;
  }

  /** The turn to the left within a cell, radians; past the ends of an open path there is none. */
  private turn(i: number): number {
    const cell = this.index(i);
    if (cell === null) return 0;
    const cached = this.turns[cell];
    if (!Number.isNaN(cached)) return cached;
    const a = this.edge(cell);
    const b = this.edge(cell + 1);
    const { edges } = this;
    let sideways = 0;
    let ahead = 0;
    for (let k = 0; k < 3; k++) {
      sideways += (edges[b + k] * edges[a + 3 + k] - edges[a + k] * edges[b + 3 + k]) / 2;
      ahead += edges[a + k] * edges[b + k];
    }
    // Of a turn by an angle its sine was measured; where it is all sideways this gives the angle itself.
    return (this.turns[cell] = sideways * angleOverSine(ahead));
  }

  /** Scratch for tangent and left at the start of a cell. */
  private edge(cell: number): number {
    const at = 6 * cell;
    if (!Number.isNaN(this.edges[at])) return at;
    const { path, cells } = this;
    // The end of a closed path is its start; a hair before it keeps the last frame's own tangent.
    const s = cell < cells ? cell * this.cell : path.length * (1 - 1e-12);
    path.frame(s, frame, 0, this.reference);
    for (let k = 0; k < 3; k++) {
      this.edges[at + k] = frame[9 + k];
      left[k] = frame[3 + k];
      up[k] = frame[6 + k];
    }
    const roll = path.rollAt(s);
    if (roll !== 0) {
      vec3.scale(left, left, Math.cos(roll));
      vec3.scaleAndAdd(left, left, up, -Math.sin(roll));
    }
    for (let k = 0; k < 3; k++) this.edges[at + 3 + k] = left[k];
    return at;
  }

  private index(i: number): number | null {
    if (i >= 0 && i < this.cells) return i;
    if (!this.path.closed) return null;
    const rest = i % this.cells;
    return rest < 0 ? rest + this.cells : rest;
  }
}

/** An angle over its sine, from its cosine; by its series (next term 5/112 sin⁶) where that is exact enough. */
function angleOverSine(cosine: number): number {
  const square = 1 - cosine * cosine;
  if (cosine > 0 && square < 0.004) return 1 + square * (1 / 6 + square * (3 / 40));
  const angle = Math.acos(Math.min(1, Math.max(-1, cosine)));
  const sine = Math.sin(angle);
  return sine > 1e-9 ? angle / sine : 1;
}

const frame = new Float64Array(12);
const left: Vec3 = [0, 0, 0];
const up: Vec3 = [0, 0, 0];

const cached = new WeakMap<CompiledPath, Map<string, LateralCurvature>>();

/** The same for the same path, reference and window, computed once. */
export function lateralCurvatureOf(
  path: CompiledPath,
  reference: FrameReference,
  window: number,
): LateralCurvature {
  const ofPath = cached.get(path) ?? new Map<string, LateralCurvature>();
  cached.set(path, ofPath);
  const key = `${reference} ${window}`;
  const built = ofPath.get(key) ?? new LateralCurvature(path, reference, window);
  ofPath.set(key, built);
  return built;
}

const bendVector: Vec3 = [0, 0, 0];

/** The same at one place, not averaged: a corner counts for nothing, and a joint jumps. */
export function lateralCurvatureAt(path: CompiledPath, reference: FrameReference, s: number): number {
  if (!path.closed && (s < 0 || s > path.length)) return 0;
  path.curvatureVector(s, bendVector);
  path.frame(s, frame, 0, reference);
  const roll = path.rollAt(s);
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    sum += bendVector[k] * (Math.cos(roll) * frame[3 + k] - Math.sin(roll) * frame[6 + k]);
  }
  return sum;
}
