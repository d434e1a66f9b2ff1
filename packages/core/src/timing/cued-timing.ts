import type { PaceStop, Motion } from '../pace/compiled-pace.js';

/** A motion that cues can act on. */
export interface CuedMotion extends Motion {
  readonly stops: readonly PaceStop[];
}

/**
 * A motion that begins when it is cued, as it would have begun by itself.
 *
 * @param begins the frame at which it begins by itself
 * @param go     the frame it is cued at; null for never
 */
export function startedAt(motion: CuedMotion, begins: number, go: number | null): CuedMotion {
  if (go === null) return { distance: () => motion.distance(begins), speed: () => 0, stops: [] };
  const later = go - begins;
  const waits = (frame: number) => frame < go;
  return {
    distance: (frame) => motion.distance(waits(frame) ? begins : frame - later),
    speed: (frame) => (waits(frame) ? 0 : motion.speed(frame - later)),
    stops: motion.stops.map((stop) => ({ ...stop, from: stop.from + later, to: stop.to + later })),
  };
}

/**
 * A motion one of whose stops ends when it is cued, sooner or later; what follows shifts with it.
 *
 * @param index which of its stops, from 0; where there is none nothing changes
 * @param go   the frame it is cued at; null for never
 */
export function stopEndedAt(motion: CuedMotion, index: number, go: number | null): CuedMotion {
  const stop = motion.stops[index];
  if (stop === undefined) return motion;
  const end = go === null ? Infinity : Math.max(stop.from, go);
  const later = end - stop.to;
  const stands = (frame: number) => frame >= stop.from && frame < end;
  const own = (frame: number) => (frame < stop.from ? frame : frame - later);
  return {
    distance: (frame) => (stands(frame) ? stop.distance : motion.distance(own(frame))),
    speed: (frame) => (stands(frame) ? 0 : motion.speed(own(frame))),
    stops: motion.stops.map((other, i) => {
      if (i < index) return other;
      return i === index
        ? { ...stop, to: end }
        : { ...other, from: other.from + later, to: other.to + later };
    }),
  };
}
