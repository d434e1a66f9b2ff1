import { quat } from 'gl-matrix';
import type { RigidBody } from '../../document/shot-rigid-body.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { TriangleMesh } from '../../geometry/solid/triangle-mesh.js';
import { STATE, type BodySpec, type KinematicSpec, type Physics, type PhysicsWorld } from './physics.js';
import { SteppedWorld } from './stepped-world.js';
import { rotationVectorBetween } from './turn-between.js';

/** Target of a body: its position and rotation, and their velocities. */
export const WANTED = { position: 0, rotation: 3, velocity: 7, numbers: 10 } as const;
/** Position of a kinematic box. */
export const KINEMATIC = { position: 0, rotation: 3, numbers: 7 } as const;

/** Least steps a second; more with few bodies, for accurate bounces and swings. */
const RATE = 120;
const FINER = [
  { bodies: 8, times: 8 },
  { bodies: 24, times: 2 },
] as const;
/** Most steps a frame otherwise: low rates have long frames. */
const MOST = 80;
/** A place is held by a pull of 1 as by a spring that swings so fast were it not damped, rad/s; by less with the square of it. */
const STIFF = 30;
/** How much of the damping that lets nothing swing is there at a pull of next to nothing. */
const SLACK = 0.15;
/** A place that goes so much further in a frame than in the one before has jumped, metres. */
const JUMP = 1;

/** A body that is pulled along. */
export interface PulledSpec {
  readonly body: BodySpec;
  readonly forces: RigidBody;
}

/** Contents of a world of pulled bodies, without positions. */
export interface PulledWorld {
  readonly ground: TriangleMesh | null;
  readonly floor: number | null;
  readonly bodies: readonly PulledSpec[];
  readonly led: readonly KinematicSpec[];
  readonly fps: number;
}

/**
 * Bodies that are pulled to their places. Inputs of a frame: {@link WANTED}.numbers a body, then {@link KINEMATIC}.numbers a box that is led;
 * its state: {@link STATE}.numbers a body.
 */
export class PulledBodies extends SteppedWorld {
  readonly size: number;
  readonly width: number;
  private readonly steps: number;
  private readonly now = new Float64Array(STATE.numbers);

  constructor(
    physics: Physics,
    private readonly setup: PulledWorld,
  ) {
    super(physics);
    this.size = setup.bodies.length * STATE.numbers;
    this.width = setup.bodies.length * WANTED.numbers + setup.led.length * KINEMATIC.numbers;
    const least = Math.max(1, Math.ceil(RATE / setup.fps));
    const finer = FINER.find(({ bodies }) => setup.bodies.length <= bodies)?.times ?? 1;
    this.steps = Math.max(least, Math.min(MOST, Math.ceil((RATE * finer) / setup.fps)));
  }

  begin(inputs: Float64Array, out: Float64Array, at: number): void {
    const { bodies, led, ground, floor, fps } = this.setup;
    this.open({
      ground,
      floor,
      bodies: bodies.map(({ body }, i) => ({ ...body, state: asWanted(inputs, i * WANTED.numbers) })),
      led: led.map((one, i) => ({ ...one, ...this.ledAt(inputs, i) })),
      step: 1 / (fps * this.steps),
    });
    this.write(out, at);
  }

  step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void {
    const { world } = this;
    const { bodies, led } = this.setup;
    const jumps = bodies.map((_, i) => this.jumps(before, after, i));
    for (let step = 1; step <= this.steps; step++) {
      const part = step / this.steps;
      for (let i = 0; i < led.length; i++) {
        const [a, b] = [this.ledAt(before, i), this.ledAt(after, i)];
        const position = a.position.map((value, k) => value + part * (b.position[k] - value)) as Vec3;
        world.lead(i, position, quat.slerp([0, 0, 0, 1], a.rotation, b.rotation, part) as Quat);
      }
      for (let i = 0; i < bodies.length; i++) if (!jumps[i]) this.pull(world, i, before, after, part);
      world.step();
    }
    // A body whose target jumps starts again at its target.
    bodies.forEach((_, i) => jumps[i] && world.set(i, asWanted(after, i * WANTED.numbers)));
    this.write(out, at);
  }

