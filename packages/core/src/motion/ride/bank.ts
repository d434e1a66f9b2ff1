import type { Bank } from '../../document/shot-attachment.js';
import { RADIANS } from '../../geometry/math/angle.js';
import { softLimit } from '../../geometry/math/soft-limit.js';
import type { FrameReference } from '../../geometry/path/compiled-path.js';
import { lateralCurvatureAt, lateralCurvatureOf } from '../../geometry/path/lateral-curvature.js';
import { balanceAngle, compilePush, type PushAt } from './lateral.js';
import type { PathMotion } from './path-motion.js';

/** The curvature at which `amount` is the bank, 1/m: a bend of 10 m radius. */
const AMOUNT_CURVATURE = 0.1;
/** Longest window, seconds, for offsets of a rider that hardly moves. */
const LONGEST = 2;

/** A rider's bank, radians, negative in a left turn; asked for as {@link PushAt} is. */
export type BankAt = PushAt;

/**
 * Banking into bends. `physical` leans so that gravity and the sideways acceleration of the rider's own track together press
 * straight down on the seat: atan(a / g), times the amount. `amount` leans by so many degrees at a radius of
 * 10 m, in proportion to the path's curvature, whatever the speed.
 *
 * The curvature is averaged under an even window, so that the bank begins before the bend and no joint of the
 * path snaps it; then it is limited softly.
 *
 * @param size how much larger the whole ride is
 * @returns null where there is no bank
 */
export function compileBank(
  bank: Bank,
  motion: PathMotion,
  reference: FrameReference,
  size: number,
  fps: number,
): BankAt | null {
  if (bank.mode === 'none' || bank.amount === 0) return null;
  const { path } = motion;
  const limit = bank.limit * RADIANS;
  const smoothed = bank.window > 0 ? lateralCurvatureOf(path, reference, bank.window) : null;
  const curvatureAt = (s: number) => (smoothed ? smoothed.at(s) : lateralCurvatureAt(path, reference, s));
  if (bank.mode === 'physical') {
    const frames = (speed: number) => fps * Math.min(LONGEST, bank.window / Math.abs(speed) || 0);
    const push = compilePush(motion, curvatureAt, size, fps, frames);
    return (frame, distance, speed, side) =>
      softLimit(-balanceAngle(push(frame, distance, speed, side)) * bank.amount, limit);
  }
  const perCurvature = (bank.amount * RADIANS) / AMOUNT_CURVATURE;
  return (_, distance) => softLimit(-curvatureAt(distance) * perCurvature, limit);
}
