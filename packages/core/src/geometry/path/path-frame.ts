import { lastAtMost } from '../math/search.js';
import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../math/vec.js';
import { distanceAt, parameterAt, type ArcTable } from './arc-table.js';
import { segmentOf, type Segments } from './segments.js';
import { unitTangent } from './tangent.js';

/** A rotation-minimising frame at nodes along a path: from one to the next it is carried by double reflection. */
export interface PathFrameGuide {
  readonly distances: Float64Array;
  /** Nine numbers a node: position, forward, left. */
  readonly node: Float64Array;
  /** Angle by which a closed path's frame misses itself, radians about forward; spread along the length. */
  readonly missing: number;
  readonly length: number;
}

/** Accepted turn of the frame about the path by a segment's steps, against twice as many; radians. */
const TOLERANCE = 1e-7;
const MOST_STEPS = 256;

/** Numbers a place takes: position and forward. */
const PLACE = 6;

/**
 * One step of a rotation-minimising frame by double reflection: first in the plane between the two places,
 * then in the one that takes the reflected tangent to the true one (Wang, Jüttler, Zheng & Liu 2008).
 * Places that coincide, as at a corner, take the least turn from one tangent to the other.
 *
 * @param from, to places: six numbers each, position and forward, of `p` from `p[a]` and of `q` from `q[b]`
 * @param left     the left vector at the first place; the one at the second is written over it
 */
function doubleReflect(p: Float64Array, a: number, q: Float64Array, b: number, left: Vec3): void {
  const rx = q[b] - p[a];
  const ry = q[b + 1] - p[a + 1];
  const rz = q[b + 2] - p[a + 2];
  const c1 = rx * rx + ry * ry + rz * rz;
  const [fx, fy, fz] = [p[a + 3], p[a + 4], p[a + 5]];
  const [tx, ty, tz] = [q[b + 3], q[b + 4], q[b + 5]];
  if (c1 < 1e-24) {
    vec3.transformQuat(left, left, quat.rotationTo([0, 0, 0, 1], [fx, fy, fz], [tx, ty, tz]));
    return;
  }
  const forward = (-2 * (rx * fx + ry * fy + rz * fz)) / c1;
  const aside = (-2 * (rx * left[0] + ry * left[1] + rz * left[2])) / c1;
  const lx = left[0] + aside * rx;
  const ly = left[1] + aside * ry;
  const lz = left[2] + aside * rz;
  const sx = tx - (fx + forward * rx);
  const sy = ty - (fy + forward * ry);
  const sz = tz - (fz + forward * rz);
  const c2 = sx * sx + sy * sy + sz * sz;
  const back = c2 > 1e-24 ? (-2 * (sx * lx + sy * ly + sz * lz)) / c2 : 0;
  left[0] = lx + back * sx;
  left[1] = ly + back * sy;
  left[2] = lz + back * sz;
}

/** Samples of one segment at even steps of u, each computed once however often the steps are doubled. */
class SegmentPlaces {
  /** At each of the finest steps its place. */
  readonly all = new Float64Array((MOST_STEPS + 1) * PLACE);
  private readonly known = new Uint8Array(MOST_STEPS + 1);
  private readonly place: Vec3 = [0, 0, 0];
  private readonly forward: Vec3 = [0, 0, 0];
  private segment = 0;

  constructor(private readonly segments: Segments) {}

  begin(segment: number): void {
    this.segment = segment;
    this.known.fill(0);
  }

  /** Index in {@link all} of the sample at a number of the finest steps. */
  at(step: number): number {
    const at = step * PLACE;
    if (this.known[step] === 1) return at;
    this.known[step] = 1;
    const u = step / MOST_STEPS;
    this.segments.position(this.segment, u, this.place);
    unitTangent(this.segments, this.segment, u, this.forward);
    this.all.set(this.place, at);
    this.all.set(this.forward, at + 3);
    return at;
  }

  /** Carries a left vector over the segment in a number of steps; overwrites it. */
  carry(steps: number, left: Vec3): void {
    const stride = MOST_STEPS / steps;
    let before = this.at(0);
    for (let step = stride; step <= MOST_STEPS; step += stride) {
      const now = this.at(step);
      doubleReflect(this.all, before, this.all, now, left);
      before = now;
    }
  }

