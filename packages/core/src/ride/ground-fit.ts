import { planeThrough, type Plane } from '../contact/plane.js';
import { trackByDistance, trackByFrame, type GroundTrack } from '../contact/ground-track.js';
import type { GroundSurface } from '../contact/ground-surface.js';
import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import { contactPoints, type ContactPoint } from './contact-points.js';
import type { PathMotion } from './path-motion.js';
import { ridesByDistance, placeAlong } from './travel-place.js';

/** How a rider is set on the ground: by distance along its path, or by frame where that does not tell its place. */
export interface GroundFit {
  readonly byDistance: boolean;
  readonly points: readonly ContactPoint[];
  /** Puts a frame of travel (position, left, up, forward) on the ground, in place. */
  settle(at: number, frame: Float64Array, rise: number): void;
  /** How far each point is above the plane that the rider stands on, metres along its up. */
  lift(at: number, point: number): number;
  /** Whether there is no ground under one of the points. */
  missing(at: number): boolean;
}

/** Steeper than this a path has no plan direction to stand by. */
const STEEP = 0.995;

/**
 * Each wheel or foot is set on the ground within a band about the path's own height there; the rider takes the plane
 * through them. So bridges, tunnels and ramps keep their level.
 *
 * @param whole false turns it to the ground's normal and leaves its height as the path has it
 */
export function compileGroundFit(
  rider: Rider,
  hitch: Hitch,
  motion: PathMotion,
  ground: GroundSurface,
  whole: boolean,
): GroundFit {
  const points = contactPoints(rider);
  const byDistance = ridesByDistance(hitch);
  const raw = placeAlong(hitch, motion);
  const frame = new Float64Array(12);
  const own = new Float64Array(4);
  const rawAt = (at: number) => {
    const offset = motion.offset.at(at);
    const s = byDistance ? at : motion.path.closed ? motion.pace.distance(at) : held(motion, at);
    raw(s, offset.side, 0, frame);
    level(frame, offset.yaw, own);
  };
  const contactAt =
    ({ ahead, left }: ContactPoint) =>
    (at: number, out: Float64Array) => {
      rawAt(at);
      // The path's own rise ahead is followed, so that ground is looked for where the path says.
      const cos = Math.sqrt(frame[9] * frame[9] + frame[11] * frame[11]);
      out[0] = frame[0] + cos * (ahead * own[0] + left * own[1]);
      out[1] = frame[1] + frame[10] * (ahead * own[2] - left * own[3]);
      out[2] = frame[2] + cos * (ahead * own[1] - left * own[0]);
    };
  const tracks = points.map((point): GroundTrack => {
    const place = contactAt(point);
    if (byDistance)
      return trackByDistance(
        ground,
        hitch.ground,
        place,
        point.radius,
        motion.path.length,
        motion.path.closed,
      );
    const way = (at: number, out: Float64Array) => {
      rawAt(at);
      out[0] = own[0];
      out[2] = own[1];
    };
    return trackByFrame(ground, hitch.ground, place, way, point.radius);
  });
  const places = new Float64Array(2 * points.length);
  const heights = new Float64Array(points.length);
  const plane: Plane = { at: 0, ahead: 0, left: 0 };
  let solved = NaN;
  /** @param raw the frame of travel there, before it is set on anything */
  const solve = (at: number, raw: Float64Array) => {
    if (at === solved) return;
    solved = at;
    const cos = Math.sqrt(raw[9] * raw[9] + raw[11] * raw[11]);
    for (let i = 0; i < points.length; i++) {
      places[2 * i] = cos * points[i].ahead;
      places[2 * i + 1] = cos * points[i].left;
      heights[i] = tracks[i].height(at);
    }
    planeThrough(places, heights, plane);
  };
  return {
    byDistance,
    points,
    settle(at, out, rise) {
      if (Math.abs(out[10]) > STEEP) return;
      solve(at, out);
      const yaw = (motion.offset.at(at).yaw * Math.PI) / 180;
      // From the rider's own ahead and left to those of travel.
      const cosine = yaw === 0 ? 1 : Math.cos(yaw);
      const sine = yaw === 0 ? 0 : Math.sin(yaw);
      const tilt = hitch.ground.tilt || !whole;
      const forward = tilt ? plane.ahead * cosine - plane.left * sine : 0;
      const leftward = tilt ? plane.ahead * sine + plane.left * cosine : 0;
      // Where it is without its rise, which is then taken along its own up.
      for (let k = 0; k < 3; k++) out[k] -= rise * out[6 + k];
      if (whole) out[1] = plane.at + hitch.ground.rise;
      turnToPlane(out, forward, leftward, out);
      for (let k = 0; k < 3; k++) out[k] += rise * out[6 + k];
    },
    lift(at, point) {
      if (at !== solved) {
        rawAt(at);
        solve(at, frame.slice());
      }
      const tilt = hitch.ground.tilt ? 1 : 0;
      const on = plane.at + tilt * (plane.ahead * places[2 * point] + plane.left * places[2 * point + 1]);
      const steep = tilt * Math.hypot(plane.ahead, plane.left);
      return (heights[point] - on) / Math.sqrt(1 + steep * steep);
    },
    missing: (at) => tracks.some((track) => track.missing(at)),
  };
}

function held({ path, pace }: PathMotion, frame: number): number {
  return Math.min(path.length, Math.max(0, pace.distance(frame)));
}

/** Writes the x and z of the level way a rider's own front points to, then cosine and sine of its yaw. */
function level(frame: Float64Array, yawDeg: number, out: Float64Array): void {
  const size = Math.sqrt(frame[9] * frame[9] + frame[11] * frame[11]) || 1;
  const x = frame[9] / size;
  const z = frame[11] / size;
  const cos = yawDeg === 0 ? 1 : Math.cos((yawDeg * Math.PI) / 180);
  const sin = yawDeg === 0 ? 0 : Math.sin((yawDeg * Math.PI) / 180);
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
