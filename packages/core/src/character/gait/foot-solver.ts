import { vec3 } from 'gl-matrix';
import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { GroundContact } from '../../document/shot-attachment.js';
import { placeNodes, readOrigin, withAllAbove } from '../hierarchy/model-space.js';
import { initialPose, type HierarchyPose, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { wrapAngle } from '../../geometry/math/angle.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { PoseAt } from '../../motion/pose/pose.js';
import type { OwnAxes } from '../../motion/ride/contact-points.js';
import {
  glideAt,
  samplesOf,
  shiftAt,
  shiftTo,
  type FootPosition,
  type FootTrack,
  type Lock,
  type Shift,
} from './foot-lock.js';
import { FootGround } from './foot-ground.js';
import { FootShape, rotationBetween } from './foot-shape.js';
import type { WalkPhase, PosedWalk } from './walk-phase.js';
import { idleSpanAt } from './idle-spans.js';
import type { Leg } from './leg.js';
import { LegBender, turnAboutUp, type AimedLeg } from './leg-bender.js';
import type { FootDown } from './step-plan.js';
import type { WalkPoses } from './walk-poses.js';
import { SoleOnGround } from './sole-on-ground.js';
import { floorsOf } from './walk-floors.js';
import { WalkerPlace } from './walker-place.js';

/** Scene in which feet are brought to the ground. */
export interface FootScene {
  readonly hierarchy: NodeHierarchy;
  readonly walk: WalkPhase;
  readonly posed: PosedWalk;
  readonly pose: PoseAt;
  readonly axes: OwnAxes;
  /** The model's size in the world, by its own axes. */
  readonly scale: Vec3;
  /** Ground under the feet and the band in which it counts; null if feet keep the height of the clip. */
  readonly ground: { readonly heights: GroundSurface; readonly contact: GroundContact } | null;
}

/** Samples of a walk's cycle for its soles. */
const CYCLE_SAMPLES = 96;

/** One leg with its foot, and what is known of it at a frame. Places and turns are the model's. */
interface FootOfLeg extends AimedLeg {
  readonly shape: FootShape;
  /** The nodes that place its foot and its sole, and the clips of those alone. */
  readonly chain: readonly number[];
  readonly alone: WalkPoses;
  turn: number;
  readonly lean: Quat;
  /** How far its foot reaches around its own origin along the ground, metres of the world; NaN until that is asked for. */
  reach: number;
  /** Its current own step; null for none. */
  glide: FootPosition | null;
  /** How low its walk ever has its sole; and how low that may come. Metres of the world. */
  walks: number;
  floor: number;
}

/**
 * Measures of a visible foot, metres: its position in the world, the height of its lowest point over the ground
 * (without any, over the level it walks on), and how low that may come.
 */
export const SEEN = 5;
/** Least radius of ground under a foot, metres. */
const LEAST_REACH = 0.01;
/** Soles that the walk has under its own floor are lifted from here on, metres. */
const SUNK = 1e-3;

/** Brings feet to places of the world. */
export class FootSolver {
  /** Poses that the clips give to the nodes of the legs, and to those above them. */
  readonly poses: WalkPoses;
  private readonly space: Float64Array;
  private readonly clips: HierarchyPose;
  private readonly rest: HierarchyPose;
  private readonly place: WalkerPlace;
  private readonly feet: readonly (FootOfLeg | null)[];
  /** The nodes of all legs, those first that others hang on. */
  private readonly placed: readonly number[];
  private readonly bender: LegBender;
  private readonly sole: SoleOnGround | null;
  private floorsAt = NaN;

  constructor(
    private readonly scene: FootScene,
    legs: readonly (Leg | null)[],
  ) {
    const { hierarchy, axes } = scene;
    this.feet = legs.map((leg): FootOfLeg | null => {
      if (leg === null) return null;
      const shape = new FootShape(hierarchy, leg.foot);
      const chain = withAllAbove(hierarchy, [leg.foot, ...shape.nodes.map(({ node }) => node)]);
      return {
        ...leg,
        shape,
        chain,
        alone: scene.posed.posesOf(new Set(chain)),
        target: [0, 0, 0],
        turn: 0,
        lean: [0, 0, 0, 1],
        reach: NaN,
        glide: null,
        walks: NaN,
        floor: 0,
      };
    });
    this.placed = withAllAbove(
      hierarchy,
      this.feet.flatMap((foot) => foot?.chain ?? []),
    );
    this.poses = scene.posed.posesOf(new Set(this.placed));
    this.space = new Float64Array(16 * hierarchy.nodes.length);
    this.clips = initialPose(hierarchy);
    this.rest = initialPose(hierarchy);
    this.place = new WalkerPlace(scene.pose, axes.ahead, scene.scale);
    const heightAt = (x: number, z: number) => this.groundAt(x, z);
    this.sole = scene.ground && new SoleOnGround(new FootGround(heightAt), this.place, this.space, axes);
    const known = legs.filter((leg) => leg !== null);
    this.bender = new LegBender(hierarchy, axes, known, this.placed, this.space);
  }

  /** Node to lower where legs do not reach; −1 for none. */
  get pelvis(): number {
    return this.bender.pelvis;
  }

  /** Position of a foot by the clips alone, in the world. */
  free(i: number, frame: number): Vec3 {
    const free = this.ownPosition(i, frame);
    this.place.goTo(frame);
    this.place.toWorld(free);
    return free;
  }

  /** Position of a foot by the clips alone, in the model's own space. */
  ownPosition(i: number, frame: number): Vec3 {
    const foot = this.feet[i] as FootOfLeg;
    this.restClips();
    foot.alone.pose(frame, this.clips);
    placeNodes(this.scene.hierarchy, foot.chain, this.clips.locals, this.space);
    const own: Vec3 = [0, 0, 0];
    readOrigin(this.space, foot.foot, own);
    return own;
  }

  /** Writes what is seen of each foot of a posed figure: {@link SEEN} numbers a foot. */
  see(frame: number, { locals }: HierarchyPose, out: Float64Array): void {
    const { feet, space, place } = this;
    // Told first, for the legs are placed for it as well.
    this.findFloors(frame);
    placeNodes(this.scene.hierarchy, this.placed, locals, space);
    place.goTo(frame);
    for (let i = 0; i < feet.length; i++) {
      const foot = feet[i];
      if (foot === null) continue;
      readOrigin(space, foot.foot, world);
      place.toWorld(world);
      const at = SEEN * i;
      for (let k = 0; k < 3; k++) out[at + k] = world[k];
      out[at + 3] = this.sole?.clearance(foot, world) ?? this.soleOf(foot);
      out[at + 4] = foot.floor - this.sunk(foot);
    }
  }

  /** Which way the walker is turned at a frame, radians about up. */
  heading(frame: number): number {
    this.place.goTo(frame);
    return this.place.turn;
  }

  /** Position and turn of the lock of a foot that is down. */
  lock(foot: number, down: FootDown): Lock {
    const frames = down.placedAt === null ? this.walkingSamples(down) : [down.placedAt];
    const seen = frames.map((frame) => this.whereFree(foot, frame));
    const position: Vec3 = [0, 0, 0];
    let [sine, cosine] = [0, 0];
    for (const { free, turn } of seen) {
      vec3.scaleAndAdd(position, position, free, 1 / seen.length);
      sine += Math.sin(turn);
      cosine += Math.cos(turn);
    }
    position[1] = this.groundUnder(position) ?? position[1];
    const turn = Math.atan2(sine, cosine);
    const shift = (frame: number): Shift => {
      const known = frames.indexOf(frame);
      const now = known < 0 ? this.whereFree(foot, frame) : seen[known];
      const by = { x: 0, z: 0, turn: 0 };
      shiftTo(position, turn, now.free, now.turn, by);
      return by;
    };
    return { ...down, position, turn, first: shift(down.from), last: shift(down.to) };
  }

  /** Position of a foot at a frame on its track so far, from which a step begins or at which it ends. */
  placeOnTrack(foot: number, track: FootTrack, frame: number): FootPosition {
    const { free, turn } = this.whereFree(foot, frame);
    const height = this.heightOf(this.feet[foot] as FootOfLeg);
    shiftAt(track, frame, free, turn, shift);
    return { x: free[0] + shift.x, z: free[2] + shift.z, height, turn: turn + shift.turn };
  }

  /** Bends the legs of a pose so that feet are where they are locked, or on the ground where they are not. */
  bend(frame: number, pose: HierarchyPose, tracks: readonly FootTrack[] | null): void {
    const { feet, scene, place, placed, space, bender } = this;
    const part = tracks === null ? 0 : scene.walk.idleWeight(frame);
    const blends = part > 0 && part < 1;
    let glides = false;
    for (let i = 0; i < feet.length; i++) {
      const foot = feet[i];
      if (foot === null) continue;
      foot.glide = tracks && glideAt(tracks[i], frame);
      glides ||= foot.glide !== null;
    }
    // Before the figure is placed: looking for them places it otherwise.
    if (blends || glides || this.sole !== null) this.findFloors(frame);
    placeNodes(scene.hierarchy, placed, pose.locals, space);
    place.goTo(frame);
    bender.takeTurns(pose.locals);
    for (let i = 0; i < feet.length; i++) {
      const foot = feet[i];
      if (foot === null) continue;
      if (foot.glide) this.aimOnGlide(foot, foot.glide);
      else this.aim(foot, frame, tracks?.[i] ?? null);
      if (this.sole) this.setDown(foot, this.sole);
      // Told only where clips are blended, or no clip has the step: elsewhere a clip's own sole is as low as it comes.
      else if (blends || foot.glide) this.raise(foot);
    }
    if (bender.lowerHips(pose, feet)) placeNodes(scene.hierarchy, placed, pose.locals, space);
    for (const foot of feet) if (foot !== null) bender.bendLeg(foot, pose.locals);
  }

  /**
   * Lower limit of the soles at a frame: the lowest height in the walk or in the idle clip, interpolated as the two
   * are blended.
   */
  private findFloors(frame: number): void {
    if (frame === this.floorsAt) return;
    this.floorsAt = frame;
    const { feet, scene } = this;
    const part = scene.walk.idleWeight(frame);
    for (const foot of feet)
      if (foot !== null)
        foot.floor = Number.isNaN(foot.walks) ? (foot.walks = this.walkFloor(foot)) : foot.walks;
    if (part === 0) return;
    this.restClips();
    this.poses.standing(frame, this.clips);
    placeNodes(scene.hierarchy, this.placed, this.clips.locals, this.space);
    for (const foot of feet) if (foot !== null) foot.floor += part * (this.soleOf(foot) - foot.floor);
  }

  /** How low a walk ever has the sole of a foot, metres of the world. */
  private walkFloor(foot: FootOfLeg): number {
    const { hierarchy, posed, axes } = this.scene;
    const known = floorsOf(posed.clip);
    const key = `${foot.foot} ${axes.up.join()}`;
    let floor = known.get(key);
    if (floor === undefined) {
      floor = Infinity;
      for (let i = 0; i < CYCLE_SAMPLES; i++) {
        this.restClips();
        foot.alone.atPhase(i / CYCLE_SAMPLES, this.clips);
        placeNodes(hierarchy, foot.chain, this.clips.locals, this.space);
        floor = Math.min(floor, this.soleHeight(foot));
      }
      known.set(key, floor);
    }
    return floor * axes.scale[2];
  }

  private restClips(): void {
    this.clips.locals.set(this.rest.locals);
  }

  private whereFree(foot: number, frame: number): { readonly free: Vec3; readonly turn: number } {
    const free = this.free(foot, frame);
    return { free, turn: this.place.turn };
  }

  /** Frames of a stance at which the walk is visible: none while it is stopped. */
  private walkingSamples(down: FootDown): number[] {
    const { idleSpans } = this.scene.walk;
    return samplesOf(down).map((frame) => {
      const span = idleSpans[idleSpanAt(idleSpans, frame)];
      if (span === undefined) return frame;
      return Number.isFinite(span.from) && span.from >= down.from ? span.from : Math.min(span.to, down.to);
    });
  }

  /** To the end of an own step. */
  private aimOnGlide(foot: FootOfLeg, glide: FootPosition): void {
    const { place, space } = this;
    readOrigin(space, foot.foot, world);
    place.toWorld(world);
    vec3.set(world, glide.x, world[1], glide.z);
    world[1] = (this.groundUnder(world) ?? place.height) + glide.height;
    this.take(foot, world, wrapAngle(glide.turn - place.turn));
  }

  /** To where its track has it at a frame; without one, to the ground under it. */
  private aim(foot: FootOfLeg, frame: number, track: FootTrack | null): void {
    const { place, space } = this;
    readOrigin(space, foot.foot, world);
    place.toWorld(world);
    let turn = 0;
    if (track !== null) {
      shiftAt(track, frame, world, place.turn, shift);
      world[0] += shift.x;
      world[2] += shift.z;
      turn = shift.turn;
    }
    const ground = this.groundUnder(world);
    if (ground !== null) world[1] = ground + this.heightOf(foot);
    this.take(foot, world, turn);
  }

  /** Takes a place of the world as the target of a foot. */
  private take(foot: FootOfLeg, place: Vec3, turn: number): void {
    this.place.toModel(place);
    vec3.copy(foot.target, place);
    foot.turn = turn;
  }

  /** Brings a foot's sole as high over the ground beneath it as its clips have it over their floor. */
  private setDown(foot: FootOfLeg, sole: SoleOnGround): void {
    const { space, bender } = this;
    const { up, scale } = this.scene.axes;
    if (Number.isNaN(foot.reach)) foot.reach = Math.max(LEAST_REACH, foot.shape.reach(space, up) * scale[2]);
    const high = foot.glide ? foot.glide.height : this.heightOf(foot);
    sole.settle(foot, bender.turns[foot.foot], {
      own: high + foot.shape.lowest(space, up, null) * scale[2],
      floor: foot.floor,
      sunk: this.sunk(foot),
    });
  }

  /** How far a walk has the sole of a foot under its own floor, metres below 0. */
  private sunk(foot: FootOfLeg): number {
    return this.sole && foot.walks < -SUNK ? foot.walks : 0;
  }

  /** Lifts a target by as much as its sole would come lower than it may. */
  private raise(foot: FootOfLeg): void {
    const { space, place } = this;
    const { up, scale } = this.scene.axes;
    const turn = this.bender.turns[foot.foot];
    const whole = rotationBetween(turn, turnAboutUp(up, foot.turn, turn, wanted));
    const sole = foot.shape.lowest(space, up, whole);
    // Its level is that of the model's floor, wherever the ground under the foot is.
    readOrigin(space, foot.foot, world);
    place.toWorld(world);
    const ground = this.groundUnder(world);
    const level = ground === null ? 0 : (ground - place.height) / scale[2];
    const under = foot.floor / scale[2] - (vec3.dot(foot.target, up) + sole - level);
    if (under > 0) vec3.scaleAndAdd(foot.target, foot.target, up, under);
  }

  /** The lowest place of a foot that is placed, over the level it walks on: metres of the world. */
  private soleOf(foot: FootOfLeg): number {
    return this.soleHeight(foot) * this.scene.axes.scale[2];
  }

  /** The same in metres of the model. */
  private soleHeight(foot: FootOfLeg): number {
    const { up } = this.scene.axes;
    readOrigin(this.space, foot.foot, own);
    return vec3.dot(own, up) + foot.shape.lowest(this.space, up, null);
  }

  /** How high a foot that is placed is over its ground, metres of the world. */
  private heightOf(foot: FootOfLeg): number {
    const { up, scale } = this.scene.axes;
    readOrigin(this.space, foot.foot, own);
    return vec3.dot(own, up) * scale[2];
  }

  private groundUnder(place: Vec3): number | null {
    return this.scene.ground && this.groundAt(place[0], place[2]);
  }

  private groundAt(x: number, z: number): number | null {
    const { ground } = this.scene;
    if (ground === null) return null;
    const { up, down, rise } = ground.contact;
    const found = ground.heights.height(x, z, this.place.height - rise, up, down);
    return found === null ? null : found + rise;
  }
}

const shift: Shift = { x: 0, z: 0, turn: 0 };
const world: Vec3 = [0, 0, 0];
const own: Vec3 = [0, 0, 0];
const wanted: Quat = [0, 0, 0, 1];