  /** The steps that are enough: twice as many turn the frame at the end by less than the tolerance. */
  stepsFor(left: Vec3): number {
    let steps = 4;
    const before: Vec3 = [...left];
    this.carry(steps, before);
    for (; steps < MOST_STEPS; steps *= 2) {
      const after: Vec3 = [...left];
      this.carry(2 * steps, after);
      if (vec3.distance(before, after) < TOLERANCE) return 2 * steps;
      vec3.copy(before, after);
    }
    return MOST_STEPS;
  }
}

/**
 * Carries a frame along a path. Every segment is cut into steps until doubling them turns the frame at
 * its end by less than the tolerance.
 *
 * @param firstLeft left at the beginning, square to the path there
 */
export function buildPathFrameGuide(
  segments: Segments,
  table: ArcTable,
  closed: boolean,
  firstLeft: Vec3,
): PathFrameGuide {
  const places = new SegmentPlaces(segments);
  const { all } = places;
  const distances: number[] = [];
  const node: number[] = [];
  const left: Vec3 = [...firstLeft];
  const push = (s: number, at: number) => {
    distances.push(s);
    for (let k = 0; k < PLACE; k++) node.push(all[at + k]);
    node.push(left[0], left[1], left[2]);
  };
  const end = new Float64Array(PLACE);
  for (let i = 0; i < segments.count; i++) {
    places.begin(i);
    const start = places.at(0);
    // From the end of one segment to the beginning of the next, which is where it was but may go another way.
    if (i > 0) {
      end.set(all.subarray(0, 3));
      doubleReflect(end, 0, all, start, left);
    }
    push(table.segmentStart[i], start);
    const steps = places.stepsFor(left);
    const stride = MOST_STEPS / steps;
    let before = start;
    for (let step = 1; step <= steps; step++) {
      const now = places.at(step * stride);
      doubleReflect(all, before, all, now, left);
      if (step < steps) push(distanceAt(table, i, step / steps), now);
      before = now;
    }
    end.set(all.subarray(before, before + PLACE));
  }
  all.set(end);
  push(table.length, 0);
  let missing = 0;
  if (closed) {
    const firstForward = node.slice(3, 6) as Vec3;
    const first = Float64Array.from([...end.subarray(0, 3), ...firstForward]);
    doubleReflect(end, 0, first, 0, left);
    missing = angleAbout(firstForward, left, firstLeft);
  }
  return {
    distances: Float64Array.from(distances),
    node: Float64Array.from(node),
    missing,
    length: table.length,
  };
}

/**
 * The left vector of the rotation-minimising frame at distance s.
 *
 * @param s                 metres, already brought into 0 … length
 * @param position, forward of the path there
 */
export function pathLeft(guide: PathFrameGuide, s: number, position: Vec3, forward: Vec3, out: Vec3): void {
  const { distances, node } = guide;
  const at = 9 * lastAtMost(distances, s);
  for (let k = 0; k < 3; k++) {
    asked[k] = position[k];
    asked[3 + k] = forward[k];
    out[k] = node[at + 6 + k];
  }
  doubleReflect(node, at, asked, 0, out);
  if (guide.missing === 0) return;
  const turn = quat.setAxisAngle(spread, forward, (guide.missing * s) / guide.length);
  vec3.transformQuat(out, out, turn);
}

const asked = new Float64Array(PLACE);
const spread: Quat = [0, 0, 0, 1];

/** The turn about an axis that takes one vector square to it to another. */
function angleAbout(axis: Vec3, from: Vec3, to: Vec3): number {
  const cross = vec3.cross([0, 0, 0], from, to);
  return Math.atan2(vec3.dot(cross, axis), vec3.dot(from, to));
}

/** The unit tangent at a distance along a path. */
export function tangentAtDistance(segments: Segments, table: ArcTable, s: number, out: Vec3): void {
  const parameter = parameterAt(table, s);
  const i = segmentOf(segments, parameter);
  unitTangent(segments, i, parameter - i, out);
}
