import { quat, vec3 } from 'gl-matrix';
import { GRAVITY } from '../../geometry/math/gravity.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { ballRates, hingeRates, type Pivot } from './pendulum.js';
import type { Stepped } from './simulation.js';

/** Inputs of a frame: position, rotation, velocity and angular velocity (rad/s) of the rider in the world. */
export const CARRIER = { position: 0, rotation: 3, velocity: 7, spin: 10, numbers: 13 } as const;
/** A part's state: of a ball joint the direction of its bar in the world, of a hinge its angle; then how fast that changes a second. */
export const SWING = { value: 0, rate: 3, numbers: 6 } as const;
/** A rider that moves further than this in a frame was placed there, metres. */
const JUMP = 2;
/** Least steps a second; more if one would turn by more than this part of a radian, or lose more of its swing. */
const RATE = 240;
const FINE = 0.1;
/** Steps a frame, at most: what is stiffer than that is held as stiffly as they can. */
const MOST = 400;
/** Inputs that differ by less are the same: metres, and what is measured by them. */
const SAME = 1e-9;

/** A part and where it hangs, in its rider's space, metres of the world. */
export interface HangingSpec {
  readonly joint: { readonly kind: 'ball' } | { readonly kind: 'hinge'; readonly axis: Vec3 };
  readonly mass: number;
  /** From where it hangs to its middle of mass. */
  readonly middle: Vec3;
  readonly at: Vec3;
  /** Newton metres a radian. */
  readonly stiffness: number;
  /** Damping of its swing, per second. */
  readonly damping: number;
}

/**
 * Parts that hang on one rider and swing as it goes, each a mass on a bar: its motion is solved in double precision by the classical
 * method of Runge and Kutta (1901), in steps that are short beside its swing. Inputs of a frame: {@link CARRIER}; its state: {@link SWING}.numbers a part.
 */
export class HangingParts implements Stepped {
  readonly size: number;
  readonly width = CARRIER.numbers;
  private state: Float64Array;
  private readonly steps: readonly number[];

  constructor(
    private readonly parts: readonly HangingSpec[],
    private readonly fps: number,
  ) {
    this.size = parts.length * SWING.numbers;
    this.state = new Float64Array(this.size);
    this.steps = parts.map((part) => stepsOf(part, fps));
  }

  rounded(value: number): number {
    return Math.round(value / SAME) * SAME;
  }

  begin(inputs: Float64Array, out: Float64Array, at: number): void {
    this.parts.forEach((part, i) => this.state.set(restState(part, inputs), i * SWING.numbers));
    out.set(this.state, at);
  }

  step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void {
    // A part of a rider that was placed elsewhere hangs there at rest.
    if (vec3.distance(placeIn(before), placeIn(after)) > JUMP * Math.max(1, 24 / this.fps)) {
      this.begin(after, out, at);
      return;
    }
    this.parts.forEach((part, i) => {
      const own = this.state.subarray(i * SWING.numbers, (i + 1) * SWING.numbers);
      swing(part, new Carried(part, before, after, this.fps), own, this.steps[i], this.fps);
    });
    out.set(this.state, at);
  }

  save(): Uint8Array {
    return new Uint8Array(this.state.slice().buffer);
  }

  load(saved: Uint8Array): void {
    this.state = new Float64Array(saved.slice().buffer);
  }

  close(): void {
    // Nothing is held.
  }
}

function stepsOf({ middle, mass, stiffness, damping }: HangingSpec, fps: number): number {
  const length = Math.max(1e-6, vec3.length(middle));
  const quick = Math.sqrt(GRAVITY / length + stiffness / (mass * length * length)) + damping;
  return Math.min(MOST, Math.ceil(Math.max(RATE, quick / FINE) / fps));
}

/** A part that was not moved yet. */
function restState({ joint, middle }: HangingSpec, inputs: Float64Array): Float64Array {
  const state = new Float64Array(SWING.numbers);
  if (joint.kind === 'hinge') return state;
  const length = vec3.length(middle);
  const stands = vec3.transformQuat([0, 0, 0], middle, rotationIn(inputs));
  if (length > 0) state.set(vec3.scale(stands, stands, 1 / length));
  return state;
}

/** How the place where a part hangs moves from one frame to the next. */
class Carried {
  private readonly from: Quat;
  private readonly to: Quat;
  private readonly places: readonly [Vec3, Vec3];
  private readonly speeds: readonly [Vec3, Vec3];
  private readonly spins: readonly [Vec3, Vec3];
  readonly pivot: Pivot;

