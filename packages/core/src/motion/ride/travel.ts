import type { Attachment } from '../../document/shot-attachment.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { moveBeside } from '../pose/beside.js';
import { displaceFrame } from '../pose/displace.js';
import type { PositionAtFrame } from './clearance.js';
import type { GroundFit } from './ground-fit.js';
import type { PathMotion } from './path-motion.js';
import { besideFactor } from './travel-place.js';

/** Position of a rider on its path over time, and its velocity there. */
export interface Travel {
  /**
   * Writes the frame of travel at a (fractional) frame into `out`: the rider's place with its offset, left, up and forward;
   * `ahead` metres further along the path where that is asked for.
   *
   * @returns the distance along the path
   */
  place(frame: number, out: Float64Array, ahead?: number): number;
  /**
   * Writes how fast it moves to the left, up and ahead of its path, m/s: along its own track beside the path, and by its keyed
   * offsets. Up and down the ground under it is left out.
   */
  velocity(frame: number, out: Vec3): void;
}

/**
 * A rider's travel; on the ground, if it is set there.
 *
 * @param clear how far it is led away from what it keeps clear of
 */
export function compileTravel(
  attachment: Attachment,
  motion: PathMotion,
  ground: GroundFit | null,
  fps: number,
  clear: PositionAtFrame | null = null,
): Travel {
  const { path, pace, offset, placement } = motion;
  const { rideTransform } = attachment;
  const size = rideTransform?.size ?? 1;
  const own = new Float64Array(12);
  const away: Vec3 = [0, 0, 0];
  /** The frame of which the factor is known, and what it is. */
  let asked = NaN;
  let factor = 1;
  /** Up and down the ground under it is left out, so it is not asked for. */
  const factorAt = (frame: number): number => {
    if (frame === asked) return factor;
    const { side, rise } = offset.at(frame);
    if (side === 0 && rise === 0) return 1;
    const distance = pace.distance(frame);
    placement.frame(distance, own);
    asked = frame;
    return (factor = besideFactor(path, distance, side, rise, own));
  };
  const place: Travel['place'] = (frame, out, ahead = 0) => {
    const distance = pace.distance(frame) + ahead;
    const { side, rise } = offset.at(frame);
    placement.frame(distance, out);
    if (ahead === 0) {
      asked = frame;
      factor = besideFactor(path, distance, side, rise, out);
    }
    moveBeside(out, side, rise, out);
    if (rideTransform) displaceFrame(rideTransform, out);
    ground?.settle(ground.byDistance ? distance : frame, out, rise);
    if (clear !== null) {
      clear(frame, away);
      for (let k = 0; k < 3; k++) out[k] += away[k];
    }
    return distance;
  };
  return {
    place,
    velocity(frame, out) {
      out[0] = offset.fixed ? 0 : size * fps * offset.rate('side', frame);
      out[1] = offset.fixed ? 0 : size * fps * offset.rate('rise', frame);
      out[2] = size * factorAt(frame) * pace.speed(frame);
    },
  };
}

/** Signed speed of a velocity to the left, up and ahead, m/s: negative if it goes back. */
export function signedSpeed(velocity: Vec3): number {
  const left = velocity[0];
  const up = velocity[1];
  const ahead = velocity[2];
  if (left === 0 && up === 0) return ahead;
  const size = Math.sqrt(left * left + up * up + ahead * ahead);
  return ahead < 0 ? -size : size;
}
