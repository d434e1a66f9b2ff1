import type { Retime } from '../document/shot-retime.js';
import type { Shot } from '../document/shot.js';
import { newJet } from '../math/jet.js';
import { keyedCurve } from '../math/keyed-curve.js';
import type { Motion } from '../pace/compiled-pace.js';

/** Shot time bent into the time of the work under it. */
export interface Retiming {
  /** The frame of the work that is shown at a frame of the shot. */
  source(frame: number): number;
  /** Frames of the work a frame of the shot: 1 is as it was, ½ slow motion, 0 a freeze. */
  rate(frame: number): number;
}

/**
 * A retime over frames. Before its first key and after its last time runs on at its own rate, and smooth ends meet
 * that.
 *
 * @returns null where it has no keys or is off
 */
export function compileRetime({ keys, off }: Retime): Retiming | null {
  if (off || keys.length === 0) return null;
  const curve = keyedCurve(
    keys.map(({ frame, source, ease }) => ({ frame, value: source, ease })),
    1,
  );
  const [first, last] = [keys[0], keys[keys.length - 1]];
  const now = newJet();
  return {
    source(frame) {
      if (frame < first.frame) return first.source + frame - first.frame;
      if (frame > last.frame) return last.source + frame - last.frame;
      return curve.value(frame);
    },
    rate(frame) {
      if (keys.length < 2 || frame < first.frame || frame > last.frame) return 1;
      curve.jet(frame, now);
      return now[1];
    },
  };
}

const cached = new WeakMap<readonly Retime[], { retiming: Retiming | null }>();

/** The time of everything in a shot, where it is bent: the last retime that names nobody. */
export function wholeRetiming({ retimes }: Pick<Shot, 'retimes'>): Retiming | null {
  const before = cached.get(retimes);
  if (before) return before.retiming;
  const whole = retimes.filter(({ riders, off }) => !off && riders.length === 0).at(-1);
  const retiming = whole ? compileRetime(whole) : null;
  cached.set(retimes, { retiming });
  return retiming;
}

/** The last retime that names a rider. */
export function ownRetiming({ retimes }: Pick<Shot, 'retimes'>, id: string): Retiming | null {
  const own = retimes.filter(({ riders, off }) => !off && riders.includes(id)).at(-1);
  return own ? compileRetime(own) : null;
}

/** What bends a rider's time on the way from the shot to its own keys: that of everything, then its own. */
export function compileRetiming(shot: Pick<Shot, 'retimes'>, id: string): Retiming[] {
  return [wholeRetiming(shot), ownRetiming(shot, id)].filter((retiming) => retiming !== null);
}

/** The frame of the work that a shot shows at a frame. */
export function sourceFrame(shot: Pick<Shot, 'retimes'>, frame: number): number {
  return wholeRetiming(shot)?.source(frame) ?? frame;
}

/** A motion in bent time. */
export function retimed(motion: Motion, { source, rate }: Retiming): Motion {
  return {
    distance: (frame) => motion.distance(source(frame)),
    speed: (frame) => motion.speed(source(frame)) * rate(frame),
  };
}

/**
 * The first frame of the shot at which a frame of the work is shown; null where none is.
 *
 * @param from to: frames of the shot to look at
 */
export function shownAt({ source }: Retiming, wanted: number, from: number, to: number): number | null {
  let before = source(from) - wanted;
  if (before === 0) return from;
  for (let frame = Math.floor(from) + 1; frame <= to; frame++) {
    const now = source(frame) - wanted;
    if (now === 0) return frame;
    if (before < 0 !== now < 0) {
      let [low, high] = [frame - 1, frame];
      for (let step = 0; step < 50; step++) {
        const middle = (low + high) / 2;
        if (source(middle) - wanted < 0 === before < 0) low = middle;
        else high = middle;
      }
      return high;
    }
    before = now;
  }
  return null;
}
