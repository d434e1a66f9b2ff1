import { quat, vec3 } from 'gl-matrix';
import type { GroundSurface } from '../contact/ground-surface.js';
import type { GroundContact } from '../document/shot-hitch.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { originOf, toModelSpace } from '../hierarchy/model-space.js';
import { parentSpace } from '../hierarchy/node-drivers.js';
import { LOCAL, initialPose, type NodeHierarchy, type HierarchyPose } from '../hierarchy/node-hierarchy.js';
import type { OwnAxes } from '../ride/contact-points.js';
import { POSE } from '../pose/pose.js';
import type { PoseAt } from '../pose/pose.js';
import { samplesOf, NO_SHIFT, shiftAt, shiftTo, type Lock } from './foot-lock.js';
import type { FreeWalk } from './free-walk.js';
import { pelvisOf, type Leg } from './leg.js';
import type { FootDown } from './plants.js';
import { bendTo } from './two-bone.js';

/** What feet are brought to the ground in. */
export interface FootScene {
  readonly hierarchy: NodeHierarchy;
  readonly walk: FreeWalk;
  readonly pose: PoseAt;
  readonly axes: OwnAxes;
  /** The model's size in the world, by its own axes. */
  readonly scale: Vec3;
  /** What feet are set on, and within which band; null where they stand as high as the clip has them. */
  readonly ground: { readonly heights: GroundSurface; readonly contact: GroundContact } | null;
}

/** Legs are not stretched beyond this part of their length; the hips come down before. */
const STRETCH = 0.9995;

/** Brings feet to places of the world. */
export class FootSolver {
  readonly pelvis: number;
  private readonly space: Float64Array;
  private readonly clips: HierarchyPose;
  private readonly rest: HierarchyPose;
  private readonly now = new Float64Array(POSE.size);
  /** Which way down is for the pelvis, in what that hangs on, per metre of the model. */
  private readonly down: Vec3;

  constructor(
    private readonly scene: FootScene,
    private readonly legs: readonly (Leg | null)[],
  ) {
    const { hierarchy } = scene;
    this.pelvis = pelvisOf(
      hierarchy,
      legs.filter((leg) => leg !== null),
    );
    this.space = new Float64Array(16 * hierarchy.nodes.length);
    this.clips = initialPose(hierarchy);
    this.rest = initialPose(hierarchy);
    const low = vec3.negate([0, 0, 0], scene.axes.up) as Vec3;
    this.down = this.pelvis < 0 ? low : parentSpace(hierarchy, this.pelvis).direction(low);
  }

  /** Where a foot is by the clips alone, in the world. */
  free(foot: number, frame: number): Vec3 {
    const { locals } = this.clips;
    locals.set(this.rest.locals);
    this.scene.walk.pose?.(frame, this.clips);
    return this.place(foot, frame, this.clips);
  }

  /** Where a foot of a posed model is in the world. */
  place(foot: number, frame: number, { locals }: HierarchyPose): Vec3 {
    toModelSpace(this.scene.hierarchy, locals, this.space);
    this.scene.pose(frame, this.now, 0);
    return this.toWorld(originOf(this.space, (this.legs[foot] as Leg).foot));
  }

  /** Where and how a foot is locked that is down. */
  lock(foot: number, down: FootDown): Lock {
    const seen = samplesOf(down).map((frame) => ({ free: this.free(foot, frame), turn: this.turn() }));
    const place: Vec3 = [0, 0, 0];
    let [sine, cosine] = [0, 0];
    for (const { free, turn } of seen) {
      vec3.scaleAndAdd(place, place, free, 1 / seen.length);
      sine += Math.sin(turn);
      cosine += Math.cos(turn);
    }
    place[1] = this.groundUnder(place) ?? place[1];
    const turn = Math.atan2(sine, cosine);
    const shift = (at: (typeof seen)[number]) => shiftTo(place, turn, at.free, at.turn);
    return { ...down, place, turn, first: shift(seen[0]), last: shift(seen[seen.length - 1]) };
  }

  /** Bends the legs of a pose so that feet are where they are locked, or on the ground where they are not. */
  bend(frame: number, pose: HierarchyPose, locks: readonly (readonly Lock[])[] | null): void {
    const { hierarchy, axes } = this.scene;
    toModelSpace(hierarchy, pose.locals, this.space);
    this.scene.pose(frame, this.now, 0);
    const turnNow = this.turn();
    const targets = this.legs.map((leg, i) => {
      if (leg === null) return null;
      const free = originOf(this.space, leg.foot);
      const world = this.toWorld(free);
      const shift = locks ? shiftAt(locks[i], frame, world, turnNow) : NO_SHIFT;
      world[0] += shift.x;
      world[2] += shift.z;
      const height = this.groundUnder(world);
      if (height !== null) world[1] = height + vec3.dot(free, axes.up) * axes.scale[2];
      return { place: this.toModel(world), turn: shift.turn };
    });
    this.lowerHips(pose, targets);
    toModelSpace(hierarchy, pose.locals, this.space);
    const turns = this.modelTurns(pose.locals);
    targets.forEach((target, i) => {
      const leg = this.legs[i];
      if (target === null || leg === null) return;
      const [top, middle, end] = [leg.top, leg.middle, leg.foot].map((node) => originOf(this.space, node));
      const bent = bendTo(top, middle, end, target.place, axes.ahead);
      const footTurn = turnAboutUp(axes.up, target.turn, turns[leg.foot]);
      this.setTurn(pose.locals, turns, leg.middle, bent.lower);
      this.setTurn(pose.locals, turns, leg.top, bent.whole);
      // The foot is turned as it was, and not with the leg.
      const above = this.turnOf(pose.locals, hierarchy.nodes[leg.foot].parent);
      this.writeTurn(pose.locals, leg.foot, above, footTurn);
    });
  }

