import {
  trackByDistance,
  trackByFrame,
  trackNodes,
  type GroundTrack,
  type IsNowhere,
  type PositionAlong,
  type TrackNodes,
} from '../../geometry/ground/ground-track.js';
import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import { planeThrough, planeThroughPoint, type Plane } from '../../geometry/ground/plane.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import { RADIANS } from '../../geometry/math/angle.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { contactPoints, type ContactPoint } from './contact-points.js';
import { displaceFrame } from '../pose/displace.js';
import type { PathMotion } from './path-motion.js';
import { placeAlong } from './travel-place.js';

/** How a rider is set on the ground: by distance along its path, or by frame where that does not tell its place. */
export interface GroundFit {
  readonly byDistance: boolean;
  readonly points: readonly ContactPoint[];
  /** Puts a frame of travel (position, left, up, forward) on the ground, in place. */
  settle(at: number, frame: Float64Array, rise: number): void;
  /** Height of each point above the plane of the rider, metres along its up. */
  lift(at: number, point: number): number;
  /** Whether there is no ground under one of the points. */
  missing(at: number): boolean;
}

/** Coupling of a towed unit: its distance ahead of its own origin, and the leader's coupling in the world. */
export interface Coupling {
  readonly ahead: number;
  at(at: number, out: Vec3): void;
}

/** A steeper path has no plan direction to orient by. */
const STEEP = 0.995;

/**
 * Each wheel or foot is set on the ground within a band about the path's own height there; the rider takes the plane
 * through them. So bridges, tunnels and ramps keep their level. A towed unit rests on its rear axle and its coupling.
 *
 * @param whole    false turns it to the ground's normal and leaves its height as the path has it
 * @param coupling null for what is not towed
 */
export function compileGroundFit(
  rider: Rider,
  attachment: Attachment,
  motion: PathMotion,
  ground: GroundSurface,
  whole: boolean,
  coupling: Coupling | null,
): GroundFit {
  const points = contactPoints(rider, coupling !== null);
  const tracks = groundTracks(points, attachment, motion, ground);
  const standing = coupling ? rearmost(points) : points.map((_, i) => i);
  const fit = new PlaneFit(points, tracks, standing, coupling);
  const raw = rawTravel(attachment, motion);
  const frame = new Float64Array(12);
  const { tilt: tilts, rise: above } = attachment.ground;
  return {
    byDistance: motion.byDistance,
    points,
    settle(at, out, rise) {
      if (Math.abs(out[10]) > STEEP) return;
      const { plane, held } = fit.solve(at, out);
      const yaw = motion.offset.at(at).yaw * RADIANS;
      // From the rider's own ahead and left to those of travel.
      const cosine = yaw === 0 ? 1 : Math.cos(yaw);
      const sine = yaw === 0 ? 0 : Math.sin(yaw);
      const tilt = tilts || !whole;
      const forward = tilt ? plane.ahead * cosine - plane.left * sine : 0;
      const leftward = tilt ? plane.ahead * sine + plane.left * cosine : 0;
      // Position without its rise, which is then taken along its own up.
      for (let k = 0; k < 3; k++) out[k] -= rise * out[6 + k];
      if (whole) out[1] = plane.at + above;
      turnToPlane(out, forward, leftward, out);
      // The coupling stays together, in plan as in height.
      if (held && coupling && whole)
        for (let k = 0; k < 3; k++) out[k] = held[k] - coupling.ahead * ownAhead(out, k, cosine, sine);
      for (let k = 0; k < 3; k++) out[k] += rise * out[6 + k];
    },
    lift(at, point) {
      raw(at, frame);
      const { plane, inPlan, heights } = fit.solve(at, frame);
      const tilt = tilts ? 1 : 0;
      const on = plane.at + tilt * (plane.ahead * inPlan[2 * point] + plane.left * inPlan[2 * point + 1]);
      const steep = tilt * Math.hypot(plane.ahead, plane.left);
      return (heights[point] - on) / Math.sqrt(1 + steep * steep);
    },
    missing: (at) => tracks.some((track) => track.missing(at)),
  };
}

/** The rider's own ahead in a frame of travel that it is yawed in. */
const ownAhead = (frame: Float64Array, k: number, cosine: number, sine: number) =>
  cosine * frame[9 + k] + sine * frame[3 + k];

