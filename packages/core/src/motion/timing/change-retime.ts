import type { RetimeKey } from '../../document/shot-retime.js';
import { retimingOf } from './retiming.js';

type Keys = readonly RetimeKey[];

/** The frame of the work that keys show at a frame of the shot. */
function sourceOf(keys: Keys, frame: number): number {
  return keys.length === 0 ? frame : retimingOf(keys).source(frame);
}

/** Keys with one more, at what is shown at a frame anyway; one that is there already stays. */
export function addRetimeKey(keys: Keys, frame: number): RetimeKey[] {
  if (keys.some((key) => key.frame === frame)) return [...keys];
  const ease = keys.findLast((key) => key.frame < frame)?.ease ?? 'linear';
  const key: RetimeKey = { frame, source: sourceOf(keys, frame), ease };
  return [...keys, key].sort((a, b) => a.frame - b.frame);
}

/**
 * From a frame on, `span` frames of the shot are stretched to `frames`: longer is slow motion, and a span of 0 is a
 * freeze. Later keys are shifted and otherwise unchanged.
 */
export function stretchRetime(keys: Keys, frame: number, span: number, frames: number): RetimeKey[] {
  const whole = addRetimeKey(span > 0 ? addRetimeKey(keys, frame) : keys, frame + span);
  const stretched = whole.map((key): RetimeKey => {
    if (key.frame < frame || (key.frame === frame && span > 0)) return key;
    const later =
      key.frame < frame + span ? ((key.frame - frame) * frames) / span : key.frame - frame - span + frames;
    return { ...key, frame: frame + later };
  });
  if (span > 0) return stretched;
  const begins = whole.find((key) => key.frame === frame) as RetimeKey;
  const freeze: RetimeKey = { ...begins, ease: 'linear' };
  return [...stretched, freeze].sort((a, b) => a.frame - b.frame);
}

/** Keys that play a second about a frame at half speed; a shorter range is slowed whole. */
export function halfSpeedAround(
  { first, last }: { readonly first: number; readonly last: number },
  fps: number,
  frame: number,
): RetimeKey[] {
  const span = Math.max(1, Math.min(Math.round(fps), last - first));
  const from = Math.max(first, Math.min(last - span, Math.round(frame - span / 2)));
  return stretchRetime([], from, span, 2 * span);
}
