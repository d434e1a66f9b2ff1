import { quat, vec3 } from 'gl-matrix';
import type { Ground } from '../contact/ground.js';
import type { Gait } from '../document/shot-rider.js';
import type { GroundContact } from '../document/shot-hitch.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { parentSpace } from '../puppet/own-movers.js';
import { placeOf, toModelSpace } from '../puppet/model-space.js';
import type { Mover } from '../puppet/mover.js';
import { LOCAL, restPose, type Puppet, type PuppetPose } from '../puppet/puppet.js';
import type { OwnAxes } from '../rider/contact-points.js';
import { POSE } from '../rider/pose.js';
import type { PoseAt } from '../rider/ride-path.js';
import { MARGIN_SECONDS, type FreeWalk } from './free-walk.js';
import { legOf, pelvisOf, type Leg } from './leg.js';
import { footDowns, type FootDown } from './plants.js';
import { smooth } from './stands.js';
import { bendTo } from './two-bone.js';

/** A foot that was set down: how far it slides while it is, metres along the ground. */
export interface Plant extends FootDown {
  readonly foot: string;
  /** By the clip alone. */
  readonly slide: number;
  /** As it is shown: with planting, where the leg reaches. */
  readonly left: number;
  /** Where it stands in the world. */
  readonly place: Vec3;
  /** Which way the walker is turned there, radians. */
  readonly turn: number;
}

/** A walker whose feet are set on the ground. */
export interface Walk {
  readonly mover: Mover;
  /** In order of time, foot by foot; computed when first asked for. */
  plants(): readonly Plant[];
  /** How far a foot is from where it was set down, metres along the ground; 0 in the air. */
  slide(foot: number, frame: number): number;
}

export interface WalkScene {
  readonly gait: Gait;
  readonly puppet: Puppet;
  readonly walk: FreeWalk;
  readonly pose: PoseAt;
  readonly axes: OwnAxes;
  /** The model's size in the world, by its own axes. */
  readonly scale: Vec3;
  readonly range: { readonly first: number; readonly last: number; readonly fps: number };
  /** What feet are set on, and within which band; null where they stand as high as the clip has them. */
  readonly ground: { readonly heights: Ground; readonly contact: GroundContact } | null;
}

/** Where a foot is locked while it is down. */
interface Lock extends FootDown {
  readonly place: Vec3;
  readonly turn: number;
  /** By how much it is moved and turned there as it is set down, and as it is lifted. */
  readonly first: Shift;
  readonly last: Shift;
}

/** By how much a foot is moved along x and z, metres, and turned to the left, radians. */
interface Shift {
  readonly x: number;
  readonly z: number;
  readonly turn: number;
}

const NO_SHIFT: Shift = { x: 0, z: 0, turn: 0 };

/** Places of a stance that are averaged to where it is locked: it then moves the least. */
const LOOKS = 8;
/** Legs are not stretched beyond this part of their length; the hips come down before. */
const STRETCH = 0.9995;

/**
 * Feet that stay where they are set down. Each is locked where the clip has it in the middle of its stance (and turned as it is
 * there); in between, it is led from one lock to the next. Two-bone inverse kinematics bends the legs, and the hips come down
 * where a leg would not reach. On the ground, a foot stands as high over it as the clip has it over its own floor.
 */
export function compileWalk(scene: WalkScene): Walk {
  const { gait, puppet, walk, range } = scene;
  const legs = gait.feet.map(({ node }) => legOf(puppet, node));
  const solver = new Solver(scene, legs);
  const margin = MARGIN_SECONDS * range.fps;
  const span = {
    from: Math.floor(range.first - margin),
    to: Math.ceil(range.last + 1 + margin),
    fps: range.fps,
  };
  const locks = gait.feet.map((foot, i): Lock[] =>
    legs[i] ? footDowns(foot, gait, walk, span).map((down) => solver.lock(i, down)) : [],
  );
  const plant = gait.plant;
  const mover: Mover = {
    nodes: [
      ...new Set([
        ...walk.nodes,
        ...(plant || scene.ground
          ? [solver.pelvis, ...legs.flatMap((leg) => (leg ? [leg.top, leg.middle, leg.foot] : []))]
          : []),
      ]),
    ].filter((node) => node >= 0),
    apply(frame, pose) {
      walk.pose?.(frame, pose);
      if (plant || scene.ground) solver.bend(frame, pose, plant ? locks : null);
    },
  };
  const shown = restPose(puppet);
  const rest = restPose(puppet);
  const shownPlace = (foot: number, frame: number): Vec3 => {
    shown.locals.set(rest.locals);
    mover.apply(frame, shown);
    return solver.place(foot, frame, shown);
  };
  const within = (foot: number, frame: number) =>
    locks[foot].find(({ from, to }) => frame >= from && frame <= to);
  let made: Plant[] | null = null;
  return {
    mover,
    plants() {
      made ??= locks.flatMap((list, foot) =>
        list
          .filter(({ from, to }) => to > range.first && from < range.last + 1)
          .map((lock): Plant => {
            const frames = looks(lock);
            return {
              ...lock,
              foot: gait.feet[foot].node,
              slide: spread(frames.map((frame) => solver.free(foot, frame))),
              left: spread(frames.map((frame) => shownPlace(foot, frame))),
            };
          }),
      );
      return made;
    },
    slide(foot, frame) {
      const lock = within(foot, frame);
      if (!lock) return 0;
      const from = plant ? lock.place : solver.free(foot, lock.from);
      return level(shownPlace(foot, frame), from);
    },
  };
}