/** Writes the frame of travel at a distance or frame, before it is set on any ground. */
function rawTravel(attachment: Attachment, motion: PathMotion): (at: number, out: Float64Array) => void {
  const place = placeAlong(attachment, motion);
  const { byDistance, offset, pace } = motion;
  return (at, out) => place(byDistance ? at : pace.distance(at), offset.at(at).side, 0, out);
}

/** The heights of the ground under a rider's points. */
function groundTracks(
  points: readonly ContactPoint[],
  attachment: Attachment,
  motion: PathMotion,
  ground: GroundSurface,
): GroundTrack[] {
  const { byDistance, offset, path } = motion;
  const raw = rawTravel(attachment, motion);
  const frame = new Float64Array(12);
  const own = new Float64Array(4);
  let asked = NaN;
  // All points are asked for at one place after the other.
  const look = (at: number) => {
    if (at === asked) return;
    asked = at;
    raw(at, frame);
    level(frame, offset.at(at).yaw, own);
  };
  const isNowhere = isFarFromGround(points, attachment, motion, ground);
  const nodes = new Map<number, TrackNodes>();
  const nodesOf = (radius: number): TrackNodes => {
    const shared = nodes.get(radius) ?? trackNodes(radius, path.length);
    nodes.set(radius, shared);
    return shared;
  };
  return points.map(({ ahead, left, radius }): GroundTrack => {
    const place: PositionAlong = (at, out) => {
      look(at);
      // The path's own rise ahead is followed, so that ground is looked for where the path says.
      const cos = Math.sqrt(frame[9] * frame[9] + frame[11] * frame[11]);
      out[0] = frame[0] + cos * (ahead * own[0] + left * own[1]);
      out[1] = frame[1] + frame[10] * (ahead * own[2] - left * own[3]);
      out[2] = frame[2] + cos * (ahead * own[1] - left * own[0]);
    };
    const { ground: band } = attachment;
    if (byDistance) return trackByDistance(ground, band, place, nodesOf(radius), path.closed, isNowhere);
    const way: PositionAlong = (at, out) => {
      look(at);
      out[0] = own[0];
      out[2] = own[1];
    };
    return trackByFrame(ground, band, place, way, radius, isNowhere);
  });
}

/** Whether the ground is too far from a rider's path at a distance or frame to be under any of its points. */
function isFarFromGround(
  points: readonly ContactPoint[],
  { rideTransform, ground: { up, down } }: Attachment,
  { byDistance, offset, pace, placement }: PathMotion,
  ground: GroundSurface,
): IsNowhere {
  const size = rideTransform ? Math.abs(rideTransform.size) : 1;
  const own = Math.max(...points.map(({ ahead, left, radius }) => Math.hypot(ahead, left) + radius));
  const frame = new Float64Array(12);
  const about: Vec3 = [0, 0, 0];
  let asked = NaN;
  let isFar = false;
  return (at) => {
    if (at === asked) return isFar;
    asked = at;
    placement.about(byDistance ? at : pace.distance(at), about);
    frame.set(about);
    if (rideTransform) displaceFrame(rideTransform, frame);
    const reach = size * (placement.around + Math.abs(offset.at(at).side)) + own;
    isFar = ground.isFarFrom(frame, reach, up, down);
    return isFar;
  };
}

/** Which points are those of the rearmost axle. */
function rearmost(points: readonly ContactPoint[]): number[] {
  const rear = Math.min(...points.map(({ ahead }) => ahead));
  return points.flatMap(({ ahead }, i) => (ahead < rear + 1e-3 ? [i] : []));
}

/** Plane of a rider's contact points and its coupling, if it has one. */
interface Solved {
  readonly plane: Plane;
  /** Of all points: ahead and to the left in plan, and the ground's height there. */
  readonly inPlan: Float64Array;
  readonly heights: Float64Array;
  /** Position of the coupling; null without one. */
  readonly held: Vec3 | null;
}

/** Iterations in which the coupling's distance in plan and the slope converge. */
const ROUNDS = 6;

