import { SAMPLES, SAMPLE_AT, slopeAt } from '../../geometry/math/stretch-polynomial.js';
import type { ChassisTrack } from '../../motion/ride/chassis-motion.js';

/**
 * Motion of a chassis at the samples of a stretch, eight numbers a sample: the motion of its origin, and of each of
 * its own axes (ahead, left, up), ahead and to the left, per unit of progress. All its wheels use these.
 */
export const RATES = 8;

/** Longest stretch of one polynomial: metres, or frames. */
const CELL = { metres: 0.5, frames: 0.5 };
/** Most stretches of very long tracks: 2.5 km in full. */
const MOST_CELLS = 5_000;
/**
 * Turn within a stretch, radians, from which on it is cut into parts, up to a maximum; on tracks with longer cells
 * into fewer, so the longest have as many stretches as cells.
 */
const TURN = 0.25;
const MOST_PARTS = 8;
/** Looks at how tightly a cell and what is around it bends. */
const LOOKS = 8;

/** A chassis' motion stretch by stretch, each computed once and only where needed. */
export class ChassisRates {
  /** Begins and ends of stretches. */
  readonly edges: Float64Array;
  private readonly sampled: Uint8Array;
  /** {@link RATES} numbers for each sample of each computed stretch. */
  readonly all: Float64Array;
  private readonly frames = new Float64Array(SAMPLES * 12);
  private readonly frame = new Float64Array(12);

  constructor(readonly chassis: ChassisTrack) {
    this.edges = edgesOf(chassis, CELL[chassis.byDistance ? 'metres' : 'frames']);
    this.sampled = new Uint8Array(this.edges.length);
    this.all = new Float64Array(this.edges.length * SAMPLES * RATES);
  }

  /** Looks at a stretch, unless that was done; answers where its numbers begin in {@link all}. */
  at(stretch: number): number {
    const to = stretch * SAMPLES * RATES;
    if (this.sampled[stretch] === 1) return to;
    this.sampled[stretch] = 1;
    const { chassis, edges, frames, frame } = this;
    const from = edges[stretch];
    const length = edges[stretch + 1] - from;
    for (let i = 0; i < SAMPLES; i++) {
      chassis.at(from + SAMPLE_AT[i] * length, frame);
      frames.set(frame, 12 * i);
    }
    const out = this.all;
    for (let i = 0; i < SAMPLES; i++) {
      for (let part = 0; part < 4; part++) {
        let ahead = 0;
        let left = 0;
        for (let k = 0; k < 3; k++) {
          const moved = slopeAt(frames, PARTS[part] + k, 12, i) / length;
          ahead += moved * frames[12 * i + 9 + k];
          left += moved * frames[12 * i + 3 + k];
        }
        out[to + i * RATES + 2 * part] = ahead;
        out[to + i * RATES + 2 * part + 1] = left;
      }
    }
    return to;
  }
}

/** Position, ahead, left and up in a frame. */
const PARTS = [0, 9, 3, 6] as const;

/** Joints part stretches, and none is longer than a cell. */
function edgesOf(way: ChassisTrack, cell: number): Float64Array {
  const { from, to, joints, origin } = way;
  const inside = new Set([origin, ...joints].filter((joint) => joint > from && joint < to));
  const corners = [from, ...[...inside].sort((a, b) => a - b), to];
  const edges = [from];
  const longest = Math.max(cell, (to - from) / MOST_CELLS);
  const most = Math.max(1, Math.floor((MOST_PARTS * cell) / longest));
  for (let i = 1; i < corners.length; i++) {
    const length = corners[i] - corners[i - 1];
    const parts = Math.max(1, Math.ceil(length / longest));
    for (let k = 1; k <= parts; k++) {
      const begin = edges[edges.length - 1];
      const end = corners[i - 1] + (length * k) / parts;
      const finer = partsIn(way, begin, end, most);
      for (let n = 1; n < finer; n++) edges.push(begin + ((end - begin) * n) / finer);
      edges.push(end);
    }
  }
  return Float64Array.from(edges);
}

/** Into how many a stretch is cut, by its tightest bend and those just before and after it. */
function partsIn(way: ChassisTrack, begin: number, end: number, most: number): number {
  if (most === 1) return 1;
  const length = end - begin;
  let bend = 0;
  for (let i = 0; i <= LOOKS; i++) bend = Math.max(bend, way.bend(begin + length * ((2 * i) / LOOKS - 0.5)));
  return Math.max(1, Math.min(most, Math.ceil((length * bend) / TURN)));
}
