import { quat, vec3 } from 'gl-matrix';
import type { Emitter } from '../../document/shot-emitter.js';
import { LIMITS } from '../../document/limits.js';
import { RADIANS } from '../../geometry/math/angle.js';
import { velocityAt } from '../../geometry/math/velocity.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { Spray } from './spray.js';

/** Writes position and rotation of an emitter, seven numbers, at a frame of the work. */
export type EmitterAt = (frame: number, out: Float64Array) => void;

/** Source of an emitter's position. */
export interface EmitterTrack {
  /** The places it sprays from, one after the other: one, or a wheel each. */
  readonly outlets: readonly EmitterAt[];
  /** The rider itself: its own speed and whether it slides follow from it. */
  readonly rider: EmitterAt;
  /** Along its nose, and across, in its own space. */
  readonly across: Vec3;
  /** Frames of the work that are shown, and in a loop the frames of a cycle. */
  readonly first: number;
  readonly last: number;
  readonly cycle: number | null;
  readonly fps: number;
  /** Whether the rider is seen, and so sprays, at a frame of the work; null where it always is. */
  readonly shows: ((frame: number) => boolean) | null;
  /** The frames of the work at which bursts are let off, and of how many. */
  readonly bursts: readonly { readonly frame: number; readonly count: number }[];
}

/** Slower than this it counts as stopped, m/s. */
const STANDS = 0.05;
/** Faster than this across its nose it counts as sliding, m/s. */
const SLIDES = 0.2;
/** With more particles a frame than this, several share a sample of their emitter. */
const STEPS = 32;
/** Looks a frame at how far it has come. */
const LOOKS = 4;

/** All that an emitter ever sprays in a shot. */
export function compileSpray(emitter: Emitter, way: EmitterTrack): Spray {
  const { first, last, cycle, fps, across } = way;
  const seconds = (cycle ?? last - first) / fps;
  const times: number[] = [];
  // In a loop particles of earlier cycles are alive as well: all that live together count, and none outlives this
  // number of cycles.
  const life = cycle === null ? emitter.life : Math.min(emitter.life, LIMITS.particles * seconds);
  const rounds = cycle === null ? 1 : Math.max(1, Math.ceil(life / seconds));
  const room = Math.max(1, Math.floor(LIMITS.particles / rounds));
  // Of one number more than there may be, so that it is known that there are too many.
  const most = room + 1;
  const regular =
    emitter.by === 'time'
      ? byTime(emitter.rate, seconds, cycle !== null, most)
      : byDistance(emitter.rate, way, most);
  for (const time of regular) times.push(time);
  for (const { frame, count } of way.bursts) {
    const time = (frame - first) / fps;
    const shown = cycle === null ? time <= seconds : time >= 0 && time < seconds;
    if (shown) for (let i = 0; i < count; i++) times.push(time);
  }
  times.sort((a, b) => a - b);
  // Of very many a frame each has not to ask anew where its emitter is.
  const dense = times.length > STEPS * (seconds * fps + 1);
  const outlets = dense ? way.outlets.map(inSteps) : way.outlets;
  const rider = dense ? inSteps(way.rider) : way.rider;
  const births: number[] = [];
  const place = new Float64Array(7);
  const spare = new Float64Array(7);
  const speedOf = (at: EmitterAt, frame: number, out: Vec3) =>
    velocityAt(
      (when, to) => {
        at(when, spare);
        for (let k = 0; k < 3; k++) to[k] = spare[k];
      },
      frame,
      fps,
      out,
    );
  const velocity: Vec3 = [0, 0, 0];
  const carried: Vec3 = [0, 0, 0];
  const turn: Quat = [0, 0, 0, 1];
  let count = 0;
  for (const [n, time] of times.entries()) {
    if (count >= room) break;
    const frame = first + time * fps;
    if (way.shows?.(frame) === false) continue;
    if (emitter.when !== 'always') {
      rider(frame, place);
      speedOf(rider, frame, velocity);
      if (emitter.when === 'moving' && vec3.length(velocity) < STANDS) continue;
      if (emitter.when === 'sliding') {
        for (let k = 0; k < 4; k++) turn[k] = place[3 + k];
        const side = vec3.transformQuat([0, 0, 0], across, turn);
        if (Math.abs(vec3.dot(velocity, side)) < SLIDES) continue;
      }
    }
    const outlet = outlets[n % outlets.length];
    outlet(frame, place);
    for (let k = 0; k < 4; k++) turn[k] = place[3 + k];
    inCone(emitter, n, velocity);
    vec3.transformQuat(velocity, velocity, turn);
    if (emitter.inherit !== 0) {
      speedOf(outlet, frame, carried);
      vec3.scaleAndAdd(velocity, velocity, carried, emitter.inherit);
    }
    births.push(time, place[0], place[1], place[2], ...velocity, ...turn);
    count++;
  }
  return {
    births: Float64Array.from(births),
    count,
    limited: times.length > room && count === room,
    cycle: cycle === null ? 0 : seconds,
    flight: { life, gravity: emitter.gravity, drag: emitter.drag, size: emitter.size },
  };
}

