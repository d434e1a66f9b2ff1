import type { Vec3, Vec3Like } from '../math/vec.js';
import { buildArcTable, parameterAt, type ArcTable } from './arc-table.js';
import { derivativeAt, positionAt, tangentAt } from './derivatives.js';
import type { Segments } from './segments.js';
import { buildWorldFrameGuide, worldLeft, type WorldFrameGuide } from './world-frame.js';

const forward: Vec3 = [0, 0, 0];
const left: Vec3 = [0, 0, 0];
const first: Vec3 = [0, 0, 0];
const second: Vec3 = [0, 0, 0];

/**
 * A path ready for questions by distance: where is it, which way does it go, which way is up.
 *
 * Distances are metres from the first point. On a closed path they run on past the length and
 * below zero (laps); on an open one they are held at the ends. No question allocates.
 *
 * ```ts
 * const path = compilePath(shot.paths[0]);
 * const frame = new Float64Array(12);
 * path.frame(31.5, frame, 0); // position, left, up, forward
 * ```
 */
export class CompiledPath {
  readonly length: number;
  private readonly table: ArcTable;
  private readonly guide: WorldFrameGuide;

  constructor(
    private readonly segments: Segments,
    readonly closed: boolean,
  ) {
    this.table = buildArcTable(segments);
    this.length = this.table.length;
    this.guide = buildWorldFrameGuide(segments, this.table, closed, (s, out) => {
      tangentAt(segments, parameterAt(this.table, this.wrap(s)), out);
    });
  }

  /** Brings a distance into 0 … length: round a closed path, held at the ends of an open one. */
  wrap(s: number): number {
    const { length } = this;
    if (s >= 0 && s < length) return s;
    if (!this.closed) return s < 0 ? 0 : length;
    const rest = s % length;
    return rest < 0 ? rest + length : rest;
  }

  /** The position at a distance, metres. */
  position(s: number, out: Vec3Like): void {
    positionAt(this.segments, parameterAt(this.table, this.wrap(s)), out);
  }

  /** The unit tangent at a distance. */
  tangent(s: number, out: Vec3Like): void {
    tangentAt(this.segments, parameterAt(this.table, this.wrap(s)), out);
  }

  /**
   * Signed curvature as seen from above, 1/m: positive where the path turns left.
   */
  curvature(s: number): number {
    const parameter = parameterAt(this.table, this.wrap(s));
    derivativeAt(this.segments, parameter, 1, first);
    derivativeAt(this.segments, parameter, 2, second);
    // Y × tangent is left, so a left turn has a positive y in r' × r''.
    const turn = first[2] * second[0] - first[0] * second[2];
    const speed = Math.hypot(first[0], first[1], first[2]);
    return speed > 0 ? turn / speed ** 3 : 0;
  }

  /**
   * Position, left, up and forward in the world reference, twelve numbers from `out[at]`.
   * Up is the world's, made square to the tangent, and carried through vertical stretches.
   */
  frame(s: number, out: Float64Array, at: number): void {
    const place = this.wrap(s);
    const parameter = parameterAt(this.table, place);
    tangentAt(this.segments, parameter, forward);
    worldLeft(this.guide, place, forward, left);
    positionAt(this.segments, parameter, first);
    for (let k = 0; k < 3; k++) {
      const a = (k + 1) % 3;
      const b = (k + 2) % 3;
      out[at + k] = first[k];
      out[at + 3 + k] = left[k];
      out[at + 6 + k] = forward[a] * left[b] - forward[b] * left[a];
      out[at + 9 + k] = forward[k];
    }
  }
}
