import type { Halt, Motion } from '../pace/compiled-pace.js';

/** A motion that cues can act on. */
export interface CuedMotion extends Motion {
  readonly halts: readonly Halt[];
}

/**
 * A motion that begins when it is cued, as it would have begun by itself.
 *
 * @param begins the frame at which it begins by itself
 * @param go     the frame it is cued at; null for never
 */
export function startedAt(motion: CuedMotion, begins: number, go: number | null): CuedMotion {
  if (go === null) return { distance: () => motion.distance(begins), speed: () => 0, halts: [] };
  const later = go - begins;
  const waits = (frame: number) => frame < go;
  return {
    distance: (frame) => motion.distance(waits(frame) ? begins : frame - later),
    speed: (frame) => (waits(frame) ? 0 : motion.speed(frame - later)),
    halts: motion.halts.map((halt) => ({ ...halt, from: halt.from + later, to: halt.to + later })),
  };
}

/**
 * A motion one of whose stops ends when it is cued, sooner or later; what follows shifts with it.
 *
 * @param stop which of its stops, from 0; where there is none nothing changes
 * @param go   the frame it is cued at; null for never
 */
export function stopEndedAt(motion: CuedMotion, stop: number, go: number | null): CuedMotion {
  const halt = motion.halts[stop];
  if (halt === undefined) return motion;
  const end = go === null ? Infinity : Math.max(halt.from, go);
  const later = end - halt.to;
  const stands = (frame: number) => frame >= halt.from && frame < end;
  const own = (frame: number) => (frame < halt.from ? frame : frame - later);
  return {
    distance: (frame) => (stands(frame) ? halt.distance : motion.distance(own(frame))),
    speed: (frame) => (stands(frame) ? 0 : motion.speed(own(frame))),
    halts: motion.halts.map((other, i) => {
      if (i < stop) return other;
      return i === stop ? { ...halt, to: end } : { ...other, from: other.from + later, to: other.to + later };
    }),
  };
}
