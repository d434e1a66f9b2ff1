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
  /** What is still missing where a closed path meets itself, radians about forward; spread along the length. */
  readonly missing: number;
  readonly length: number;
}

/** Accepted turn of the frame about the path by a segment's steps, against twice as many; radians. */
const TOLERANCE = 1e-7;
const MOST_STEPS = 256;

const r1: Vec3 = [0, 0, 0];
const r2: Vec3 = [0, 0, 0];
const reflectedForward: Vec3 = [0, 0, 0];

/**
 * One step of a rotation-minimising frame by double reflection: first in the plane between the two places,
 * then in the one that takes the reflected tangent to the true one (Wang, Jüttler, Zheng & Liu 2008).
 * Places that coincide, as at a corner, take the least turn from one tangent to the other.
 *
 * @param left the left vector at the first place; the one at the second is written over it
 */
export function doubleReflect(from: Vec3, fromForward: Vec3, to: Vec3, toForward: Vec3, left: Vec3): void {
  vec3.subtract(r1, to, from);
  const c1 = vec3.dot(r1, r1);
  if (c1 < 1e-24) {
    const turn = quat.rotationTo([0, 0, 0, 1], fromForward, toForward);
    vec3.transformQuat(left, left, turn);
    return;
  }
  vec3.scaleAndAdd(reflectedForward, fromForward, r1, (-2 * vec3.dot(r1, fromForward)) / c1);
  vec3.scaleAndAdd(left, left, r1, (-2 * vec3.dot(r1, left)) / c1);
  vec3.subtract(r2, toForward, reflectedForward);
  const c2 = vec3.dot(r2, r2);
  if (c2 > 1e-24) vec3.scaleAndAdd(left, left, r2, (-2 * vec3.dot(r2, left)) / c2);
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
  const place: number[] = [];
  const node: number[] = [];
  const left: Vec3 = [...firstLeft];
  const position: Vec3 = [0, 0, 0];
  const forward: Vec3 = [0, 0, 0];
  const before: Vec3 = [0, 0, 0];
  const push = (s: number) => {
    place.push(s);
    node.push(...position, ...forward, ...left);
  };
  for (let i = 0; i < segments.count; i++) {
    unitTangent(segments, i, 0, forward);
    segments.position(i, 0, position);
    if (i > 0) doubleReflect(position, before, position, forward, left);
    push(table.segmentStart[i]);
    const steps = stepsFor(segments, i, left);
    for (let step = 1; step <= steps; step++) {
      const u = step / steps;
      const [from, fromForward]: [Vec3, Vec3] = [[...position], [...forward]];
      segments.position(i, u, position);
      unitTangent(segments, i, u, forward);
      doubleReflect(from, fromForward, position, forward, left);
      if (step < steps) push(distanceAt(table, i, u));
    }
    vec3.copy(before, forward);
  }
  push(table.length);
  let missing = 0;
  if (closed) {
    const firstForward = node.slice(3, 6) as Vec3;
    doubleReflect(position, forward, position, firstForward, left);
    missing = angleAbout(firstForward, left, firstLeft);
  }
  return {
    distances: Float64Array.from(place),
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
    nodePosition[k] = node[at + k];
    nodeForward[k] = node[at + 3 + k];
    out[k] = node[at + 6 + k];
  }
  doubleReflect(nodePosition, nodeForward, position, forward, out);
  if (guide.missing === 0) return;
  const turn = quat.setAxisAngle(spread, forward, (guide.missing * s) / guide.length);
  vec3.transformQuat(out, out, turn);
}

const nodePosition: Vec3 = [0, 0, 0];
const nodeForward: Vec3 = [0, 0, 0];
const spread: Quat = [0, 0, 0, 1];

function stepsFor(segments: Segments, i: number, left: Vec3): number {
  let steps = 4;
  let before = carriedLeft(segments, i, steps, left);
  for (; steps < MOST_STEPS; steps *= 2) {
    const after = carriedLeft(segments, i, 2 * steps, left);
    if (vec3.distance(before, after) < TOLERANCE) return 2 * steps;
    before = after;
  }
  return MOST_STEPS;
}

function carriedLeft(segments: Segments, i: number, steps: number, from: Vec3): Vec3 {
  const left: Vec3 = [...from];
  const places: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const tangents: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  segments.position(i, 0, places[0]);
  unitTangent(segments, i, 0, tangents[0]);
  for (let step = 1; step <= steps; step++) {
    const now = step % 2;
    segments.position(i, step / steps, places[now]);
    unitTangent(segments, i, step / steps, tangents[now]);
    doubleReflect(places[1 - now], tangents[1 - now], places[now], tangents[now], left);
  }
  return left;
}

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