  private write(out: Float64Array, at: number): void {
    for (let i = 0; i < this.setup.bodies.length; i++) this.world.body(i, out, at + i * STATE.numbers);
  }

  /** Whether a position jumps, as where a ride begins again. */
  private jumps(before: Float64Array, after: Float64Array, i: number): boolean {
    const at = i * WANTED.numbers;
    const step = Math.hypot(...[0, 1, 2].map((k) => after[at + k] - before[at + k]));
    const speed = Math.hypot(...[7, 8, 9].map((k) => before[at + k]));
    const next = Math.hypot(...[7, 8, 9].map((k) => after[at + k]));
    return step > JUMP + (4 * Math.max(speed, next)) / this.setup.fps;
  }

  private pull(world: PhysicsWorld, i: number, a: Float64Array, b: Float64Array, part: number): void {
    const { forces, body } = this.setup.bodies[i];
    const { mass } = body;
    const { now } = this;
    if (forces.turnPull > 0) world.body(i, now, 0);
    else world.way(i, now);
    const at = i * WANTED.numbers;
    const force: Vec3 = [0, 0, 0];
    const torque: Vec3 = [0, 0, 0];
    const wanted = (k: number) => a[at + k] + part * (b[at + k] - a[at + k]);
    if (forces.pull > 0) {
      const stiff = STIFF * forces.pull ** 2;
      const damped = 2 * stiff * (SLACK + (1 - SLACK) * forces.pull);
      // Height is the ground's.
      for (const k of [0, 2]) {
        const speed = forces.pull * wanted(WANTED.velocity + k);
        force[k] = mass * (stiff * stiff * (wanted(k) - now[k]) + damped * (speed - now[STATE.velocity + k]));
      }
    }
    if (forces.drag > 0) {
      const speed = Math.hypot(now[7], now[8], now[9]);
      for (let k = 0; k < 3; k++) force[k] -= forces.drag * speed * now[STATE.velocity + k];
    }
    if (forces.turnPull > 0) this.turn(i, rotationAt(a, at), rotationAt(b, at), part, torque);
    if (force.some((value) => value !== 0) || torque.some((value) => value !== 0))
      world.push(i, force, torque);
  }

  private turn(i: number, a: Quat, b: Quat, part: number, torque: Vec3): void {
    const { forces, body } = this.setup.bodies[i];
    const { now } = this;
    const stiff = STIFF * forces.turnPull ** 2;
    const damped = 2 * stiff * (SLACK + (1 - SLACK) * forces.turnPull);
    const inertia = 0.4 * body.mass * forces.size ** 2;
    const wanted = quat.slerp([0, 0, 0, 1], a, b, part) as Quat;
    const off = rotationVectorBetween([now[3], now[4], now[5], now[6]], wanted);
    for (let k = 0; k < 3; k++) torque[k] = inertia * (stiff * stiff * off[k] - damped * now[STATE.spin + k]);
  }

  private ledAt(inputs: Float64Array, i: number): { position: Vec3; rotation: Quat } {
    const at = this.setup.bodies.length * WANTED.numbers + i * KINEMATIC.numbers;
    return { position: [inputs[at], inputs[at + 1], inputs[at + 2]], rotation: rotationAt(inputs, at) };
  }
}

const rotationAt = (v: Float64Array, at: number): Quat => [v[at + 3], v[at + 4], v[at + 5], v[at + 6]];

/** The state of a body that is where it is wanted. */
function asWanted(inputs: Float64Array, at: number): Float64Array {
  const state = new Float64Array(STATE.numbers);
  state.set(inputs.subarray(at, at + WANTED.numbers));
  return state;
}