const looks = ({ from, to }: FootDown) =>
  Array.from({ length: LOOKS + 1 }, (_, i) => from + ((to - from) * i) / LOOKS);

/** How far apart along the ground the furthest of some places is from the first. */
const spread = (places: readonly Vec3[]) => Math.max(0, ...places.map((place) => level(place, places[0])));
const level = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[2] - b[2]);

/** Brings feet to places of the world. */
class Solver {
  readonly pelvis: number;
  private readonly space: Float64Array;
  private readonly free0: PuppetPose;
  private readonly rest: PuppetPose;
  private readonly now = new Float64Array(POSE.size);
  private readonly toParent: { toParent: ReturnType<typeof parentSpace>['toParent'] } | null;

  constructor(
    private readonly scene: WalkScene,
    private readonly legs: readonly (Leg | null)[],
  ) {
    const { puppet } = scene;
    this.pelvis = pelvisOf(
      puppet,
      legs.filter((leg) => leg !== null),
    );
    this.space = new Float64Array(16 * puppet.nodes.length);
    this.free0 = restPose(puppet);
    this.rest = restPose(puppet);
    this.toParent = this.pelvis < 0 ? null : parentSpace(puppet, this.pelvis);
  }

  /** Where a foot is by the clips alone, in the world. */
  free(foot: number, frame: number): Vec3 {
    const { locals } = this.free0;
    locals.set(this.rest.locals);
    this.scene.walk.pose?.(frame, this.free0);
    return this.place(foot, frame, this.free0);
  }

  /** Where a foot of a posed puppet is in the world. */
  place(foot: number, frame: number, { locals }: PuppetPose): Vec3 {
    toModelSpace(this.scene.puppet, locals, this.space);
    this.scene.pose(frame, this.now, 0);
    return this.toWorld(placeOf(this.space, (this.legs[foot] as Leg).foot));
  }

