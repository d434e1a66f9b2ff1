import type { Drive } from '../../document/shot-pace.js';

/** Stops that are this near are at one place, metres. */
const SAME = 0.005;

/** The stops of a drive with one more; one that is there already is one with it, and as long as the longer of the two. */
export function addStop(
  { stops }: Pick<Drive, 'stops'>,
  stop: Readonly<Drive['stops'][number]>,
): Drive['stops'] {
  const i = stops.findIndex(({ distance }) => Math.abs(distance - stop.distance) < SAME);
  if (i < 0) return [...stops, stop].sort((a, b) => a.distance - b.distance);
  return stops.map((one, k) => (k === i ? { ...one, seconds: Math.max(one.seconds, stop.seconds) } : one));
}
