import { bisect } from '../../geometry/math/search.js';
import type { Retime, RetimeKey } from '../../document/shot-retime.js';
import type { Shot } from '../../document/shot.js';
import { newJet } from '../../geometry/math/jet.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';
import type { FrameStep } from './frame-step.js';

/** Shot time bent into the time of the work under it. */
export interface Retiming {
  /** The frame of the work that is shown at a frame of the shot. */
  source(frame: number): number;
  /** Frames of the work per frame of the shot: 1 unchanged, ½ slow motion, 0 a freeze. */
  rate(frame: number): number;
}

/**
 * Retime keys over frames, at least one. Before the first and after the last time runs on at its own rate, and smooth ends
 * meet that.
 */
export function retimingOf(keys: readonly RetimeKey[]): Retiming {
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

type Retimes = Pick<Shot, 'retimes'>;

/** The last retime that plays of those for everything, or with an id of those that name that rider; none where it has no keys. */
function playedRetime({ retimes }: Retimes, id: string | null): Retime | null {
  const played = retimes.filter(
    ({ riders, off }) => !off && (id === null ? riders.length === 0 : riders.includes(id)),
  );
  const last = played.at(-1);
  return last && last.keys.length > 0 ? last : null;
}

const cached = new WeakMap<readonly Retime[], { retiming: Retiming | null }>();

/** Retime of everything in a shot, if any: the last one without riders. */
export function wholeRetiming(shot: Retimes): Retiming | null {
  const before = cached.get(shot.retimes);
  if (before) return before.retiming;
  const whole = playedRetime(shot, null);
  const retiming = whole && retimingOf(whole.keys);
  cached.set(shot.retimes, { retiming });
  return retiming;
}

/** Retime of everything, as a step from the work to what is shown. */
export function wholeRetimeStep(shot: Retimes): FrameStep[] {
  return stepOf(playedRetime(shot, null));
}

/** Retime of a rider, as a step. */
export function ownRetimeStep(shot: Retimes, id: string): FrameStep[] {
  return stepOf(playedRetime(shot, id));
}

const stepOf = (retime: Retime | null): FrameStep[] =>
  retime ? [{ kind: 'retime', keys: retime.keys }] : [];

/** The frame of the work that a shot shows at a frame. */
export function sourceFrame(shot: Retimes, frame: number): number {
  return wholeRetiming(shot)?.source(frame) ?? frame;
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
      const passed = before < 0;
      return bisect((moment) => source(moment) - wanted < 0 !== passed, frame - 1, frame);
    }
    before = now;
  }
  return null;
}

/** The last frame of the work that is shown in a shot. */
export function lastSource(shot: Retimes & Pick<Shot, 'range'>): number {
  const { first, last } = shot.range;
  const whole = wholeRetiming(shot);
  let end = last;
  if (whole) for (let frame = first; frame <= last; frame++) end = Math.max(end, whole.source(frame));
  return end;
}
