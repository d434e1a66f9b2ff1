import type { CoupledTo, PacedBy } from '../../document/shot-attachment.js';
import { KeptNumbers } from '../../geometry/math/kept-numbers.js';
import { bothOf, type Motion } from '../pace/compiled-pace.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import type { OffsetAt } from '../pose/keyed-offset.js';
import type { AxlePlacement } from './axle-placement.js';

/** A rider's distance along its path over time: for its own pose, and for others that take their timing from it. */
export interface PathMotion {
  readonly path: CompiledPath;
  /** Its timing alone. */
  readonly timing: Motion;
  /** The same with its own offset along the path; beyond the ends of an open path it goes straight on. */
  readonly pace: Motion;
  readonly offset: OffsetAt;
  readonly placement: AxlePlacement;
  /** −1 where it is turned so that it travels along its path tail first. */
  readonly travelSign: 1 | -1;
  /** Whether it never leaves an open path beyond its ends. */
  readonly keepsOn: boolean;
  /** Whether its place and heading follow from its distance alone, whenever it is there. */
  readonly byDistance: boolean;
  /** Distances at which its track may bend suddenly: the path's joints, and where its leader passes one. */
  readonly joints: readonly number[];
  /** Distance of its rear coupling along the curve, and its speed, m/s. */
  readonly tail: Motion;
}

/** Inputs of a motion along a path. */
export type PathMotionParts = Omit<PathMotion, 'pace' | 'tail'>;

export function compilePathMotion(parts: PathMotionParts, fps: number): PathMotion {
  const pace = movedAlong(parts.timing, parts.offset, fps);
  return { ...parts, pace, tail: tailOf(pace, parts.placement) };
}

/** A timing with an offset along the path. */
function movedAlong(timing: Motion, offset: OffsetAt, fps: number): Motion {
  if (offset.fixed) {
    const { along } = offset.at(0);
    if (along === 0) return timing;
    const both = bothOf(timing);
    return {
      distance: (frame) => timing.distance(frame) + along,
      speed: timing.speed,
      both(frame, out) {
        both(frame, out);
        out[0] += along;
      },
    };
  }
  return {
    distance: (frame) => timing.distance(frame) + offset.at(frame).along,
    speed: (frame) => timing.speed(frame) + offset.rate('along', frame) * fps,
  };
}

function tailOf(pace: Motion, { rear, tail }: AxlePlacement): Motion {
  if (rear !== null) return { distance: (frame) => pace.distance(frame) + rear, speed: pace.speed };
  // A string asks for those of the unit before it again and again.
  const kept = new KeptNumbers(2);
  const at = (frame: number): number => {
    const known = kept.find(frame);
    if (known >= 0) return known;
    const { distance, rate } = tail(pace.distance(frame));
    const speed = rate * pace.speed(frame);
    const place = kept.put(frame);
    kept.values[place] = distance;
    kept.values[place + 1] = speed;
    return place;
  };
  return {
    distance(frame) {
      const place = at(frame);
      return kept.values[place];
    },
    speed(frame) {
      const place = at(frame);
      return kept.values[place + 1];
    },
  };
}

/**
 * Motion of a rider that hangs behind another, coupling to coupling along the curve.
 *
 * @param own how the rider itself stands on the path
 */
export function stringPace({ gap }: CoupledTo, leader: PathMotion, own: AxlePlacement): Motion {
  const behind = leader.travelSign * gap + own.reach;
  return {
    distance: (frame) => leader.tail.distance(frame) - behind,
    speed: leader.tail.speed,
  };
}

/** Another's motion, delayed by frames and scaled in time, both from the range's first frame. */
export function followPace({ delay, rate }: PacedBy, leader: Motion, first: number): Motion {
  const at = (frame: number) => first + (frame - first - delay) * rate;
  return {
    distance: (frame) => leader.distance(at(frame)),
    speed: (frame) => leader.speed(at(frame)) * rate,
  };
}
