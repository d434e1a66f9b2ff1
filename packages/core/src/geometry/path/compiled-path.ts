import { vec3 } from 'gl-matrix';
import { DEGREES, modulo } from '../math/angle.js';
import type { Vec3, Vec3Like } from '../math/vec.js';
import { buildArcTable, distanceAt, parameterAt, type ArcTable } from './arc-table.js';
import type { Curve } from './curve.js';
import { FlatFrames } from './flat-frames.js';
import { buildPathFrameGuide, pathLeft, tangentAtDistance, type PathFrameGuide } from './path-frame.js';
import { buildRollProfile, rollAt, type RollProfile } from './roll-profile.js';
import { segmentOf, type Segments } from './segments.js';
import { CubicSegments } from './segments-cubic.js';
import { makeUnit } from './tangent.js';
import { buildWorldFrameGuide, worldLeft, type WorldFrameGuide } from './world-frame.js';

/** Up reference along a path: the world's up, or the path's own twist-free frame. */
export type FrameReference = 'world' | 'path';

const forward: Vec3 = [0, 0, 0];
const left: Vec3 = [0, 0, 0];
const position: Vec3 = [0, 0, 0];
const first: Vec3 = [0, 0, 0];
const second: Vec3 = [0, 0, 0];
const third: Vec3 = [0, 0, 0];
const normal: Vec3 = [0, 0, 0];

