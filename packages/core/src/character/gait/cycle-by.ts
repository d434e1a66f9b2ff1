import type { Cycle } from '../../document/shot-rider.js';

/** Below this speed a rider is stopped, m/s. */
const STANDS = 0.01;

/**
 * Changes a cycle to go by time, or by distance, as often as before at a speed, m/s; its rate stays where the rider
 * is stopped.
 */
export function cycleBy(
  { by: before, rate }: Pick<Cycle, 'by' | 'rate'>,
  by: Cycle['by'],
  speed: number,
): Pick<Cycle, 'by' | 'rate'> {
  if (by === before || speed < STANDS) return { by, rate };
  return { by, rate: Number((by === 'distance' ? rate / speed : rate * speed).toPrecision(6)) };
}
