import { mat4, quat, vec3 } from 'gl-matrix';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import {
  CARRIER,
  HangingParts,
  KeptSteps,
  STATE,
  stateBetween,
  type HangingSpec,
  type Physics,
} from '../forces/index.js';
import { LOCAL, nodeNamed, restSpace, type NodeHierarchy } from '../hierarchy/index.js';
import { matrixOf, originOf, rotationOf } from '../hierarchy/model-space.js';
import type { NodeDriver } from '../hierarchy/node-driver.js';
import { modulo } from '../math/angle.js';
import { finished } from '../math/finished.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { velocityAt, velocityFrom } from '../math/velocity.js';
import { axisVector } from '../pose/axes.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import { keptSteps } from './kept-steps.js';
import type { Swinging } from './moved-parts.js';

/** Cycles that go before a loop, so that what swings has come to swing as the loop makes it. */
const RUN_IN = 2;

/** The parts of a rider's model that swing on it; null where none of them is in the model. */
export class Hanging {
  private readonly steps: KeptSteps;
  private readonly begin: number;
  private readonly frames: number;
  private settled = -1;

  private constructor(
    private readonly shot: Shot,
    private readonly pose: PoseAt,
    private readonly parts: readonly {
      readonly node: string;
      readonly spec: HangingSpec;
      readonly parent: Quat;
    }[],
    physics: Physics,
    last: number,
  ) {
    const { first, last: end } = shot.range;
    const cycle = end - first + 1;
    this.begin = shot.loop ? first - RUN_IN * cycle : first;
    this.frames = Math.ceil(Math.max(last, end) + 1 - this.begin) + 1;
    const specs = parts.map(({ spec }) => spec);
    this.steps = keptSteps(JSON.stringify([specs, shot.fps, this.begin]), null, () => {
      const stepped = new HangingParts(physics, specs, shot.fps);
      return new KeptSteps(stepped, stepped.width);
    });
  }

  /** @param last the last frame of the work that is shown */
  static of(
    shot: Shot,
    rider: Rider,
    hierarchy: NodeHierarchy,
    pose: PoseAt,
    physics: Physics,
    last: number,
  ): Hanging | null {
    const space = restSpace(hierarchy);
    const { scale } = rider.rest;
    const parts = rider.hanging.flatMap((part) => {
      const node = nodeNamed(hierarchy, part.node);
      if (node < 0) return [];
      const own = matrixOf(space, node);
      const toModel = mat4.clone(own);
      for (const k of [12, 13, 14]) toModel[k] = 0;
      const middle = vec3.transformMat4([0, 0, 0], part.middle, toModel);
      const parent = rotationOf(space, hierarchy.nodes[node].parent);
      const axis = vec3.transformQuat([0, 0, 0], axisVector(part.axis), parent) as Vec3;
      const spec: HangingSpec = {
        joint: part.joint === 'ball' ? { kind: 'ball' } : { kind: 'hinge', axis },
        mass: part.mass,
        middle: vec3.multiply([0, 0, 0], middle, scale) as Vec3,
        damping: part.damping,
        at: vec3.multiply([0, 0, 0], originOf(space, node), scale) as Vec3,
        stiffness: part.stiffness,
      };
      return [{ node: part.node, spec, parent }];
    });
    return parts.length === 0 ? null : new Hanging(shot, pose, parts, physics, last);
  }

  *settle(): Generator<number, void, undefined> {
    if (this.settled === this.steps.changes) return;
    const { loop, range } = this.shot;
    let done = 0;
    const placeAt = (at: number, to: Vec3) => {
      this.pose(at, carrier, 0);
      for (let k = 0; k < 3; k++) to[k] = carrier[k];
    };
    const inputs = (i: number, out: Float64Array, at: number) => {
      const frame = this.begin + i;
      const wrapped =
        loop && frame < range.first
          ? range.first + modulo(frame - range.first, range.last - range.first + 1)
          : frame;
      (i === 0 ? velocityFrom : velocityAt)(placeAt, wrapped, this.shot.fps, velocity);
      for (let k = 0; k < 3; k++) out[at + CARRIER.velocity + k] = velocity[k];
      this.pose(wrapped, carrier, 0);
      for (let k = 0; k < 7; k++) out[at + k] = carrier[k];
    };
    for (const steps = this.steps.advance(this.frames, inputs); !steps.next().done;)
      yield ++done / this.frames;
    this.settled = this.steps.changes;
  }

  /** Turns the parts as they swing. */
  drivers(): Swinging[] {
    const size = this.parts.length * STATE.numbers;
    const now = new Float64Array(STATE.numbers);
    const own = new Float64Array(POSE.size);
    return this.parts.map(({ node: name, parent }, i): Swinging => {
      const back = quat.conjugate([0, 0, 0, 1], parent) as Quat;
      const turn: Quat = [0, 0, 0, 1];
      const local: Quat = [0, 0, 0, 1];
      const driver = (node: number): NodeDriver => ({
        nodes: [node],
        apply: (frame, { locals }) => {
          finished(this.settle());
          stateBetween(this.steps.read(), size, i, frame - this.begin, this.frames, this.shot.fps, now);
          this.pose(frame, own, 0);
          // How it hangs as seen from its rider, then as seen from what it hangs on.
          quat.conjugate(turn, [own[3], own[4], own[5], own[6]]);
          quat.multiply(turn, turn, [now[3], now[4], now[5], now[6]]);
          quat.multiply(turn, back, quat.multiply(turn, turn, parent));
          const at = node * LOCAL.size + LOCAL.rotation;
          for (let k = 0; k < 4; k++) local[k] = locals[at + k];
          quat.normalize(turn, quat.multiply(turn, turn, local));
          for (let k = 0; k < 4; k++) locals[at + k] = turn[k];
        },
      });
      return { node: name, driver };
    });
  }
}

const carrier = new Float64Array(POSE.size);
const velocity: Vec3 = [0, 0, 0];
