import type { Gait } from '../../document/shot-rider.js';

const SAMPLES = 720;

/**
 * Phases at which a walker can stop and look as if it stood: the middles of the stretches in which most of its feet
 * are down, in order; none if no feet are known.
 */
export function restingPhases({ feet }: Pick<Gait, 'feet'>): number[] {
  if (feet.every(({ stances }) => stances.length === 0)) return [];
  const down = Array.from({ length: SAMPLES }, (_, i) => {
    const phase = i / SAMPLES;
    return feet.filter(({ stances }) =>
      stances.some(({ from, to }) => (phase >= from && phase <= to) || phase + 1 <= to),
    ).length;
  });
  const most = Math.max(...down);
  const gap = down.findIndex((count) => count < most);
  if (gap < 0) return [0];
  const phases: number[] = [];
  let since = -1;
  for (let i = gap; i <= gap + SAMPLES; i++) {
    const full = down[i % SAMPLES] === most;
    if (full && since < 0) since = i;
    if (full || since < 0) continue;
    phases.push((((since + i - 1) / 2 / SAMPLES) % 1) + 0);
    since = -1;
  }
  return phases.sort((a, b) => a - b);
}

/** The natural stopping phase nearest to a phase, in any cycle; the phase itself if none is known. */
export function naturalPhase(phase: number, phases: readonly number[]): number {
  return phase + naturalStep(phase, phases);
}

/** From a phase to the nearest natural one, cycles; 0 where none is known. */
export function naturalStep(phase: number, phases: readonly number[]): number {
  const steps = phases.map((natural) => natural - phase - Math.round(natural - phase));
  return steps.reduce((best, step) => (Math.abs(step) < Math.abs(best) ? step : best), steps[0] ?? 0);
}