/** The plane under a rider's points, kept for the place that was asked for last. */
class PlaneFit implements Solved {
  readonly plane: Plane = { at: 0, ahead: 0, left: 0 };
  readonly inPlan: Float64Array;
  readonly heights: Float64Array;
  readonly held: Vec3 | null;
  private readonly standingPlaces: Float64Array;
  private readonly standingHeights: Float64Array;
  private solved = NaN;

  constructor(
    private readonly points: readonly ContactPoint[],
    private readonly tracks: readonly GroundTrack[],
    private readonly standing: readonly number[],
    private readonly coupling: Coupling | null,
  ) {
    this.inPlan = new Float64Array(2 * points.length);
    this.heights = new Float64Array(points.length);
    this.standingPlaces = new Float64Array(2 * standing.length);
    this.standingHeights = new Float64Array(standing.length);
    this.held = coupling ? [0, 0, 0] : null;
  }

  /** @param raw the frame of travel there, before it is set on anything */
  solve(at: number, raw: Float64Array): Solved {
    if (at === this.solved) return this;
    this.solved = at;
    const { points, inPlan, heights, plane, coupling, held } = this;
    const cos = Math.sqrt(raw[9] * raw[9] + raw[11] * raw[11]);
    for (let i = 0; i < points.length; i++) heights[i] = this.tracks[i].height(at);
    this.spread(cos);
    if (coupling === null || held === null) {
      planeThrough(inPlan, heights, plane);
      return this;
    }
    coupling.at(at, held);
    for (let round = 0; round < ROUNDS; round++) {
      const level = 1 / Math.sqrt(1 + plane.ahead * plane.ahead);
      this.spread(round === 0 ? cos : level);
      for (let k = 0; k < this.standing.length; k++) {
        const i = this.standing[k];
        this.standingPlaces[2 * k] = inPlan[2 * i];
        this.standingPlaces[2 * k + 1] = inPlan[2 * i + 1];
        this.standingHeights[k] = heights[i];
      }
      const ahead = coupling.ahead * (round === 0 ? cos : level);
      const before = plane.ahead;
      planeThroughPoint(this.standingPlaces, this.standingHeights, ahead, 0, held[1], plane);
      if (round > 0 && plane.ahead === before) break;
    }
    return this;
  }

  private spread(cos: number): void {
    const { inPlan, points } = this;
    for (let i = 0; i < points.length; i++) {
      inPlan[2 * i] = cos * points[i].ahead;
      inPlan[2 * i + 1] = cos * points[i].left;
    }
  }
}

/** Writes the x and z of the level way a rider's own front points to, then cosine and sine of its yaw. */
function level(frame: Float64Array, yawDeg: number, out: Float64Array): void {
  const size = Math.sqrt(frame[9] * frame[9] + frame[11] * frame[11]) || 1;
  const x = frame[9] / size;
  const z = frame[11] / size;
  const cos = yawDeg === 0 ? 1 : Math.cos(yawDeg * RADIANS);
  const sin = yawDeg === 0 ? 0 : Math.sin(yawDeg * RADIANS);
  // Left of (x, z) in the plan is (z, −x).
  out[0] = cos * x + sin * z;
  out[1] = cos * z - sin * x;
  out[2] = cos;
  out[3] = sin;
}

/** Left, up and forward on a plane that rises by so much ahead and to the left, headed as a frame is. */
function turnToPlane(frame: Float64Array, ahead: number, left: number, out: Float64Array): void {
  const size = Math.sqrt(frame[9] * frame[9] + frame[11] * frame[11]) || 1;
  const fx = frame[9] / size;
  const fz = frame[11] / size;
  // Left is (fz, 0, −fx).
  const upX = -ahead * fx - left * fz;
  const upZ = -ahead * fz + left * fx;
  const upScale = 1 / Math.sqrt(upX * upX + 1 + upZ * upZ);
  const scale = 1 / Math.sqrt(1 + ahead * ahead);
  out[6] = upX * upScale;
  out[7] = upScale;
  out[8] = upZ * upScale;
  out[9] = fx * scale;
  out[10] = ahead * scale;
  out[11] = fz * scale;
  out[3] = out[7] * out[11] - out[8] * out[10];
  out[4] = out[8] * out[9] - out[6] * out[11];
  out[5] = out[6] * out[10] - out[7] * out[9];
}
