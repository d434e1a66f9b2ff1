import { DEGREES } from '../../geometry/math/angle.js';
import type { CompiledPath, FrameReference } from '../../geometry/path/compiled-path.js';
import { LateralCurvature } from '../../geometry/path/lateral-curvature.js';
import { balanceAngle } from './lateral.js';

/** A bank is rough if it swings back and forth by more than this, degrees, within a number of seconds. */
const SWING = 2;
const QUICK = 0.5;
/** Candidate windows, metres; no longer than the travel of a number of seconds, or this part of the path. */
const SHORTEST = 1;
const LONGEST_SECONDS = 3;
const LARGEST_PART = 0.25;
const MOST_SAMPLES = 4_000;

/**
 * The shortest window under which a rider that goes along a path at a speed banks without wobbling: in proportion to how rough the path is
 * and how fast it goes.
 *
 * @param speed m/s
 * @returns metres
 */
export function suggestBankWindow(path: CompiledPath, reference: FrameReference, speed: number): number {
  const fast = Math.abs(speed);
  const longest = Math.max(SHORTEST, Math.min(fast * LONGEST_SECONDS, path.length * LARGEST_PART));
  let window = SHORTEST;
  while (window < longest && isRough(path, reference, fast, window))
    window = Math.min(longest, window * 1.25);
  return Math.round(window * 10) / 10;
}

function isRough(path: CompiledPath, reference: FrameReference, speed: number, window: number): boolean {
  const curvature = new LateralCurvature(path, reference, window);
  const step = Math.max(path.length / MOST_SAMPLES, Math.min(window / 8, speed * 0.02 || window));
  /** Distances at which the bank turns back, after it has swung by enough. */
  const turns: number[] = [];
  let [extreme, at, way] = [NaN, 0, 0];
  for (let s = 0; s <= path.length; s += step) {
    const bank = balanceAngle(speed * speed * curvature.at(s)) * DEGREES;
    if (Number.isNaN(extreme)) extreme = bank;
    const swung = bank - extreme;
    if (way !== 0 && swung * way > 0) [extreme, at] = [bank, s];
    else if (Math.abs(swung) > SWING) {
      if (way !== 0) turns.push(at);
      if (turns.length > 1 && turns[turns.length - 1] - turns[turns.length - 2] < QUICK * speed) return true;
      [extreme, at, way] = [bank, s, Math.sign(swung)];
    }
  }
  return false;
}
