import { newJet, type JetAt } from '../math/jet.js';

/** Distance along a path over time, ready for questions. Frames may be fractional. */
export interface Motion {
  /** Metres from the path's first point; not yet held to an open path's ends. */
  distance(frame: number): number;
  /** Metres per second; at a key where it changes, that of the stretch that follows. */
  speed(frame: number): number;
}

/** A stop: the frames between which a rider stands, and where. */
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
  /** Where it stands, in order of time, as far as it is keyed or driven. */
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
export function paceOf(curve: PaceCurve, fps: number): CompiledPace {
  const now = newJet();
  let asked = NaN;
  // Place and speed are mostly asked for together.
  const derivative = (order: number) => {
    const perSecond = fps ** order;
    return (frame: number) => {
      if (frame !== asked) curve.jet((asked = frame), now);
      return now[order] * perSecond;
    };
  };
  const { corners, stops, from, to } = curve;
  return {
    distance: derivative(0),
    speed: derivative(1),
    acceleration: derivative(2),
    jerk: derivative(3),
    corners,
    stops,
    from,
    to,
  };
}
