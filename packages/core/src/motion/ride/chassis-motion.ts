import { vec3 } from 'gl-matrix';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { ownAxes } from './contact-points.js';
import type { PathMotion } from './path-motion.js';
import type { GroundFit } from './ground-fit.js';
import { POSE, rotationIn, type PoseAt } from '../pose/pose.js';
import { placeAlong } from './travel-place.js';

/**
 * The way a chassis goes, without what its body leans: a frame (position, left, up, forward of the rider's own
 * front) over its progress. Progress is metres along the path where the place follows from those alone, so that
 * what is summed up along it is the same whenever it is there; else it is frames.
 */
export interface ChassisTrack {
  readonly byDistance: boolean;
  at(progress: number, out: Float64Array): void;
  /** Range of progress; a closed path continues round. */
  readonly from: number;
  readonly to: number;
  readonly closed: boolean;
  /** Origin of progress. */
  readonly origin: number;
  /** Joints in between, at which its bends may change suddenly. */
  readonly joints: readonly number[];
  /** Approximate curvature at a distance, 1/m; 0 if it does not follow from the distance. */
  bend(progress: number): number;
}

/** How a rider's chassis moves. */
export interface ChassisMotion {
  readonly track: ChassisTrack;
  progress(frame: number): number;
  /** Progress per second. */
  rate(frame: number): number;
}

/** Sampled frames. */
interface FrameRange {
  readonly first: number;
  readonly last: number;
  readonly fps: number;
}

/** The way of a chassis whose place follows from its distance along the path. */
export function chassisTrackByDistance(
  attachment: Attachment,
  motion: PathMotion,
  ground: GroundFit | null,
  range: FrameRange,
): ChassisTrack {
  const place = placeAlong(attachment, motion);
  const { side, rise, yaw } = attachment.offset;
  const cos = Math.cos((yaw * Math.PI) / 180);
  const sin = Math.sin((yaw * Math.PI) / 180);
  return {
    byDistance: true,
    at(s, out) {
      place(s, side, rise, out);
      ground?.settle(s, out, rise);
      if (yaw === 0) return;
      for (let k = 3; k < 6; k++) {
        const left = out[k];
        const forward = out[k + 6];
        out[k] = cos * left - sin * forward;
        out[k + 6] = cos * forward + sin * left;
      }
    },
    ...reachOf(motion, range),
    closed: motion.path.closed,
    origin: 0,
    joints: motion.joints,
    bend: (s) => motion.path.bend(s),
  };
}

/** Track by frames of a range, with a margin. */
export function chassisTrackByFrames(rider: Rider, pose: PoseAt, range: FrameRange): ChassisTrack {
  const axes = ownAxes(rider);
  const now = new Float64Array(POSE.size);
  return {
    byDistance: false,
    bend: () => 0,
    at(frame, out) {
      pose(frame, now, 0);
      const turn = rotationIn(now);
      const write = (at: number, way: Vec3) => {
        const turned = vec3.transformQuat([0, 0, 0], way, turn);
        for (let k = 0; k < 3; k++) out[at + k] = turned[k];
      };
      for (let k = 0; k < 3; k++) out[k] = now[k];
      write(3, axes.left);
      write(6, axes.up);
      write(9, axes.ahead);
    },
    from: range.first - 1,
    to: range.last + 2,
    closed: false,
    origin: range.first - 1,
    joints: [],
  };
}

/** A rider's own time on a way. */
export function onChassisTrack(way: ChassisTrack, { pace }: PathMotion, fps: number): ChassisMotion {
  return way.byDistance
    ? { track: way, progress: pace.distance, rate: pace.speed }
    : { track: way, progress: (frame) => frame, rate: () => fps };
}

/** Seconds before and after the range in which it may be asked for. */
const MARGIN = 4;

/** Between which distances a rider goes: its path, and what it goes beyond the ends of an open one. */
function reachOf(
  { path, pace, keepsOn }: PathMotion,
  { first, last, fps }: FrameRange,
): { from: number; to: number } {
  let [from, to] = [0, path.length];
  if (path.closed || keepsOn) return { from, to };
  let before = NaN;
  for (let frame = Math.floor(first - MARGIN * fps); frame <= last + MARGIN * fps; frame++) {
    const s = pace.distance(frame);
    // Between whole frames it may come a little further.
    const step = Number.isNaN(before) ? 0 : Math.abs(s - before);
    if (s < 0) from = Math.min(from, s - step - 1);
    if (s > path.length) to = Math.max(to, s + step + 1);
    before = s;
  }
  return { from, to };
}
