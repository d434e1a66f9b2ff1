import { vec3 } from 'gl-matrix';
import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { ownAxes } from './contact-points.js';
import type { PathMotion } from './path-motion.js';
import type { GroundFit } from './ground-fit.js';
import { POSE } from '../pose/pose.js';
import type { PoseAt } from '../pose/pose.js';
import { placeAlong, ridesByDistance } from './travel-place.js';

/**
 * How a rider's chassis moves, without what its body leans: a frame (position, left, up, forward of the rider's own
 * front) over its progress. Progress is metres along the path where the place follows from those alone, so that
 * what is summed up along it is the same whenever it is there; else it is frames.
 */
export interface ChassisMotion {
  readonly byDistance: boolean;
  at(progress: number, out: Float64Array): void;
  progress(frame: number): number;
  /** Progress per second. */
  rate(frame: number): number;
  /** Where progress may begin and end; a closed path goes on round. */
  readonly from: number;
  readonly to: number;
  readonly closed: boolean;
  /** Places in between at which its bends may change all at once. */
  readonly joints: readonly number[];
}

/** @param range frames around which one that goes by frames is summed up */
export function compileChassis(
  rider: Rider,
  hitch: Hitch,
  motion: PathMotion,
  ground: GroundFit | null,
  pose: PoseAt,
  range: { readonly first: number; readonly last: number; readonly fps: number },
): ChassisMotion {
  const { path, pace } = motion;
  const byDistance = ridesByDistance(hitch);
  if (byDistance) {
    const place = placeAlong(hitch, motion);
    const { side, rise, yaw } = hitch.offset;
    const [cos, sin] = [Math.cos((yaw * Math.PI) / 180), Math.sin((yaw * Math.PI) / 180)];
    return {
      byDistance,
      at(s, out) {
        place(s, side, rise, out);
        ground?.settle(s, out, rise);
        for (let k = 3; k < 6; k++) {
          const [left, forward] = [out[k], out[k + 6]];
          out[k] = cos * left - sin * forward;
          out[k + 6] = cos * forward + sin * left;
        }
      },
      progress: (frame) => (path.closed ? pace.distance(frame) : held(pace.distance(frame), path.length)),
      rate(frame) {
        const s = pace.distance(frame);
        return path.closed || s === held(s, path.length) ? pace.speed(frame) : 0;
      },
      from: 0,
      to: path.length,
      closed: path.closed,
      joints: path.joints,
    };
  }
  const axes = ownAxes(rider);
  const now = new Float64Array(POSE.size);
  return {
    byDistance,
    at(frame, out) {
      pose(frame, now, 0);
      const turn = [...now.subarray(POSE.rotation, POSE.rotation + 4)] as Quat;
      const write = (at: number, way: Vec3) => {
        const turned = vec3.transformQuat([0, 0, 0], way, turn);
        for (let k = 0; k < 3; k++) out[at + k] = turned[k];
      };
      for (let k = 0; k < 3; k++) out[k] = now[k];
      write(3, axes.left);
      write(6, axes.up);
      write(9, axes.ahead);
    },
    progress: (frame) => frame,
    rate: () => range.fps,
    from: range.first - 1,
    to: range.last + 2,
    closed: false,
    joints: [],
  };
}

const held = (s: number, length: number) => Math.min(length, Math.max(0, s));
