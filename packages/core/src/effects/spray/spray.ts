import type { Emitter } from '../../document/shot-emitter.js';
import { modulo } from '../../geometry/math/angle.js';
import { lastAtMost, lowerBound } from '../../geometry/math/search.js';
import { GRAVITY } from '../../geometry/math/gravity.js';

/** Layout of a birth: time, seconds from the first frame of the work; position, velocity and rotation in the world. */
export const BIRTH = { time: 0, position: 1, velocity: 4, rotation: 7, numbers: 11 } as const;
/** Most particles of one rider alive together in a GLB. */
export const MOST_IN_GLB = 500;
/** Layout of a particle: position, rotation, size, and the part of its life that is over. */
export const PARTICLE = { position: 0, rotation: 3, size: 7, part: 8, numbers: 9 } as const;

/** All that an emitter sprays: particle n is the n-th that is born. */
export interface Spray {
  /** {@link BIRTH}.numbers each, in order of time. */
  readonly births: Float64Array;
  readonly count: number;
  /** Whether there would be more were there no limit. */
  readonly limited: boolean;
  /** In a loop, after how many seconds all of it begins anew; else 0. */
  readonly cycle: number;
  readonly flight: Flight;
}

/** Fields of an emitter that a particle's flight depends on. */
export type Flight = Pick<Emitter, 'life' | 'gravity' | 'drag' | 'size'>;

/** Times are sums: what dies at a frame is not seen in it, whichever way that was rounded; seconds. */
const ROUNDING = 1e-9;

/** Which particles are alive at a time, those that were born first first; in a loop those of cycles before are among them. */
export function aliveAt(
  { births, count, cycle, flight }: Spray,
  seconds: number,
): { n: number; age: number }[] {
  const found: { n: number; age: number }[] = [];
  const life = flight.life - ROUNDING;
  const shown = cycle > 0 ? modulo(seconds, cycle) : seconds;
  for (let k = cycle > 0 ? Math.ceil(life / cycle) : 0; k >= 0 && count > 0; k--) {
    const now = shown + k * cycle;
    for (let n = lastAtMost(births, now - life, count, BIRTH.numbers); n < count; n++) {
      const age = now - births[BIRTH.numbers * n];
      if (age < -ROUNDING) break;
      if (age < life) found.push({ n, age: Math.max(0, age) });
    }
  }
  return found;
}

/**
 * Position of a particle at an age, in closed form: v' = g − drag · v.
 *
 * @param age seconds since its birth
 */
export function particleAt(
  { births, flight }: Spray,
  n: number,
  age: number,
  out: Float64Array,
  at = 0,
): void {
  const b = BIRTH.numbers * n;
  const { drag, gravity, life, size } = flight;
  const run = drag > 0 ? -Math.expm1(-drag * age) / drag : age;
  // Twice integrated; where there is next to no drag its difference of two near numbers is no number any more.
  const fall =
    drag * age > 1e-3 ? (age - run) / drag : age * age * (0.5 - (drag * age) / 6 + (drag * age) ** 2 / 24);
  for (let k = 0; k < 3; k++)
    out[at + k] = births[b + BIRTH.position + k] + run * births[b + BIRTH.velocity + k];
  out[at + 1] -= gravity * GRAVITY * fall;
  for (let k = 0; k < 4; k++) out[at + PARTICLE.rotation + k] = births[b + BIRTH.rotation + k];
  const part = age / life;
  out[at + PARTICLE.size] = size[0] + part * (size[1] - size[0]);
  out[at + PARTICLE.part] = part;
}

/** Maximum of particles alive together, each counted for a number of seconds longer than it lives. */
export function mostAlive({ births, count, cycle, flight }: Spray, longer = 0): number {
  const life = flight.life + longer;
  const times = Array.from({ length: count }, (_, n) => births[BIRTH.numbers * n]);
  // In a loop the cycle is counted after as many of it as make all particles of earlier ones present.
  const rounds = cycle > 0 ? Math.ceil(life / cycle) + 1 : 1;
  const all = Array.from({ length: rounds }, (_, k) => times.map((time) => time + k * cycle)).flat();
  let most = 0;
  for (let i = 0; i < all.length; i++)
    most = Math.max(most, i + 1 - lowerBound(all, all[i] - life + ROUNDING));
  return most;
}

/** Step between the particles written to a GLB, so that no more than {@link MOST_IN_GLB} live together. */
export function everyInGlb(spray: Spray, fps: number): number {
  return Math.max(1, Math.ceil(mostInGlb(spray, fps) / MOST_IN_GLB));
}

/**
 * Maximum in use together: each node from a frame before its particle lives to one after, so that it is hidden
 * between two lives.
 */
export function mostInGlb(spray: Spray, fps: number): number {
  return mostAlive(spray, 2 / fps);
}
