import type { ArcTable } from './arc-table.js';
import { HALTED } from './tangent.js';

/**
 * Position and level frame of a path of cubics that is nowhere steep, by distance: arc table, cubic and frame in one go
 * over flat arrays. What is asked for in order finds its piece of the table where it was.
 */
export class FlatFrames {
  private piece = 0;
  private readonly cells: number;
  private readonly start: Float64Array;
  private readonly hint: Int32Array;
  private readonly quintic: Float64Array;
  /** By piece where its segment begins in the coefficients. */
  private readonly cubic: Int32Array;
  /** By piece one over its length. */
  private readonly scale: Float64Array;

  /** @param coefficients as in CubicSegments */
  constructor(
    { start, hint, quintic, segment, length }: ArcTable,
    private readonly coefficients: Float64Array,
  ) {
    this.start = start;
    this.hint = hint;
    this.quintic = quintic;
    this.cells = hint.length / length;
    this.cubic = segment.map((i) => 12 * i);
    this.scale = Float64Array.from(segment, (_, k) => 1 / (start[k + 1] - start[k]));
  }

  /**
   * Writes position, left, up and forward into twelve numbers from `out[at]`.
   *
   * @param s metres, already brought into 0 … length
   * @returns false where the path halts or stands upright, so that its speed tells no level direction; nothing is written then
   */
  write(s: number, out: Float64Array, at: number): boolean {
    const { start, quintic: q } = this;
    const last = this.cubic.length - 1;
    let k = this.piece;
    if (s < start[k] || (s >= start[k + 1] && k < last)) {
      const { hint } = this;
      const cell = Math.floor(s * this.cells);
      k = hint[cell < hint.length ? cell : hint.length - 1];
      while (k < last && s >= start[k + 1]) k++;
      this.piece = k;
    }
    const past = (s - start[k]) * this.scale[k];
    // A segment too short for double precision at its position has an end and no inside.
    const t = past < 1 ? past : 1;
    const a = 6 * k;
    const found = q[a] + t * (q[a + 1] + t * (q[a + 2] + t * (q[a + 3] + t * (q[a + 4] + t * q[a + 5]))));
    const u = found < 0 ? 0 : found > 1 ? 1 : found;

    const c = this.coefficients;
    const b = this.cubic[k];
    const x1 = c[b + 1];
    const x2 = c[b + 2];
    const x3 = c[b + 3];
    const y1 = c[b + 5];
    const y2 = c[b + 6];
    const y3 = c[b + 7];
    const z1 = c[b + 9];
    const z2 = c[b + 10];
    const z3 = c[b + 11];
    const dx = x1 + u * (2 * x2 + 3 * u * x3);
    const dy = y1 + u * (2 * y2 + 3 * u * y3);
    const dz = z1 + u * (2 * z2 + 3 * u * z3);
    const level = dx * dx + dz * dz;
    const speed = Math.sqrt(level + dy * dy);
    if (!(speed >= HALTED) || level === 0) return false;

    const part = 1 / speed;
    const x = dx * part;
    const y = dy * part;
    const z = dz * part;
    const flat = 1 / Math.sqrt(level);
    const leftX = dz * flat;
    const leftZ = -dx * flat;
    out[at] = c[b] + u * (x1 + u * (x2 + u * x3));
    out[at + 1] = c[b + 4] + u * (y1 + u * (y2 + u * y3));
    out[at + 2] = c[b + 8] + u * (z1 + u * (z2 + u * z3));
    out[at + 3] = leftX;
    out[at + 4] = 0;
    out[at + 5] = leftZ;
    out[at + 6] = y * leftZ;
    out[at + 7] = z * leftX - x * leftZ;
    out[at + 8] = -y * leftX;
    out[at + 9] = x;
    out[at + 10] = y;
    out[at + 11] = z;
    return true;
  }
}
