import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../math/vec.js';
import { STATE, type HungSpec, type Physics, type PhysicsWorld } from './physics.js';
import { SteppedWorld } from './stepped-world.js';
import { turnBetween } from './turn-between.js';

/** Steps a second, at least. */
const RATE = 240;
/** What a frame's inputs are: where the rider is, how it is turned, how fast it goes. */
export const CARRIER = { position: 0, rotation: 3, velocity: 7, numbers: 10 } as const;
/** What is carried further than this in a frame was set somewhere else, metres. */
const JUMP = 2;

/** A part and where it hangs, in its rider's space. */
export interface HangingSpec extends HungSpec {
  readonly at: Vec3;
  /** Newton metres a radian. */
  readonly stiffness: number;
  /** What is lost of its swing, a second. */
  readonly damping: number;
}

/**
 * Parts that hang on one rider and swing as it goes. Inputs of a frame: {@link CARRIER}; its state: {@link STATE}.numbers a part. A part's space is its rider's, but for where it hangs.
 */
export class HangingParts extends SteppedWorld {
  readonly size: number;
  readonly width = CARRIER.numbers;
  private readonly steps: number;
  private readonly now = new Float64Array(STATE.numbers);

  constructor(
    physics: Physics,
    private readonly parts: readonly HangingSpec[],
    private readonly fps: number,
  ) {
    super(physics);
    this.size = parts.length * STATE.numbers;
    this.steps = Math.max(1, Math.ceil(RATE / fps));
  }

  begin(inputs: Float64Array, out: Float64Array, at: number): void {
    const { position, rotation, velocity } = carrierIn(inputs);
    this.open({
      ground: null,
      floor: false,
      bodies: [],
      led: [],
      hung: this.parts.map((part) => ({
        ...part,
        position: placeOf(part, position, rotation),
        rotation,
        velocity,
      })),
      step: 1 / (this.fps * this.steps),
    });
    this.write(out, at);
  }

  step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void {
    const [from, to] = [carrierIn(before), carrierIn(after)];
    // What was set somewhere else hangs there as it stands.
    if (vec3.distance(from.position, to.position) > JUMP * Math.max(1, 24 / this.fps)) {
      this.begin(after, out, at);
      return;
    }
    const { world } = this;
    const spin = vec3.scale([0, 0, 0], turnBetween(from.rotation, to.rotation), this.fps) as Vec3;
    for (let step = 1; step <= this.steps; step++) {
      const part = step / this.steps;
      const position = vec3.lerp([0, 0, 0], from.position, to.position, part) as Vec3;
      const rotation = quat.slerp([0, 0, 0, 1], from.rotation, to.rotation, part) as Quat;
      this.parts.forEach((one, i) => {
        world.carry(i, placeOf(one, position, rotation), rotation);
        if (one.stiffness > 0 || one.damping > 0) world.shove(i, this.held(world, i, rotation, spin));
      });
      world.step();
    }
    this.write(out, at);
  }

  /** The push through its middle of mass that turns a part about where it hangs: back to how it stands, and with its rider. */
  private held(world: PhysicsWorld, i: number, rotation: Quat, spin: Vec3): Vec3 {
    const { now } = this;
    const { middle, mass, stiffness, damping } = this.parts[i];
    world.hung(i, now, 0);
    const own: Quat = [now[3], now[4], now[5], now[6]];
    const arm = vec3.transformQuat([0, 0, 0], middle, own) as Vec3;
    const square = vec3.squaredLength(arm);
    if (square === 0) return [0, 0, 0];
    const torque = vec3.scale([0, 0, 0], turnBetween(own, rotation), stiffness) as Vec3;
    for (let k = 0; k < 3; k++) torque[k] += damping * mass * square * (spin[k] - now[STATE.spin + k]);
    return vec3.scale([0, 0, 0], vec3.cross([0, 0, 0], torque, arm), 1 / square) as Vec3;
  }

  private write(out: Float64Array, at: number): void {
    this.parts.forEach((_, i) => this.world.hung(i, out, at + i * STATE.numbers));
  }
}

function carrierIn(inputs: Float64Array): { position: Vec3; rotation: Quat; velocity: Vec3 } {
  return {
    position: [inputs[0], inputs[1], inputs[2]],
    rotation: [inputs[3], inputs[4], inputs[5], inputs[6]],
    velocity: [inputs[7], inputs[8], inputs[9]],
  };
}

function placeOf({ at }: HangingSpec, position: Vec3, rotation: Quat): Vec3 {
  return vec3.add([0, 0, 0], position, vec3.transformQuat([0, 0, 0], at, rotation)) as Vec3;
}
