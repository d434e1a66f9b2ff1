import { quat, vec3 } from 'gl-matrix';
import type { GroundSurface } from '../contact/ground-surface.js';
import type { GroundContact } from '../document/shot-hitch.js';
import { originOf, placeNodes, withAllAbove } from '../hierarchy/model-space.js';
import { parentSpace } from '../hierarchy/node-drivers.js';
import { LOCAL, initialPose, type HierarchyPose, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { wrapAngle } from '../math/angle.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { POSE, rotationIn, type PoseAt } from '../pose/pose.js';
import type { OwnAxes } from '../ride/contact-points.js';
import {
  glideAt,
  NO_SHIFT,
  samplesOf,
  shiftAt,
  shiftTo,
  type FootPosition,
  type FootTrack,
  type Lock,
} from './foot-lock.js';
import { FootShape, turnBetween } from './foot-shape.js';
import type { FreeWalk } from './free-walk.js';
import { idleSpanAt } from './idle-spans.js';
import { pelvisOf, type Leg } from './leg.js';
import type { FootDown } from './step-plan.js';
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

/** Places of a walk's cycle at which its soles are looked at. */
const CYCLE_SAMPLES = 96;
/** Legs are not stretched beyond this part of their length; the hips come down before. */
const STRETCH = 0.9995;

/** Where a foot is to be brought, in the model's space, how far the walker is turned for it, and how low its sole may come. */
interface Target {
  readonly position: Vec3;
  readonly turn: number;
  /** Metres of the model along its up; null where the clip's own sole is as low as it comes. */
  readonly floor: number | null;
}

/** Numbers of what is seen of a foot: its place in the world, and how high its lowest place is over the level it walks on, metres. */
export const SEEN = 4;

/** Brings feet to places of the world. */
export class FootSolver {
  readonly pelvis: number;
  private readonly space: Float64Array;
  private readonly clips: HierarchyPose;
  private readonly rest: HierarchyPose;
  private readonly now = new Float64Array(POSE.size);
  /** Which way down is for the pelvis, in what that hangs on, per metre of the model. */
  private readonly down: Vec3;
  private readonly shapes: readonly (FootShape | null)[];
  /** By leg the nodes that place its foot and its sole; and those of all legs. */
  private readonly chains: readonly (readonly number[])[];
  private readonly placed: readonly number[];
  private readonly turns: Quat[];
  /** By foot how low its walk ever has its sole; told when it is first asked for. */
  private readonly walkFloors: number[] = [];

  constructor(
    private readonly scene: FootScene,
    private readonly legs: readonly (Leg | null)[],
  ) {
    const { hierarchy } = scene;
    this.pelvis = pelvisOf(
      hierarchy,
      legs.filter((leg) => leg !== null),
    );
    this.shapes = legs.map((leg) => leg && new FootShape(hierarchy, leg.foot));
    this.chains = legs.map((leg, i) =>
      leg === null
        ? []
        : withAllAbove(hierarchy, [leg.foot, ...(this.shapes[i]?.nodes ?? []).map(({ node }) => node)]),
    );
    this.placed = withAllAbove(hierarchy, this.chains.flat());
    this.turns = hierarchy.nodes.map((): Quat => [0, 0, 0, 1]);
    this.space = new Float64Array(16 * hierarchy.nodes.length);
    this.clips = initialPose(hierarchy);
    this.rest = initialPose(hierarchy);
    const low = vec3.negate([0, 0, 0], scene.axes.up) as Vec3;
    this.down = this.pelvis < 0 ? low : parentSpace(hierarchy, this.pelvis).direction(low);
  }

  /** Where a foot is by the clips alone, in the world. */
  free(foot: number, frame: number): Vec3 {
    return this.place(foot, frame, this.clipPose(frame, this.scene.walk.pose));
  }

  /** Where a foot is by the clips alone, in the model's own space. */
  ownPosition(foot: number, frame: number): Vec3 {
    const { locals } = this.clipPose(frame, this.scene.walk.pose);
    this.placeLeg(foot, locals);
    return originOf(this.space, (this.legs[foot] as Leg).foot);
  }

  /** Writes of each foot of a posed figure where it is in the world, and how high its sole is: {@link SEEN} numbers a foot. */
  see(frame: number, { locals }: HierarchyPose, out: Float64Array): void {
    const { hierarchy, axes, pose } = this.scene;
    placeNodes(hierarchy, this.placed, locals, this.space);
    pose(frame, this.now, 0);
    this.legs.forEach((leg, foot) => {
      if (leg === null) return;
      out.set(this.toWorld(originOf(this.space, leg.foot)), SEEN * foot);
      out[SEEN * foot + 3] = this.soleIn(foot, leg) * axes.scale[2];
    });
  }

  /** Where a foot of a posed figure is in the world. */
  place(foot: number, frame: number, { locals }: HierarchyPose): Vec3 {
    this.placeLeg(foot, locals);
    this.scene.pose(frame, this.now, 0);
    return this.toWorld(originOf(this.space, (this.legs[foot] as Leg).foot));
  }

  /** Which way the walker is turned at a frame, radians about up. */
  heading(frame: number): number {
    this.scene.pose(frame, this.now, 0);
    return this.turn();
  }

  /** How high a foot is over its ground by the clips alone, metres of the world. */
  heightAt(foot: number, frame: number): number {
    this.free(foot, frame);
    return this.heightOf(foot);
  }

  /** Where and how a foot is locked that is down. */
  lock(foot: number, down: FootDown): Lock {
    const frames = down.placedAt === null ? this.walkingSamples(down) : [down.placedAt];
    const seen = frames.map((frame) => ({ free: this.free(foot, frame), turn: this.turn() }));
    const position: Vec3 = [0, 0, 0];
    let [sine, cosine] = [0, 0];
    for (const { free, turn } of seen) {
      vec3.scaleAndAdd(position, position, free, 1 / seen.length);
      sine += Math.sin(turn);
      cosine += Math.cos(turn);
    }
    position[1] = this.groundUnder(position) ?? position[1];
    const turn = Math.atan2(sine, cosine);
    const shift = (frame: number) => shiftTo(position, turn, this.free(foot, frame), this.turn());
    return { ...down, position, turn, first: shift(down.from), last: shift(down.to) };
  }

  /** Where a foot is at a frame as its track has it so far, for a step to begin or to end. */
  placeOnTrack(foot: number, track: FootTrack, frame: number): FootPosition {
    const free = this.free(foot, frame);
    const turn = this.turn();
    const height = this.heightOf(foot);
    const shift = shiftAt(track, frame, free, turn);
    return { x: free[0] + shift.x, z: free[2] + shift.z, height, turn: turn + shift.turn };
  }

  /** Bends the legs of a pose so that feet are where they are locked, or on the ground where they are not. */
  bend(frame: number, pose: HierarchyPose, tracks: readonly FootTrack[] | null): void {
    const { hierarchy, axes } = this.scene;
    const floors = this.floors(frame, tracks);
    placeNodes(hierarchy, this.placed, pose.locals, this.space);
    this.scene.pose(frame, this.now, 0);
    const turns = this.modelTurns(pose.locals);
    const targets = this.legs.map((leg, i): Target | null => {
      if (leg === null) return null;
      const target = this.target(leg, frame, tracks?.[i] ?? null, floors[i]);
      return floors[i] === null ? target : this.raised(i, target, turns[leg.foot]);
    });
    if (this.lowerHips(pose, targets)) placeNodes(hierarchy, this.placed, pose.locals, this.space);
    targets.forEach((target, i) => {
      const leg = this.legs[i];
      if (target === null || leg === null) return;
      const [top, middle, end] = [leg.top, leg.middle, leg.foot].map((node) => originOf(this.space, node));
      const bent = bendTo(top, middle, end, target.position, axes.ahead);
      const footTurn = turnAboutUp(axes.up, target.turn, turns[leg.foot]);
      this.setTurn(pose.locals, turns, leg.middle, bent.lower);
      this.setTurn(pose.locals, turns, leg.top, bent.whole);
      // The foot is turned as it was, and not with the leg.
      const above = this.turnOf(pose.locals, hierarchy.nodes[leg.foot].parent);
      this.writeTurn(pose.locals, leg.foot, above, footTurn);
    });
  }

  /** The lowest place of a foot of a posed figure over the level it walks on, metres of the world. */
  soleOf(foot: number, { locals }: HierarchyPose): number {
    this.placeLeg(foot, locals);
    const leg = this.legs[foot] as Leg;
    return this.soleIn(foot, leg) * this.scene.axes.scale[2];
  }

  /**
   * How low the sole of a foot may come at a frame: as low as its walk ever has it, or what it does while it stands has it then; where one
   * gives way to the other, as far between the two as they are blended. Metres of the world.
   */
  floorOf(foot: number, frame: number): number {
    const { walk } = this.scene;
    const part = walk.idleWeight(frame);
    const walks = (this.walkFloors[foot] ??= this.walkFloor(foot));
    const stands = part > 0 ? this.soleOf(foot, this.clipPose(frame, walk.standing)) : walks;
    return walks + part * (stands - walks);
  }

  private walkFloor(foot: number): number {
    let low = Infinity;
    for (let i = 0; i < CYCLE_SAMPLES; i++) {
      const pose = this.clipPose(i / CYCLE_SAMPLES, this.scene.walk.atPhase);
      low = Math.min(low, this.soleOf(foot, pose));
    }
    return low;
  }

  private placeLeg(foot: number, locals: Float64Array): void {
    placeNodes(this.scene.hierarchy, this.chains[foot], locals, this.space);
  }

  private clipPose(frame: number, by: ((frame: number, pose: HierarchyPose) => void) | null): HierarchyPose {
    this.clips.locals.set(this.rest.locals);
    by?.(frame, this.clips);
    return this.clips;
  }

  /** Frames of a stance at which the walk shows where it is: none while it stands. */
  private walkingSamples(down: FootDown): number[] {
    const { idleSpans } = this.scene.walk;
    return samplesOf(down).map((frame) => {
      const span = idleSpans[idleSpanAt(idleSpans, frame)];
      if (span === undefined) return frame;
      return Number.isFinite(span.from) && span.from >= down.from ? span.from : Math.min(span.to, down.to);
    });
  }

  /** By foot how low its sole may come, metres of the world: told only where clips are blended, or no clip has the step. */
  private floors(frame: number, tracks: readonly FootTrack[] | null): (number | null)[] {
    const part = this.scene.walk.idleWeight(frame);
    const blends = part > 0 && part < 1;
    return this.legs.map((leg, i) => {
      if (leg === null || tracks === null) return null;
      return blends || glideAt(tracks[i], frame) ? this.floorOf(i, frame) : null;
    });
  }

  private target(leg: Leg, frame: number, track: FootTrack | null, floor: number | null): Target {
    const { axes } = this.scene;
    const turnNow = this.turn();
    const free = originOf(this.space, leg.foot);
    const world = this.toWorld(free);
    const glide = track && glideAt(track, frame);
    const scale = axes.scale[2];
    if (glide) {
      const base = this.groundUnder([glide.x, world[1], glide.z]) ?? this.now[1];
      const position = this.toModel([glide.x, base + glide.height, glide.z]);
      return {
        position,
        turn: wrapAngle(glide.turn - turnNow),
        floor: floor === null ? null : floor / scale,
      };
    }
    const shift = track ? shiftAt(track, frame, world, turnNow) : NO_SHIFT;
    world[0] += shift.x;
    world[2] += shift.z;
    const height = this.groundUnder(world);
    if (height !== null) world[1] = height + vec3.dot(free, axes.up) * scale;
    return { position: this.toModel(world), turn: shift.turn, floor: floor === null ? null : floor / scale };
  }

  /** A target lifted by as much as its sole would come lower than it may. */
  private raised(foot: number, target: Target, turn: Quat): Target {
    const { axes } = this.scene;
    const leg = this.legs[foot] as Leg;
    const whole = turnBetween(turn, turnAboutUp(axes.up, target.turn, turn));
    const sole = (this.shapes[foot] as FootShape).lowest(this.space, axes.up, whole);
    // The level it walks on is that of the model's floor, wherever the ground under the foot is.
    const world = this.toWorld(originOf(this.space, leg.foot));
    const ground = this.groundUnder(world);
    const level = ground === null ? 0 : (ground - this.now[1]) / axes.scale[2];
    const under = (target.floor as number) - (vec3.dot(target.position, axes.up) + sole - level);
    if (under <= 0) return target;
    return { ...target, position: vec3.scaleAndAdd([0, 0, 0], target.position, axes.up, under) as Vec3 };
  }

  private soleIn(foot: number, leg: Leg): number {
    const { up } = this.scene.axes;
    const shape = this.shapes[foot] as FootShape;
    return vec3.dot(originOf(this.space, leg.foot), up) + shape.lowest(this.space, up, null);
  }

  /** How high a foot is over its ground where the figure was posed last, metres of the world. */
  private heightOf(foot: number): number {
    const { up, scale } = this.scene.axes;
    return vec3.dot(originOf(this.space, (this.legs[foot] as Leg).foot), up) * scale[2];
  }

  private groundUnder(world: Vec3): number | null {
    const { ground } = this.scene;
    if (ground === null) return null;
    const { up, down, rise } = ground.contact;
    const found = ground.heights.height(world[0], world[2], this.now[1] - rise, up, down);
    return found === null ? null : found + rise;
  }

  /** Lets the hips down by as much as the leg that reaches least is short of; answers whether it did. */
  private lowerHips(pose: HierarchyPose, targets: readonly (Target | null)[]): boolean {
    if (this.pelvis < 0) return false;
    const { up } = this.scene.axes;
    let drop = 0;
    targets.forEach((target, i) => {
      const leg = this.legs[i];
      if (target === null || leg === null) return;
      const [top, middle, end] = [leg.top, leg.middle, leg.foot].map((node) => originOf(this.space, node));
      const reach = STRETCH * (vec3.distance(top, middle) + vec3.distance(middle, end));
      const way = vec3.subtract([0, 0, 0], target.position, top);
      const high = vec3.dot(way, up);
      const aside = Math.sqrt(Math.max(0, vec3.dot(way, way) - high * high));
      if (vec3.length(way) <= reach || aside >= reach) return;
      drop = Math.max(drop, -high - Math.sqrt(reach * reach - aside * aside));
    });
    if (drop === 0) return false;
    for (let k = 0; k < 3; k++) pose.locals[this.pelvis * LOCAL.size + k] += drop * this.down[k];
    return true;
  }

  /** By node of the legs how it is turned in the model's space. */
  private modelTurns(locals: Float64Array): Quat[] {
    const { turns, placed } = this;
    const { nodes } = this.scene.hierarchy;
    for (const node of placed) {
      const { parent } = nodes[node];
      const turn = turns[node];
      takeTurn(locals, node, turn);
      if (parent >= 0) quat.multiply(turn, turns[parent], turn);
    }
    return turns;
  }

  private turnOf(locals: Float64Array, node: number): Quat {
    const turn: Quat = [0, 0, 0, 1];
    const own: Quat = [0, 0, 0, 1];
    for (let i = node; i >= 0; i = this.scene.hierarchy.nodes[i].parent) {
      takeTurn(locals, i, own);
      quat.multiply(turn, own, turn);
    }
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
    const front = vec3.transformQuat([0, 0, 0], this.scene.axes.ahead, rotationIn(this.now));
    return Math.atan2(front[0], front[2]);
  }

  private toWorld(place: Vec3): Vec3 {
    const out = vec3.multiply([0, 0, 0], place, this.scene.scale) as Vec3;
    vec3.transformQuat(out, out, rotationIn(this.now));
    for (let k = 0; k < 3; k++) out[k] += this.now[k];
    return out;
  }

  private toModel(world: Vec3): Vec3 {
    const out = world.map((value, k) => value - this.now[k]) as Vec3;
    vec3.transformQuat(out, out, quat.conjugate([0, 0, 0, 1], rotationIn(this.now)));
    return vec3.divide(out, out, this.scene.scale) as Vec3;
  }
}

function takeTurn(locals: Float64Array, node: number, out: Quat): void {
  const at = node * LOCAL.size + LOCAL.rotation;
  for (let k = 0; k < 4; k++) out[k] = locals[at + k];
}

function turnAboutUp(up: Vec3, angle: number, turn: Quat): Quat {
  return quat.multiply([0, 0, 0, 1], quat.setAxisAngle([0, 0, 0, 1], up, angle), turn) as Quat;
}
