import { modulo } from '../../geometry/math/angle.js';
import type { Cycle } from '../../document/shot-rider.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import { smoothStep } from './idle-spans.js';

/** Inputs of a cycle. */
export interface CycleRide {
  readonly first: number;
  readonly last: number;
  readonly fps: number;
  readonly loop: boolean;
  /** Metres along the path; those of a rider at rest stay 0. */
  distance(frame: number): number;
}

/** A cycle over the shot, in its own unit: degrees, metres or weight. */
export interface CycleMotion {
  value(frame: number): number;
  /** Cycles gone through since the first frame, with where it begins. */
  phase(frame: number): number;
}

/**
 * A motion that repeats by itself for as long as the ride lasts. One that is to be whole in a loop goes through the nearest
 * whole number of cycles, and its noise repeats with the loop; so it meets itself at the seam.
 */
export function compileCycle(cycle: Cycle, ride: CycleRide): CycleMotion {
  const { first, last, fps, loop } = ride;
  const frames = last - first + 1;
  const begun = ride.distance(first);
  const gone = (frame: number) =>
    cycle.by === 'time' ? (frame - first) / fps : ride.distance(frame) - begun;
  const span = gone(last + 1);
  const wished = cycle.rate * span;
  // A loop by distance of a rider that does not move has no whole cycles.
  const built = loop && cycle.whole && Math.abs(wished) > 1e-9;
  const whole = Math.sign(wished) * Math.max(1, Math.round(Math.abs(wished)));
  const rate = built ? whole / span : cycle.rate;
  const around = built ? Math.abs(whole) : Infinity;
  const random = seededNumbers(cycle.seed, 0);
  const begins = cycle.phase + (cycle.seed !== 0 && cycle.shape !== 'noise' ? (random() + 1) / 2 : 0);
  const phase = (frame: number) => begins + rate * gone(frame);
  const shape = shapes[cycle.shape];
  const swell = (frame: number): number => {
    const seconds = (frame - first) / fps;
    const left = (frames - 1) / fps - seconds;
    const up = cycle.rampIn > 0 ? smoothStep(Math.min(1, Math.max(0, seconds / cycle.rampIn))) : 1;
    const down = cycle.rampOut > 0 ? smoothStep(Math.min(1, Math.max(0, left / cycle.rampOut))) : 1;
    return up * down;
  };
  return {
    phase,
    value: (frame) => {
      if (cycle.shape === 'steady') {
        const turn = cycle.kind === 'turn' ? 360 : cycle.amplitude;
        return cycle.rest + turn * phase(frame);
      }
      return cycle.rest + cycle.amplitude * swell(frame) * shape(phase(frame), cycle.seed, around);
    },
  };
}

type Shape = (phase: number, seed: number, around: number) => number;

const shapes: Readonly<Record<Exclude<Cycle['shape'], 'steady'>, Shape> & { steady: Shape }> = {
  steady: (phase) => phase,
  sine: (phase) => Math.sin(2 * Math.PI * phase),
  /** Up and back in the first half of the cycle, then rest. */
  pulse: (phase) => {
    const part = phase - Math.floor(phase);
    return part < 0.5 ? Math.sin(2 * Math.PI * part) ** 2 : 0;
  },
  noise: (phase, seed, around) => noise(phase, seed, around),
};

/** Smooth noise from −1 to 1 with one turn a cycle or so: gradients at whole phases (Perlin 1985), seeded. */
function noise(phase: number, seed: number, around: number): number {
  const i = Math.floor(phase);
  const t = phase - i;
  const slope = (n: number) => {
    const index = Number.isFinite(around) ? modulo(n, around) : n;
    return seededNumbers(seed, index)();
  };
  const ease = t * t * t * (t * (6 * t - 15) + 10);
  const [a, b] = [slope(i) * t, slope(i + 1) * (t - 1)];
  return 2 * (a + ease * (b - a));
}
