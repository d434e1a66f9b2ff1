import { quat, vec3 } from 'gl-matrix';
import { parentSpace } from '../hierarchy/node-drivers.js';
import { readOrigin } from '../hierarchy/model-space.js';
import { LOCAL, type HierarchyPose, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { OwnAxes } from '../../motion/ride/contact-points.js';
import { pelvisOf, type Leg } from './leg.js';
import { bendTo, type Bent } from './two-bone.js';

/** Legs are not stretched beyond this part of their length; the hips come down before. */
const STRETCH = 0.9995;

/** A leg, and where its foot is to be brought: a place of the model, and how far the walker is turned for it. */
export interface AimedLeg extends Leg {
  readonly target: Vec3;
  readonly turn: number;
  /** How its foot leans with the ground, after that; in the model's space. */
  readonly lean: Quat;
}

/** Bends the legs of a posed figure. */
export class LegBender {
  readonly pelvis: number;
  /** By node of the legs how it is turned in the model's space. */
  readonly turns: readonly Quat[];
  /** Which way down is for the pelvis, in what that hangs on, per metre of the model. */
  private readonly down: Vec3;

  /**
   * @param placed the nodes of all legs, those first that others hang on
   * @param space  where those are, kept up by whoever poses the figure
   */
  constructor(
    private readonly hierarchy: NodeHierarchy,
    private readonly axes: OwnAxes,
    legs: readonly Leg[],
    private readonly placed: readonly number[],
    private readonly space: Float64Array,
  ) {
    this.pelvis = pelvisOf(hierarchy, legs);
    this.turns = hierarchy.nodes.map((): Quat => [0, 0, 0, 1]);
    const low = vec3.negate([0, 0, 0], axes.up) as Vec3;
    this.down = this.pelvis < 0 ? low : parentSpace(hierarchy, this.pelvis).direction(low);
  }

  /** Takes by node of the legs how it is turned in the model's space. */
  takeTurns(locals: Float64Array): void {
    const { turns, placed } = this;
    const { nodes } = this.hierarchy;
    for (const node of placed) {
      const { parent } = nodes[node];
      const turn = turns[node];
      takeTurn(locals, node, turn);
      if (parent >= 0) quat.multiply(turn, turns[parent], turn);
    }
  }

  /** Lets the hips down by as much as the leg that reaches least is short of; answers whether it did. */
  lowerHips(pose: HierarchyPose, legs: readonly (AimedLeg | null)[]): boolean {
    if (this.pelvis < 0) return false;
    const { up } = this.axes;
    let drop = 0;
    for (const foot of legs) {
      if (foot === null) continue;
      this.readLeg(foot);
      const reach = STRETCH * (vec3.distance(top, middle) + vec3.distance(middle, end));
      vec3.subtract(way, foot.target, top);
      const high = vec3.dot(way, up);
      const aside = Math.sqrt(Math.max(0, vec3.dot(way, way) - high * high));
      if (vec3.length(way) <= reach || aside >= reach) continue;
      drop = Math.max(drop, -high - Math.sqrt(reach * reach - aside * aside));
    }
    if (drop === 0) return false;
    for (let k = 0; k < 3; k++) pose.locals[this.pelvis * LOCAL.size + k] += drop * this.down[k];
    return true;
  }

  /** Brings a foot to where it is to be. */
  bendLeg(foot: AimedLeg, locals: Float64Array): void {
    const { turns, hierarchy, axes } = this;
    this.readLeg(foot);
    bendTo(top, middle, end, foot.target, axes.ahead, bent);
    this.setTurn(locals, foot.middle, bent.lower);
    this.setTurn(locals, foot.top, bent.whole);
    // The foot keeps its rotation and does not turn with the leg.
    turnAboutUp(axes.up, foot.turn, turns[foot.foot], wanted);
    quat.multiply(wanted, foot.lean, wanted);
    quat.multiply(above, bent.lower, turns[hierarchy.nodes[foot.foot].parent]);
    quat.multiply(above, bent.whole, above);
    this.writeTurn(locals, foot.foot);
  }

  private readLeg(leg: Leg): void {
    readOrigin(this.space, leg.top, top);
    readOrigin(this.space, leg.middle, middle);
    readOrigin(this.space, leg.foot, end);
  }

  /** Turns a node in the model's space, from how it was turned; what it hangs on may turn as well before or after. */
  private setTurn(locals: Float64Array, node: number, turn: Quat): void {
    const { parent } = this.hierarchy.nodes[node];
    if (parent < 0) quat.identity(above);
    else quat.copy(above, this.turns[parent]);
    quat.multiply(wanted, turn, this.turns[node]);
    this.writeTurn(locals, node);
  }

  /** Turns a node as is {@link wanted} of the model, where what it hangs on is turned by {@link above}. */
  private writeTurn(locals: Float64Array, node: number): void {
    quat.conjugate(above, above);
    quat.multiply(ownTurn, above, wanted);
    quat.normalize(ownTurn, ownTurn);
    for (let k = 0; k < 4; k++) locals[node * LOCAL.size + LOCAL.rotation + k] = ownTurn[k];
  }
}

function takeTurn(locals: Float64Array, node: number, out: Quat): void {
  const at = node * LOCAL.size + LOCAL.rotation;
  for (let k = 0; k < 4; k++) out[k] = locals[at + k];
}

/** A turn with one about up after it. */
export function turnAboutUp(up: Vec3, angle: number, turn: Quat, out: Quat): Quat {
  quat.setAxisAngle(out, up, angle);
  return quat.multiply(out, out, turn) as Quat;
}

const bent: Bent = { lower: [0, 0, 0, 1], whole: [0, 0, 0, 1] };
const way: Vec3 = [0, 0, 0];
const top: Vec3 = [0, 0, 0];
const middle: Vec3 = [0, 0, 0];
const end: Vec3 = [0, 0, 0];
const above: Quat = [0, 0, 0, 1];
const wanted: Quat = [0, 0, 0, 1];
const ownTurn: Quat = [0, 0, 0, 1];
