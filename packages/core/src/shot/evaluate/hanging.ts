import { mat4, quat, vec3 } from 'gl-matrix';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import {
  CARRIER,
  HangingParts,
  SWING,
  swingBetween,
  type HangingSpec,
} from '../../effects/forces/hanging-parts.js';
import { KeptSteps } from '../../effects/forces/simulation.js';
import { rotationVectorBetween } from '../../effects/forces/turn-between.js';
import { LOCAL, nodeNamed, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { restSpace } from '../../character/hierarchy/model-space.js';
import { matrixOf, nodeOriginOf, rotationOf } from '../../character/hierarchy/model-space.js';
import type { NodeDriver } from '../../character/hierarchy/node-driver.js';
import { GRAVITY } from '../../geometry/math/gravity.js';
import { modulo } from '../../geometry/math/angle.js';
import { runToEnd } from '../../geometry/math/run-to-end.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { velocityAt, velocityFrom } from '../../geometry/math/velocity.js';
import { axisVector } from '../../motion/pose/axes.js';
import { POSE, rotationIn, type PoseAt } from '../../motion/pose/pose.js';
import { keptSteps } from './kept-steps.js';
import type { Swinging } from './moved-parts.js';
import { newMat4 } from '../../geometry/math/new-matrix.js';

/** A loop has a run-up that lasts until only this part of the swing it began with is left; */
const LEFT = 5e-4;
/** it lasts at least two cycles, and at most a number of frames. */
const LEAST_CYCLES = 2;
const MOST_FRAMES = 20_000;
/** Half the step over which turning is measured, frames. */
const HALF_STEP = 0.05;

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
    last: number,
  ) {
    const { first, last: end } = shot.range;
    const cycle = end - first + 1;
    const specs = parts.map(({ spec }) => spec);
    this.begin = shot.loop ? first - cyclesBefore(specs, cycle, shot.fps) * cycle : first;
    this.frames = Math.ceil(Math.max(last, end) + 1 - this.begin) + 1;
    this.steps = keptSteps(JSON.stringify([specs, shot.fps, this.begin]), null, () => {
      const stepped = new HangingParts(specs, shot.fps);
      return new KeptSteps(stepped, stepped.width);
    });
  }

  /** @param last the last frame of the work that is shown */
  static of(shot: Shot, rider: Rider, hierarchy: NodeHierarchy, pose: PoseAt, last: number): Hanging | null {
    const space = restSpace(hierarchy);
    const { scale } = rider.rest;
    const parts = rider.hangingParts.flatMap((part) => {
      const node = nodeNamed(hierarchy, part.node);
      if (node < 0) return [];
      const own = matrixOf(space, node);
      const toModel = mat4.copy(newMat4(), own);
      for (const k of [12, 13, 14]) toModel[k] = 0;
      const middle = vec3.transformMat4([0, 0, 0], part.middle, toModel);
      const parent = rotationOf(space, hierarchy.nodes[node].parent);
      const axis = vec3.transformQuat([0, 0, 0], axisVector(part.axis), parent) as Vec3;
      const spec: HangingSpec = {
        joint: part.joint === 'ball' ? { kind: 'ball' } : { kind: 'hinge', axis },
        mass: part.mass,
        middle: vec3.multiply([0, 0, 0], middle, scale) as Vec3,
        damping: part.damping,
        at: vec3.multiply([0, 0, 0], nodeOriginOf(space, node), scale) as Vec3,
        stiffness: part.stiffness,
      };
      return [{ node: part.node, spec, parent }];
    });
    return parts.length === 0 ? null : new Hanging(shot, pose, parts, last);
  }

  *settle(): Generator<number, void, undefined> {
    if (this.settled === this.steps.changes) return;
    const { loop, range } = this.shot;
    let done = 0;
    const cycle = range.last - range.first + 1;
    // The run-up repeats the cycle, so each of its frames is computed once.
    const known = new Map<number, Float64Array>();
    const inputs = (i: number, out: Float64Array, at: number) => {
      const frame = this.begin + i;
      const early = loop && frame < range.first && i > 0;
      const wrapped = early ? range.first + modulo(frame - range.first, cycle) : frame;
      const numbers = (early ? known.get(wrapped) : undefined) ?? this.carrier(wrapped, i === 0);
      if (early) known.set(wrapped, numbers);
      out.set(numbers, at);
    };
    for (const steps = this.steps.advance(this.frames, inputs); !steps.next().done;)
      yield ++done / this.frames;
    this.settled = this.steps.changes;
  }

  /** @param begins whether it sets off there */
  private carrier(frame: number, begins: boolean): Float64Array {
    const { fps } = this.shot;
    const out = new Float64Array(CARRIER.numbers);
    const placeAt = (at: number, to: Vec3) => {
      this.pose(at, carrier, 0);
      for (let k = 0; k < 3; k++) to[k] = carrier[k];
    };
    (begins ? velocityFrom : velocityAt)(placeAt, frame, fps, velocity);
    const [from, to] = [begins ? frame : frame - HALF_STEP, frame + HALF_STEP].map((at) => {
      this.pose(at, carrier, 0);
      return rotationIn(carrier);
    });
    const spin = rotationVectorBetween(from, to);
    this.pose(frame, carrier, 0);
    for (let k = 0; k < 7; k++) out[k] = carrier[k];
    out.set(velocity, CARRIER.velocity);
    for (let k = 0; k < 3; k++) out[CARRIER.spin + k] = (spin[k] * fps) / ((begins ? 1 : 2) * HALF_STEP);
    return out;
  }

  /**
   * Rotation of a part against its rest pose, relative to its rider: a bar on a ball joint takes the shortest
   * rotation, so it has no twist.
   */
  private turn(i: number, frame: number, out: Quat): void {
    const { states, size } = this.settledStates();
    const { spec } = this.parts[i];
    swingBetween(states, size, i, frame - this.begin, this.frames, this.shot.fps, now);
    if (spec.joint.kind === 'hinge') {
      quat.setAxisAngle(out, spec.joint.axis, now[SWING.value]);
      return;
    }
    const { middle } = spec;
    const length = vec3.length(middle);
    if (length === 0) return void quat.identity(out);
    this.pose(frame, own, 0);
    const hangs = vec3.transformQuat(
      [0, 0, 0],
      [now[0], now[1], now[2]],
      quat.conjugate(back, rotationIn(own)),
    );
    quat.rotationTo(out, vec3.scale([0, 0, 0], middle, 1 / length), hangs);
  }

  private settledStates() {
    runToEnd(this.settle());
    return { states: this.steps.read(), size: this.parts.length * SWING.numbers };
  }

  /** By how much each part is turned otherwise at one frame than at another, radians; by the name of its node. */
  gaps(from: number, to: number): { readonly node: string; readonly gap: number }[] {
    return this.parts.map(({ node }, i) => {
      const [a, b]: Quat[] = [
        [0, 0, 0, 1],
        [0, 0, 0, 1],
      ];
      this.turn(i, from, a);
      this.turn(i, to, b);
      return { node, gap: Math.hypot(...rotationVectorBetween(a, b)) };
    });
  }

  /** Turns the parts as they swing. */
  drivers(): Swinging[] {
    return this.parts.map(({ node: name, parent }, i): Swinging => {
      const toParent = quat.conjugate([0, 0, 0, 1], parent) as Quat;
      const turn: Quat = [0, 0, 0, 1];
      const local: Quat = [0, 0, 0, 1];
      const driver = (node: number): NodeDriver => ({
        nodes: [node],
        apply: (frame, { locals }) => {
          // How it hangs as seen from its rider, then as seen from what it hangs on.
          this.turn(i, frame, turn);
          quat.multiply(turn, toParent, quat.multiply(turn, turn, parent));
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

/** How many cycles the run-up of a loop has, by the part whose swing dies away most slowly. */
function cyclesBefore(specs: readonly HangingSpec[], cycle: number, fps: number): number {
  const slowest = Math.min(
    ...specs.map(({ middle, mass, stiffness, damping }) => {
      const length = Math.max(1e-6, vec3.length(middle));
      const stiff = GRAVITY / length + stiffness / (mass * length * length);
      const half = damping / 2;
      return half * half < stiff ? half : half - Math.sqrt(half * half - stiff);
    }),
  );
  const wanted = slowest > 0 ? Math.ceil((-Math.log(LEFT) * fps) / (slowest * cycle)) : Infinity;
  return Math.max(LEAST_CYCLES, Math.min(wanted, Math.floor(MOST_FRAMES / cycle)));
}

const carrier = new Float64Array(POSE.size);
const own = new Float64Array(POSE.size);
const now = new Float64Array(SWING.numbers);
const velocity: Vec3 = [0, 0, 0];
const back: Quat = [0, 0, 0, 1];
