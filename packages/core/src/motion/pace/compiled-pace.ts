import { newJet, type JetAt } from '../../geometry/math/jet.js';

/** Distance along a path over time, ready for questions. Frames may be fractional. */
export interface Motion {
  /** Metres from the path's first point; not yet held to an open path's ends. */
  distance(frame: number): number;
  /** Metres per second; at a key where it changes, that of the stretch that follows. */
  speed(frame: number): number;
  /** Writes both, where they come from one curve: what is asked for millions of times makes no box for each number. */
  readonly both?: (frame: number, out: Float64Array) => void;
}

/** Writes distance and speed of any motion. */
export function bothOf(motion: Motion): (frame: number, out: Float64Array) => void {
  if (motion.both) return motion.both;
  return (frame, out) => {
    out[0] = motion.distance(frame);
    out[1] = motion.speed(frame);
  };
}

/** A stop: its frames, and its distance. */
export interface PaceStop {
  readonly from: number;
  readonly to: number;
  /** Metres along the path. */
  readonly distance: number;
}

/** A pace that is ready for questions. */
export interface CompiledPace extends Motion {
  /** Metres per second squared along the path. */
  acceleration(frame: number): number;
  /** Metres per second cubed along the path. */
  jerk(frame: number): number;
  /** Frames, in rising order, where its speed or what changes it may have a corner. */
  readonly corners: readonly number[];
  /** Stops in order of time, as far as it is keyed or driven. */
  readonly stops: readonly PaceStop[];
  /** The frames from which to which it says itself where to be; what lies outside is `before` and `after`. */
  readonly from: number;
  readonly to: number;
}

/** A curve of metres over frames, with what is known of its shape. */
export interface PaceCurve extends Pick<CompiledPace, 'corners' | 'stops' | 'from' | 'to'> {
  /** Metres, and their first three derivatives per frame. */
  readonly jet: JetAt;
}

/** Answers a pace's questions from its curve. */
export function paceOf({ jet, corners, stops, from, to }: PaceCurve, fps: number): CompiledPace {
  const now = newJet();
  // Distance and speed are mostly asked for together. A number of its own would be boxed each time.
  const asked = new Float64Array([NaN]);
  const at = (frame: number): void => {
    if (frame === asked[0]) return;
    asked[0] = frame;
    jet(frame, now);
  };
  const [squared, cubed] = [fps ** 2, fps ** 3];
  return {
    distance(frame) {
      at(frame);
      return now[0];
    },
    speed(frame) {
      at(frame);
      return now[1] * fps;
    },
    acceleration(frame) {
      at(frame);
      return now[2] * squared;
    },
    jerk(frame) {
      at(frame);
      return now[3] * cubed;
    },
    both(frame, out) {
      jet(frame, now);
      asked[0] = frame;
      out[0] = now[0];
      out[1] = now[1] * fps;
    },
    corners,
    stops,
    from,
    to,
  };
}