  private groundUnder(world: Vec3): number | null {
    const { ground } = this.scene;
    if (ground === null) return null;
    const { up, down, rise } = ground.contact;
    const found = ground.heights.height(world[0], world[2], this.now[1] - rise, up, down);
    return found === null ? null : found + rise;
  }

  /** Lets the hips down by as much as the leg that reaches least is short of. */
  private lowerHips(pose: HierarchyPose, targets: readonly ({ place: Vec3 } | null)[]): void {
    if (this.pelvis < 0) return;
    const { up } = this.scene.axes;
    let drop = 0;
    targets.forEach((target, i) => {
      const leg = this.legs[i];
      if (target === null || leg === null) return;
      const [top, middle, end] = [leg.top, leg.middle, leg.foot].map((node) => originOf(this.space, node));
      const reach = STRETCH * (vec3.distance(top, middle) + vec3.distance(middle, end));
      const way = vec3.subtract([0, 0, 0], target.place, top);
      const high = vec3.dot(way, up);
      const aside = Math.sqrt(Math.max(0, vec3.dot(way, way) - high * high));
      if (vec3.length(way) <= reach || aside >= reach) return;
      drop = Math.max(drop, -high - Math.sqrt(reach * reach - aside * aside));
    });
    for (let k = 0; k < 3; k++) pose.locals[this.pelvis * LOCAL.size + k] += drop * this.down[k];
  }

  /** By node how it is turned in the model's space. */
  private modelTurns(locals: Float64Array): Quat[] {
    const turns: Quat[] = [];
    this.scene.hierarchy.nodes.forEach(({ parent }, i) => {
      const own = ownTurn(locals, i);
      turns.push(parent < 0 ? own : (quat.multiply([0, 0, 0, 1], turns[parent], own) as Quat));
    });
    return turns;
  }

  private turnOf(locals: Float64Array, node: number): Quat {
    const turn: Quat = [0, 0, 0, 1];
    for (let i = node; i >= 0; i = this.scene.hierarchy.nodes[i].parent)
      quat.multiply(turn, ownTurn(locals, i), turn);
    return turn;
  }

  /** Turns a node in the model's space, from how it was turned; what it hangs on may turn as well before or after. */
  private setTurn(locals: Float64Array, turns: Quat[], node: number, turn: Quat): void {
    const { parent } = this.scene.hierarchy.nodes[node];
    const above: Quat = parent < 0 ? [0, 0, 0, 1] : turns[parent];
    this.writeTurn(locals, node, above, quat.multiply([0, 0, 0, 1], turn, turns[node]) as Quat);
  }

  private writeTurn(locals: Float64Array, node: number, above: Quat, wanted: Quat): void {
    const own = quat.multiply([0, 0, 0, 1], quat.conjugate([0, 0, 0, 1], above), wanted);
    quat.normalize(own, own);
    for (let k = 0; k < 4; k++) locals[node * LOCAL.size + LOCAL.rotation + k] = own[k];
  }

  /** Which way the walker is turned at the frame that was last asked for, radians about up. */
  private turn(): number {
    const front = vec3.transformQuat([0, 0, 0], this.scene.axes.ahead, poseTurn(this.now));
    return Math.atan2(front[0], front[2]);
  }

  private toWorld(place: Vec3): Vec3 {
    const out = vec3.multiply([0, 0, 0], place, this.scene.scale) as Vec3;
    vec3.transformQuat(out, out, poseTurn(this.now));
    for (let k = 0; k < 3; k++) out[k] += this.now[k];
    return out;
  }

  private toModel(world: Vec3): Vec3 {
    const out = world.map((value, k) => value - this.now[k]) as Vec3;
    vec3.transformQuat(out, out, quat.conjugate([0, 0, 0, 1], poseTurn(this.now)));
    return vec3.divide(out, out, this.scene.scale) as Vec3;
  }
}

const poseTurn = (pose: Float64Array): Quat => [pose[3], pose[4], pose[5], pose[6]];

function ownTurn(locals: Float64Array, node: number): Quat {
  const at = node * LOCAL.size + LOCAL.rotation;
  return [locals[at], locals[at + 1], locals[at + 2], locals[at + 3]];
}

function turnAboutUp(up: Vec3, angle: number, turn: Quat): Quat {
  return quat.multiply([0, 0, 0, 1], quat.setAxisAngle([0, 0, 0, 1], up, angle), turn) as Quat;
}
