import type { Bank } from '../document/shot-hitch.js';
import { softLimit } from '../math/soft-limit.js';
import type { CompiledPath, FrameReference } from '../path/compiled-path.js';
import { lateralCurvatureAt, lateralCurvatureOf } from '../path/lateral-curvature.js';

/** Standard gravity, m/s². */
export const GRAVITY = 9.80665;

/** The curvature at which `amount` is the bank, 1/m: a bend of 10 m radius. */
const AMOUNT_CURVATURE = 0.1;

/** A rider's bank, radians, negative in a left turn, from its distance (m) and speed (m/s). */
export type BankAt = (distance: number, speed: number) => number;

/**
 * Leaning into bends. `physical` leans so that gravity and the sideways acceleration v²κ together press
 * straight down on the seat: atan(v²κ / g), times the amount. `amount` leans by so many degrees at a radius of
 * 10 m, in proportion to the curvature, whatever the speed.
 *
 * The curvature is averaged under an even window, so that the lean begins before the bend and no joint of the
 * path snaps it; then the lean is limited softly.
 *
 * @returns null where there is no bank
 */
export function compileBank(bank: Bank, path: CompiledPath, reference: FrameReference): BankAt | null {
  if (bank.mode === 'none' || bank.amount === 0) return null;
  const limit = (bank.limit * Math.PI) / 180;
  const smoothed = bank.window > 0 ? lateralCurvatureOf(path, reference, bank.window) : null;
  const curvatureAt = (s: number) => (smoothed ? smoothed.at(s) : lateralCurvatureAt(path, reference, s));
  if (bank.mode === 'physical') {
    return (s, speed) =>
      softLimit(-Math.atan((speed * speed * curvatureAt(s)) / GRAVITY) * bank.amount, limit);
  }
  const perCurvature = (bank.amount * Math.PI) / 180 / AMOUNT_CURVATURE;
  return (s) => softLimit(-curvatureAt(s) * perCurvature, limit);
}