/** The same sampled at a number of times a frame, and linear in between; in rising order each sample is taken once. */
function inSteps(at: EmitterAt): EmitterAt {
  let step = NaN;
  const [begin, end] = [new Float64Array(7), new Float64Array(7)];
  return (frame, out) => {
    const now = Math.floor(frame * STEPS);
    if (now === step + 1) begin.set(end);
    else if (now !== step) at(now / STEPS, begin);
    if (now !== step) at((now + 1) / STEPS, end);
    step = now;
    const part = frame * STEPS - now;
    // Of a rotation and its negative, which are the same, the nearer one.
    let dot = 0;
    for (let k = 3; k < 7; k++) dot += begin[k] * end[k];
    const sign = dot < 0 ? -1 : 1;
    for (let k = 0; k < 7; k++) out[k] = begin[k] + part * ((k < 3 ? 1 : sign) * end[k] - begin[k]);
    const size = Math.hypot(out[3], out[4], out[5], out[6]);
    for (let k = 3; k < 7; k++) out[k] /= size;
  };
}

/** Particle n at n / rate seconds. */
function byTime(rate: number, seconds: number, loops: boolean, most: number): number[] {
  if (rate === 0) return [];
  const times: number[] = [];
  for (let n = 0; n < most; n++) {
    const time = n / rate;
    if (loops ? time >= seconds - 1e-9 : time > seconds) break;
    times.push(time);
  }
  return times;
}

/** Particle n where the rider has come n / rate metres. */
function byDistance(rate: number, { rider, first, last, cycle, fps }: EmitterTrack, most: number): number[] {
  if (rate === 0) return [];
  const times: number[] = [];
  const here = new Float64Array(7);
  const there = new Float64Array(7);
  rider(first, there);
  let come = 0;
  const frames = cycle ?? last - first;
  for (let i = 1; i <= Math.ceil(frames * LOOKS) && times.length < most; i++) {
    here.set(there);
    rider(first + i / LOOKS, there);
    const step = Math.hypot(there[0] - here[0], there[1] - here[1], there[2] - here[2]);
    while (step > 0 && times.length / rate < come + step && times.length < most)
      times.push((i - 1 + (times.length / rate - come) / step) / LOOKS / fps);
    come += step;
  }
  return times;
}

/** A direction in a cone about the emitter's up, uniform over its part of a sphere, scaled by the speed. */
function inCone({ seed, spread, speed }: Emitter, n: number, out: Vec3): void {
  const number = seededNumbers(seed, n);
  const rim = Math.cos(spread * RADIANS);
  const up = 1 - ((number() + 1) / 2) * (1 - rim);
  const round = Math.PI * number();
  const beside = Math.sqrt(Math.max(0, 1 - up * up));
  out[0] = speed * beside * Math.cos(round);
  out[1] = speed * up;
  out[2] = speed * beside * Math.sin(round);
}

/** Sets a rotation among seven numbers. */
export function writePlace(out: Float64Array, position: ArrayLike<number>, rotation: Quat): void {
  for (let k = 0; k < 3; k++) out[k] = position[k];
  const unit = quat.normalize([0, 0, 0, 1], rotation);
  for (let k = 0; k < 4; k++) out[3 + k] = unit[k];
}