  /** Where and how a foot is locked that is down. */
  lock(foot: number, down: FootDown): Lock {
    const seen = looks(down).map((frame) => ({ free: this.free(foot, frame), turn: this.turn() }));
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
  bend(frame: number, pose: PuppetPose, locks: readonly (readonly Lock[])[] | null): void {
    const { puppet, axes } = this.scene;
    toModelSpace(puppet, pose.locals, this.space);
    this.scene.pose(frame, this.now, 0);
    const turnNow = this.turn();
    const targets = this.legs.map((leg, i) => {
      if (leg === null) return null;
      const free = placeOf(this.space, leg.foot);
      const world = this.toWorld(free);
      const shift = locks ? shiftAt(locks[i], frame, world, turnNow) : NO_SHIFT;
      world[0] += shift.x;
      world[2] += shift.z;
      const height = this.groundUnder(world);
      if (height !== null) world[1] = height + vec3.dot(free, axes.up) * axes.scale[2];
      return { place: this.toModel(world), turn: shift.turn };
    });
    this.lowerHips(pose, targets);
    toModelSpace(puppet, pose.locals, this.space);
    const turns = this.modelTurns(pose.locals);
    targets.forEach((target, i) => {
      const leg = this.legs[i];
      if (target === null || leg === null) return;
      const [top, middle, end] = [leg.top, leg.middle, leg.foot].map((node) => placeOf(this.space, node));
      const bent = bendTo(top, middle, end, target.place, axes.ahead);
      const footTurn = turnAboutUp(axes.up, target.turn, turns[leg.foot]);
      this.setTurn(pose.locals, turns, leg.middle, bent.lower);
      this.setTurn(pose.locals, turns, leg.top, bent.whole);
      // The foot is turned as it was, and not with the leg.
      const above = this.turnOf(pose.locals, puppet.nodes[leg.foot].parent);
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

  private lowerHips(pose: PuppetPose, targets: readonly ({ place: Vec3 } | null)[]): void {
    if (this.pelvis < 0 || this.toParent === null) return;
    const { up } = this.scene.axes;
    let drop = 0;
    targets.forEach((target, i) => {
      const leg = this.legs[i];
      if (target === null || leg === null) return;
      const [top, middle, end] = [leg.top, leg.middle, leg.foot].map((node) => placeOf(this.space, node));
      const reach = STRETCH * (vec3.distance(top, middle) + vec3.distance(middle, end));
      const way = vec3.subtract([0, 0, 0], target.place, top);
      const high = vec3.dot(way, up);
      const aside = Math.sqrt(Math.max(0, vec3.dot(way, way) - high * high));
      if (vec3.length(way) <= reach || aside >= reach) return;
      drop = Math.max(drop, -high - Math.sqrt(reach * reach - aside * aside));
    });
    if (drop <= 0) return;
    const { toParent } = this.toParent;
    const zero = vec3.transformMat4([0, 0, 0], [0, 0, 0], toParent);
    const by = vec3.transformMat4([0, 0, 0], vec3.scale([0, 0, 0], up, -drop), toParent);
    for (let k = 0; k < 3; k++) pose.locals[this.pelvis * LOCAL.size + k] += by[k] - zero[k];
  }

  /** By node how it is turned in the model's space. */
  private modelTurns(locals: Float64Array): Quat[] {
    const turns: Quat[] = [];
    this.scene.puppet.nodes.forEach(({ parent }, i) => {
      const own = ownTurn(locals, i);
      turns.push(parent < 0 ? own : (quat.multiply([0, 0, 0, 1], turns[parent], own) as Quat));
    });
    return turns;
  }

  private turnOf(locals: Float64Array, node: number): Quat {
    const turn: Quat = [0, 0, 0, 1];
    for (let i = node; i >= 0; i = this.scene.puppet.nodes[i].parent)
      quat.multiply(turn, ownTurn(locals, i), turn);
    return turn;
  }

  /** Turns a node in the model's space, from how it was turned; what it hangs on may turn as well before or after. */
  private setTurn(locals: Float64Array, turns: Quat[], node: number, turn: Quat): void {
    const { parent } = this.scene.puppet.nodes[node];
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

/** By how much a foot is moved and turned at a frame: to its lock, or on the way from one to the next. */
function shiftAt(locks: readonly Lock[], frame: number, free: Vec3, turn: number): Shift {
  if (locks.length === 0) return NO_SHIFT;
  const after = locks.findIndex(({ from }) => from > frame);
  const before: Lock | undefined = locks[after < 0 ? locks.length - 1 : after - 1];
  if (before && frame <= before.to) return shiftTo(before.place, before.turn, free, turn);
  const next: Lock | undefined = after < 0 ? undefined : locks[after];
  const [a, b] = [before?.last ?? NO_SHIFT, next?.first ?? NO_SHIFT];
  if (!before || !next) return before ? a : b;
  const t = smooth((frame - before.to) / (next.from - before.to));
  const mix = (k: keyof Shift) => a[k] + t * (b[k] - a[k]);
  return { x: mix('x'), z: mix('z'), turn: mix('turn') };
}

function shiftTo(place: Vec3, turn: number, free: Vec3, freeTurn: number): Shift {
  const by = turn - freeTurn;
  return { x: place[0] - free[0], z: place[2] - free[2], turn: Math.atan2(Math.sin(by), Math.cos(by)) };
}

const poseTurn = (pose: Float64Array): Quat => [pose[3], pose[4], pose[5], pose[6]];

function ownTurn(locals: Float64Array, node: number): Quat {
  const at = node * LOCAL.size + LOCAL.rotation;
  return [locals[at], locals[at + 1], locals[at + 2], locals[at + 3]];
}

function turnAboutUp(up: Vec3, angle: number, turn: Quat): Quat {
  return quat.multiply([0, 0, 0, 1], quat.setAxisAngle([0, 0, 0, 1], up, angle), turn) as Quat;
}