  constructor(
    private readonly part: HangingSpec,
    before: Float64Array,
    after: Float64Array,
    private readonly fps: number,
  ) {
    [this.from, this.to] = [rotationIn(before), rotationIn(after)];
    const arms = [this.from, this.to].map((turn) => vec3.transformQuat([0, 0, 0], part.at, turn) as Vec3);
    this.spins = [spinIn(before), spinIn(after)];
    this.places = [
      vec3.add(arms[0], arms[0], placeIn(before)) as Vec3,
      vec3.add(arms[1], arms[1], placeIn(after)) as Vec3,
    ];
    this.speeds = [before, after].map((inputs, i) => {
      const turned = vec3.cross([0, 0, 0], this.spins[i], vec3.subtract([0, 0, 0], arms[i], placeIn(inputs)));
      return vec3.add(turned, turned, velocityIn(inputs)) as Vec3;
    }) as [Vec3, Vec3];
    this.pivot = {
      push: [0, 0, 0],
      spin: [0, 0, 0],
      turning: vec3.scale([0, 0, 0], vec3.subtract([0, 0, 0], this.spins[1], this.spins[0]), fps) as Vec3,
      stands: [0, 0, 0],
      axis: [0, 1, 0],
    };
  }

  /** @param t 0 to 1 from one frame to the next: its place goes by a cubic through both, at their speeds */
  at(t: number): Pivot {
    const { pivot, fps, part } = this;
    const turn = quat.slerp(turned, this.from, this.to, t) as Quat;
    for (let k = 0; k < 3; k++) {
      const rise = this.places[1][k] - this.places[0][k];
      const [v, w] = [this.speeds[0][k] / fps, this.speeds[1][k] / fps];
      pivot.push[k] = ((6 - 12 * t) * rise + (6 * t - 4) * v + (6 * t - 2) * w) * fps * fps;
      pivot.spin[k] = this.spins[0][k] + t * (this.spins[1][k] - this.spins[0][k]);
    }
    vec3.transformQuat(pivot.stands, part.middle, turn);
    if (part.joint.kind === 'hinge') vec3.transformQuat(pivot.axis, part.joint.axis, turn);
    return pivot;
  }
}

const turned: Quat = [0, 0, 0, 1];
const [k1, k2, k3, k4, asked] = Array.from({ length: 5 }, () => new Float64Array(SWING.numbers));

/** Swings a part on by a frame. */
function swing(part: HangingSpec, carried: Carried, state: Float64Array, steps: number, fps: number): void {
  const { joint } = part;
  if (vec3.length(part.middle) === 0) return;
  const stiffest = part.mass * vec3.squaredLength(part.middle) * (fps * steps) ** 2;
  const bob = {
    ...part,
    stiffness: Math.min(part.stiffness, stiffest),
    damping: Math.min(part.damping, fps * steps),
  };
  const rates = joint.kind === 'ball' ? ballRates : hingeRates;
  const dt = 1 / (fps * steps);
  const numbers = joint.kind === 'ball' ? SWING.numbers : 2;
  // A hinge's angle and its rate lie side by side while it is solved.
  const now = joint.kind === 'ball' ? state : Float64Array.of(state[SWING.value], state[SWING.rate]);
  const stage = (t: number, by: Float64Array | null, far: number, out: Float64Array) => {
    for (let k = 0; k < numbers; k++) asked[k] = now[k] + (by === null ? 0 : far * by[k]);
    rates(bob, carried.at(t), asked, out);
  };
  for (let n = 0; n < steps; n++) {
    const [from, middle, to] = [n, n + 0.5, n + 1].map((one) => one / steps);
    stage(from, null, 0, k1);
    stage(middle, k1, dt / 2, k2);
    stage(middle, k2, dt / 2, k3);
    stage(to, k3, dt, k4);
    for (let k = 0; k < numbers; k++) now[k] += (dt / 6) * (k1[k] + 2 * k2[k] + 2 * k3[k] + k4[k]);
    if (joint.kind === 'ball') keepOnSphere(now);
  }
  if (joint.kind === 'ball') return;
  state[SWING.value] = now[0];
  state[SWING.rate] = now[1];
}

/** The bar keeps its length. */
function keepOnSphere(state: Float64Array): void {
  const size = Math.hypot(state[0], state[1], state[2]);
  for (let k = 0; k < 3; k++) state[k] /= size;
  const along = state[0] * state[3] + state[1] * state[4] + state[2] * state[5];
  for (let k = 0; k < 3; k++) state[3 + k] -= along * state[k];
}

/** The state of a part between two frames, by a cubic through both. */
export function swingBetween(
  states: Float64Array,
  size: number,
  part: number,
  frame: number,
  count: number,
  fps: number,
  out: Float64Array,
): void {
  const held = Math.min(count - 1, Math.max(0, frame));
  const i = Math.min(count - 2, Math.floor(held));
  const t = held - i;
  const at = i * size + part * SWING.numbers;
  for (let k = 0; k < 3; k++) {
    const [a, b] = [states[at + k], states[at + size + k]];
    const [v, w] = [states[at + SWING.rate + k] / fps, states[at + size + SWING.rate + k] / fps];
    out[k] = a + t * (v + t * (3 * (b - a) - 2 * v - w + t * (v + w - 2 * (b - a))));
  }
}

const three = (values: Float64Array, at: number): Vec3 => [values[at], values[at + 1], values[at + 2]];
const placeIn = (inputs: Float64Array) => three(inputs, CARRIER.position);
const velocityIn = (inputs: Float64Array) => three(inputs, CARRIER.velocity);
const spinIn = (inputs: Float64Array) => three(inputs, CARRIER.spin);
const rotationIn = (v: Float64Array): Quat => [v[3], v[4], v[5], v[6]];