/** Turns left and up of a frame about its forward, radians, the right side down. */
function rollFrame(roll: number, out: Float64Array, at: number): void {
  const cos = Math.cos(roll);
  const sin = Math.sin(roll);
  for (let k = at + 3; k < at + 6; k++) {
    const aside = out[k];
    const up = out[k + 3];
    out[k] = cos * aside + sin * up;
    out[k + 3] = cos * up - sin * aside;
  }
}

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
  readonly segments: Segments;
  /** By active point the distance along the path where it acts, metres. */
  readonly pointDistances: Float64Array;
  private readonly table: ArcTable;
  private readonly world: WorldFrameGuide;
  private readonly roll: RollProfile | null;
  private own: PathFrameGuide | null = null;
  private meetings: readonly number[] | null = null;
  /** Queries made by the million are computed here in one go: see {@link FlatFrames}. */
  private readonly flat: FlatFrames | null;
  /** The place that was asked for last, and its parameter. */
  private asked = NaN;
  private found = 0;

  /**
   * @param rollsDeg by active point, degrees
   */
  constructor(
    curve: Curve,
    readonly closed: boolean,
    rollsDeg: readonly number[],
  ) {
    const { segments, pointParameters } = curve;
    this.segments = segments;
    this.table = buildArcTable(segments);
    this.length = this.table.length;
    this.world = buildWorldFrameGuide(segments, this.table, closed, (s, out) => this.tangent(s, out));
    this.pointDistances = pointParameters.map((parameter) => {
      const i = segmentOf(segments, parameter);
      return distanceAt(this.table, i, parameter - i);
    });
    this.roll = buildRollProfile(this.pointDistances, rollsDeg, this.length, closed);
    this.flat =
      segments instanceof CubicSegments && this.world.stretches.length === 0
        ? new FlatFrames(this.table, segments.coefficients)
        : null;
  }

  /** Brings a distance into 0 … length: round a closed path, held at the ends of an open one. */
  wrap(s: number): number {
    const { length } = this;
    if (s >= 0 && s < length) return s;
    return this.closed ? modulo(s, length) : s < 0 ? 0 : length;
  }

  /** The path parameter at a distance: the segment, and how far along it (0 to 1), as one sum. */
  parameter(s: number): number {
    return this.parameterOf(this.wrap(s));
  }

  /** Parameter at a distance in 0 … length; several quantities are mostly asked for at one distance. */
  private parameterOf(place: number): number {
    if (place === this.asked) return this.found;
    this.asked = place;
    return (this.found = parameterAt(this.table, place));
  }

  /** The distance at which a segment begins; that of `segments.count` is the length. */
  segmentStart(i: number): number {
    return this.table.segmentStart[i];
  }

  /** The distances at which segments meet, first and last included. */
  get joints(): readonly number[] {
    return (this.meetings ??= Array.from(this.table.segmentStart));
  }

  /** The position at a distance, metres. */
  position(s: number, out: Vec3Like): void {
    const parameter = this.parameter(s);
    const i = segmentOf(this.segments, parameter);
    this.segments.position(i, parameter - i, out);
  }

  /** The unit tangent at a distance. */
  tangent(s: number, out: Vec3): void {
    tangentAtDistance(this.segments, this.table, this.wrap(s), out);
  }

  /**
   * Position and unit tangent at a distance, where {@link frame} writes them: three numbers from `out[at]`, three from `out[at + 9]`.
   * What is between them may be written over.
   */
  way(s: number, out: Float64Array, at: number): void {
    const place = this.wrap(s);
    if (this.flat === null || !this.flat.write(place, out, at)) this.placeOn(place, out, at);
  }

  /** The same on segments of any kind, which may halt. */
  private placeOn(place: number, out: Float64Array, at: number): void {
    const parameter = this.parameterOf(place);
    const i = segmentOf(this.segments, parameter);
    this.segments.place(i, parameter - i, out, at);
    makeUnit(this.segments, i, parameter - i, out, at + 9);
  }

  /** Roll at a distance, radians, positive with the right side down. */
  rollAt(s: number): number {
    return this.roll === null ? 0 : rollAt(this.roll, this.wrap(s));
  }

  /** The same in degrees, as points have it. */
  rollDegrees(s: number): number {
    return this.rollAt(s) * DEGREES;
  }

  /**
   * Signed curvature as seen from above, 1/m: positive where the path turns left.
   */
  curvature(s: number): number {
    this.takeDerivatives(s);
    // Y × tangent is left, so a left turn has a positive y in r' × r''.
    const turn = first[2] * second[0] - first[0] * second[2];
    const speed = vec3.length(first);
    return speed > 0 ? turn / (speed * speed * speed) : 0;
  }

  /** Curvature in space, 1/m, never negative: one over the radius of the bend. */
  bend(s: number): number {
    this.takeDerivatives(s);
    const speed = vec3.length(first);
    return speed > 0 ? vec3.length(vec3.cross(normal, first, second)) / (speed * speed * speed) : 0;
  }

  /** Torsion, 1/m: how fast the plane of the bend turns about the path; positive as a right-handed screw. */
  torsion(s: number): number {
    this.takeDerivatives(s);
    const i = segmentOf(this.segments, this.parameter(s));
    this.segments.derivative(i, this.parameter(s) - i, 3, third);
    vec3.cross(normal, first, second);
    const square = vec3.dot(normal, normal);
    return square > 1e-30 ? vec3.dot(normal, third) / square : 0;
  }

  /**
   * Towards the middle of the bend, its size the curvature (1/m): the second derivative by distance.
   */
  curvatureVector(s: number, out: Vec3): void {
    this.takeDerivatives(s);
    const square = vec3.dot(first, first);
    if (square === 0) {
      vec3.zero(out);
      return;
    }
    const along = vec3.dot(first, second) / square;
    for (let k = 0; k < 3; k++) out[k] = (second[k] - along * first[k]) / square;
  }

  /** How much the path bends towards a direction square to it, 1/m times that direction's size. */
  curvatureTowards(s: number, x: number, y: number, z: number): number {
    const parameter = this.parameter(s);
    const i = segmentOf(this.segments, parameter);
    const speed = this.segments.speed(i, parameter - i);
    if (speed === 0) return 0;
    this.segments.derivative(i, parameter - i, 2, second);
    return (second[0] * x + second[1] * y + second[2] * z) / (speed * speed);
  }

  /**
   * Position, left, up and forward, twelve numbers from `out[at]`; roll of the points included.
   *
   * `world`: up is the world's, made square to the tangent, and carried through vertical stretches.
   * `path`: the twist-free frame that begins as the world's does and, on a closed path, ends as it began.
   */
  frame(s: number, out: Float64Array, at: number, reference: FrameReference = 'world'): void {
    const place = this.wrap(s);
    if (this.flat === null || reference === 'path' || !this.flat.write(place, out, at))
      this.steepFrame(place, reference, out, at);
    if (this.roll !== null) rollFrame(rollAt(this.roll, place), out, at);
  }

  /** The frame without roll, where the path may be steep or halt, or up is its own. */
  private steepFrame(place: number, reference: FrameReference, out: Float64Array, at: number): void {
    this.placeOn(place, out, at);
    for (let k = 0; k < 3; k++) {
      position[k] = out[at + k];
      forward[k] = out[at + 9 + k];
    }
    if (reference === 'world') worldLeft(this.world, place, forward, left);
    else pathLeft(this.ownGuide(), place, position, forward, left);
    vec3.cross(normal, forward, left);
    for (let k = 0; k < 3; k++) {
      out[at + 3 + k] = left[k];
      out[at + 6 + k] = normal[k];
    }
  }

  private ownGuide(): PathFrameGuide {
    if (this.own === null) {
      const start: Vec3 = [0, 0, 0];
      const firstLeft: Vec3 = [0, 0, 0];
      this.tangent(0, start);
      worldLeft(this.world, 0, start, firstLeft);
      this.own = buildPathFrameGuide(this.segments, this.table, this.closed, firstLeft);
    }
    return this.own;
  }

  private takeDerivatives(s: number): void {
    const parameter = this.parameter(s);
    const i = segmentOf(this.segments, parameter);
    this.segments.velocity(i, parameter - i, first);
    this.segments.derivative(i, parameter - i, 2, second);
  }
}
