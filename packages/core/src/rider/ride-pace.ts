import type { Follows, PacedBy } from '../document/shot-hitch.js';
import type { CompiledPace } from '../pace/compile-pace.js';
import type { CompiledPath } from '../path/compiled-path.js';
import type { Standing } from './standing.js';

/** A rider's place along its path over time, as others take their timing from it. */
export interface Course {
  readonly path: CompiledPath;
  /** Distance with the rider's own offset along the path, metres. */
  readonly pace: CompiledPace;
  readonly standing: Standing;
  readonly sense: 1 | -1;
}

/**
 * The place of a rider that hangs behind another, coupling to coupling along the curve.
 *
 * @param own how the rider itself stands on the path
 */
export function stringPace({ gap }: Follows, leader: Course, own: Standing): CompiledPace {
  const { path, pace, standing } = leader;
  const behind = leader.sense * gap + own.reach;
  const isHeld = (asked: number) => !path.closed && (asked < 0 || asked > path.length);
  // What hangs behind a leader that waits at the end of its path waits too.
  const tail = (asked: number) => standing.tail(isHeld(asked) ? path.wrap(asked) : asked);
  return {
    distance: (frame) => tail(pace.distance(frame)).distance - behind,
    speed(frame) {
      const asked = pace.distance(frame);
      return isHeld(asked) ? 0 : tail(asked).rate * pace.speed(frame);
    },
  };
}

/**
 * Another's timing, so many frames later and so many times as fast, both counted from the range's first frame.
 */
export function echoPace({ delay, rate }: PacedBy, leader: CompiledPace, first: number): CompiledPace {
  const at = (frame: number) => first + (frame - first - delay) * rate;
  return {
    distance: (frame) => leader.distance(at(frame)),
    speed: (frame) => leader.speed(at(frame)) * rate,
  };
}
