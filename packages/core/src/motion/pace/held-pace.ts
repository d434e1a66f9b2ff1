import type { Pace } from '../../document/shot-pace.js';
import type { CompiledPace, Motion } from './compiled-pace.js';
import type { Track } from './track.js';

/** A distance past an end by less than the path's own rounding, in parts of its length, is not past it: it arrives at speed. */
const HAIR = 1e-9;

/**
 * A pace as it is travelled: clamped to the ends of an open path, and to its `within`. Before or after its own range,
 * `run` continues beyond an end, from where it was clamped.
 */
export function heldPace(compiled: CompiledPace, pace: Pace, { length, closed }: Track): Motion {
  const { before, after, within, speeds } = pace;
  if (closed && within === null) return compiled;
  const [least, most] = within === null ? [-Infinity, Infinity] : [within[0], within[1]];
  const [low, high] = closed ? [-Infinity, Infinity] : [0, length];
  // Speeds define no end themselves; `run` continues beyond their keys.
  const from = Number.isFinite(compiled.from) ? compiled.from : (speeds[0]?.frame ?? Infinity);
  const to = Number.isFinite(compiled.to) ? compiled.to : (speeds[speeds.length - 1]?.frame ?? -Infinity);
  const runsIn = before === 'run';
  const runsOut = after === 'run';
  const heldBy = (frame: number) => {
    if (!Number.isFinite(frame)) return 0;
    const asked = compiled.distance(frame);
    return clamp(asked, low, high) - asked;
  };
  const entering = runsIn ? heldBy(from) : 0;
  const leaving = runsOut ? heldBy(to) : 0;
  const distance = (frame: number): number => {
    const asked = compiled.distance(frame);
    const held =
      runsIn && frame < from
        ? asked + entering
        : runsOut && frame > to
          ? asked + leaving
          : clamp(asked, low, high);
    return clamp(held, least, most);
  };
  return {
    distance,
    speed(frame) {
      const asked = compiled.distance(frame);
      const off = runsIn && frame < from ? entering : runsOut && frame > to ? leaving : 0;
      return Math.abs(distance(frame) - (asked + off)) <= HAIR * length ? compiled.speed(frame) : 0;
    },
  };
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
