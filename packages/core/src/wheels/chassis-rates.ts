import { LOOKS, LOOKS_AT } from '../math/gauss-polynomial.js';
import type { ChassisMotion } from '../rider/chassis-motion.js';

/**
 * How a chassis moves at the looked-at places of a stretch, eight numbers a place: by how much its origin, and each of its
 * own ways (ahead, left, up), move ahead and to the left, per unit of progress. All its wheels go by these.
 */
export const RATES = 8;

/** Derivatives are central differences over so much progress: metres, or frames. */
const NEAR = { metres: 1e-4, frames: 1e-3 };
/** Stretches no longer than these are told by one polynomial. */
const CELL = { metres: 0.25, frames: 0.5 };

/** A chassis' motion stretch by stretch, each looked at once and only where something comes by. */
export class ChassisRates {
  /** Where stretches begin and end. */
  readonly edges: Float64Array;
  private readonly known: (Float64Array | undefined)[] = [];
  private readonly before = new Float64Array(12);
  private readonly after = new Float64Array(12);

  constructor(readonly chassis: ChassisMotion) {
    this.edges = edgesOf(chassis, CELL[chassis.byDistance ? 'metres' : 'frames']);
  }

  /** {@link RATES} numbers for each of the looked-at places. */
  of(stretch: number): Float64Array {
    const known = this.known[stretch];
    if (known) return known;
    const [from, to] = [this.edges[stretch], this.edges[stretch + 1]];
    const out = new Float64Array(LOOKS * RATES);
    LOOKS_AT.forEach((t, i) => this.look(from + t * (to - from), out, i * RATES));
    this.known[stretch] = out;
    return out;
  }

  private look(progress: number, out: Float64Array, at: number): void {
    const { chassis, before, after } = this;
    const near = NEAR[chassis.byDistance ? 'metres' : 'frames'];
    const low = chassis.closed ? progress - near : Math.max(chassis.from, progress - near);
    const high = chassis.closed ? progress + near : Math.min(chassis.to, progress + near);
    chassis.at(low, before);
    chassis.at(high, after);
    const scale = 1 / (high - low);
    // Position, left, up and ahead in the frame; here as origin, ahead, left, up.
    for (let k = 0; k < 3; k++) {
      const ahead = ((before[9 + k] + after[9 + k]) / 2) * scale;
      const left = ((before[3 + k] + after[3 + k]) / 2) * scale;
      for (let part = 0; part < 4; part++) {
        const from = PARTS[part] + k;
        const moved = after[from] - before[from];
        out[at + 2 * part] += moved * ahead;
        out[at + 2 * part + 1] += moved * left;
      }
    }
  }
}

const PARTS = [0, 9, 3, 6] as const;

/** Joints part stretches, and none is longer than a cell. */
function edgesOf({ from, to, joints }: ChassisMotion, cell: number): Float64Array {
  const corners = [from, ...joints.filter((joint) => joint > from && joint < to), to];
  const edges = [from];
  for (let i = 1; i < corners.length; i++) {
    const length = corners[i] - corners[i - 1];
    const parts = Math.max(1, Math.ceil(length / cell));
    for (let k = 1; k <= parts; k++) edges.push(corners[i - 1] + (length * k) / parts);
  }
  return Float64Array.from(edges);
}
