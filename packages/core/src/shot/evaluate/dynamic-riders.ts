import { quat, vec3 } from 'gl-matrix';
import { eachAction } from '../../document/each-action.js';
import { placesBehind } from '../../document/rider-graph.js';
import type { RigidBody } from '../../document/shot-rigid-body.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { KeptSteps, stateBetween } from '../../effects/forces/simulation.js';
import { KINEMATIC, PulledBodies, WANTED, type PulledWorld } from '../../effects/forces/pulled-bodies.js';
import { STATE, type BodySpec, type Physics } from '../../effects/forces/physics.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { modulo } from '../../geometry/math/angle.js';
import { runToEnd } from '../../geometry/math/run-to-end.js';
import { cachedFor } from '../../geometry/math/cached-for.js';
import { velocityAt, velocityFrom } from '../../geometry/math/velocity.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../../motion/pose/axes.js';
import { pointOn } from '../../motion/pose/point-on.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';
import { axesOf } from '../../document/rider-axes.js';
import { distanceToBox } from '../../geometry/solid/turned-box.js';
import { keptSteps } from './kept-steps.js';
import { hierarchyOfRider, type SceneAssets } from './scene-assets.js';

/** Copies further behind or ahead than this many ranges are separate bodies. */
const MOST_CYCLES = 20;
/** Hand-carried things, cameras and lights collide with nobody. */
const NO_BODY: ReadonlySet<Rider['kind']> = new Set(['camera', 'light', 'emitter', 'carrier']);

/** Scene of the simulation. */
export interface DynamicScene {
  readonly shot: Shot;
  readonly assets: SceneAssets;
  readonly physics: Physics;
  /** Pose of a rider without forces, in the time of the work. */
  unforced(rider: Rider): PoseAt;
  /** The last frame of the work that is shown. */
  readonly last: number;
}

/** A body, and the riders that are it. */
interface Body {
  readonly rider: Rider;
  readonly forces: RigidBody;
  /** Its middle of mass in its rider's space, metres of the world. */
  readonly middle: Vec3;
}

/**
 * The riders of a shot that forces move: what they collide with, and where they are. All of them are stepped forward together, once;
 * copies that are a leader shifted in time are read from what the leader came to.
 */
export class DynamicRiders {
  private readonly bodies: readonly Body[];
  private readonly kinematic: readonly {
    readonly rider: Rider;
    readonly half: Vec3;
    readonly middle: Vec3;
  }[];
  private readonly steps: KeptSteps;
  /** The frame of the work at which it begins, and how many frames there are. */
  private readonly begin: number;
  readonly frames: number;
  private settled = -1;
  private readonly shifts = new Map<string, { readonly body: number; readonly shift: number }>();

  constructor(
    private readonly by: DynamicScene,
    riders: readonly Rider[],
  ) {
    const { shot, assets } = by;
    const { first, last } = shot.range;
    const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
    const bodies: Body[] = [];
    const alone = new Map<string, number>();
    for (const rider of riders) {
      if (leaderShifted(rider, riders, shot)) continue;
      alone.set(rider.id, bodies.length);
      bodies.push(bodyOf(rider, rider.rigidBody as RigidBody, hierarchyOfRider(assets, rider)));
    }
    for (const rider of riders) {
      let [head, shift] = [rider, 0];
      for (let next = leaderShifted(head, riders, shot); next; next = leaderShifted(head, riders, shot)) {
        shift += next.shift;
        head = next.leader;
      }
      this.shifts.set(rider.id, { body: alone.get(head.id) as number, shift });
    }
    this.bodies = bodies;
    const blend = shot.loop ? Math.max(0, ...bodies.map(({ forces }) => blendOf(forces, shot))) : 0;
    const reach = Math.max(0, ...[...this.shifts.values()].map(({ shift }) => shift));
    this.begin = first - blend;
    // One more than is shown: a loop's first frame comes again there.
    this.frames = Math.ceil(Math.max(last, by.last) + 1 + reach - this.begin) + 1;
    this.kinematic = this.kinematicRiders(byId, riders);
    const world = this.world();
    const key = JSON.stringify([world.bodies, world.led, world.floor, world.fps, this.begin]);
    this.steps = keptSteps(key, assets.ground, () => {
      const stepped = new PulledBodies(by.physics, world);
      return new KeptSteps(stepped, stepped.width);
    });
  }

  /** Steps forward, a frame a step; yields the part that is done. */
  *settle(): Generator<number, void, undefined> {
    if (this.settled === this.steps.changes) return;
    let done = 0;
    const width = this.bodies.length * WANTED.numbers;
    const inputs = (i: number, out: Float64Array, at: number) => {
      const frame = this.wrapped(this.begin + i);
      this.bodies.forEach((body, k) => this.wanted(body, frame, out, at + k * WANTED.numbers, i === 0));
      this.kinematic.forEach(({ rider, middle }, k) => {
        this.by.unforced(rider)(frame, pose, 0);
        const to = at + width + k * KINEMATIC.numbers;
        out.set(pointOn(pose, middle, place), to);
        for (let c = 0; c < 4; c++) out[to + KINEMATIC.rotation + c] = pose[POSE.rotation + c];
      });
    };
    for (const steps = this.steps.advance(this.frames, inputs); !steps.next().done;)
      yield ++done / this.frames;
    this.settled = this.steps.changes;
  }

  /** Pose of a rider. */
  readonly pose = cachedFor((rider: Rider): PoseAt => {
    const { body: index, shift } = this.shifts.get(rider.id) as { body: number; shift: number };
    const body = this.bodies[index];
    const { shot } = this.by;
    const { first, last } = shot.range;
    const cycle = last - first + 1;
    const blend = shot.loop ? blendOf(body.forces, shot) : 0;
    const unforced = this.by.unforced(rider);
    const nose = axisVector(axesOf(rider).forward);
    const [now, before] = [new Float64Array(STATE.numbers), new Float64Array(STATE.numbers)];
    const place = new Float64Array(POSE.size);
    const [arm, ahead]: Vec3[] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    return (frame, out, at) => {
      runToEnd(this.settle());
      const states = this.steps.read();
      const size = this.bodies.length * STATE.numbers;
      const read = (of: number, to: Float64Array) =>
        stateBetween(states, size, index, of + shift - this.begin, this.frames, shot.fps, to);
      read(frame, now);
      const into = blend > 0 ? (frame - (last + 1 - blend)) / blend : 0;
      if (into > 0) {
        read(frame - cycle, before);
        mix(now, before, Math.min(1, into));
      }
      unforced(frame, place, 0);
      for (let k = 0; k < 10; k++) out[at + k] = place[k];
      // The middle of mass is where the body is; the rider's origin beside it.
      for (let k = 0; k < 7; k++) turned[k] = now[k];
      pointOn(turned, vec3.negate(arm, body.middle) as Vec3, arm);
      for (let k = 0; k < 3; k++) out[at + k] = arm[k];
      for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = now[STATE.rotation + k];
      // On its path it is as far as its place is, less what it lags behind that.
      alongNose(place, nose, ahead);
      pointOn(place, body.middle, arm);
      const speed = Math.hypot(now[7], now[8], now[9]);
      const along = ahead[0] * now[7] + ahead[1] * now[8] + ahead[2] * now[9];
      for (let k = 0; k < 3; k++) out[at + POSE.distance] += (now[k] - arm[k]) * ahead[k];
      out[at + POSE.speed] = along < 0 ? -speed : speed;
    };
  });

  /** How far a rider is behind its place on the path, metres along the way it goes; negative where it is ahead. */
  lag(rider: Rider): (frame: number) => number {
    const forced = this.pose(rider);
    const unforced = this.by.unforced(rider);
    const own = new Float64Array(POSE.size);
    const place = new Float64Array(POSE.size);
    return (frame) => {
      forced(frame, own, 0);
      unforced(frame, place, 0);
      return place[POSE.distance] - own[POSE.distance];
    };
  }

  /** The frame of which the inputs are taken: what goes before a loop's first frame is its last ones. */
  private wrapped(frame: number): number {
    const { loop, range } = this.by.shot;
    if (!loop || frame >= range.first) return frame;
    return range.first + modulo(frame - range.first, range.last - range.first + 1);
  }

  /** @param begins whether it sets off there */
  private wanted(
    { rider, middle }: Body,
    frame: number,
    out: Float64Array,
    at: number,
    begins: boolean,
  ): void {
    const unforced = this.by.unforced(rider);
    const middleAt = (at: number, to: Vec3) => {
      unforced(at, pose, 0);
      pointOn(pose, middle, to);
    };
    (begins ? velocityFrom : velocityAt)(middleAt, frame, this.by.shot.fps, place);
    for (let k = 0; k < 3; k++) out[at + WANTED.velocity + k] = place[k];
    middleAt(frame, place);
    for (let k = 0; k < 3; k++) out[at + k] = place[k];
    for (let k = 0; k < 4; k++) out[at + WANTED.rotation + k] = pose[POSE.rotation + k];
  }

  private world(): PulledWorld {
    const { shot, assets } = this.by;
    const spare = new Float64Array(WANTED.numbers);
    // Without ground a shot is level at height 0, as it is drawn, except for riders that begin below it.
    const isOverNought = () =>
      this.bodies.every((body) => {
        this.wanted(body, this.wrapped(this.begin), spare, 0, true);
        return spare[1] > 0;
      });
    const { ground } = assets;
    return {
      ground: ground?.mesh ?? null,
      floor: ground ? (ground.mesh.level ?? null) : isOverNought() ? 0 : null,
      fps: shot.fps,
      bodies: this.bodies.map(({ rider, forces }) => ({
        forces,
        body: specOf(rider, forces, hierarchyOfRider(assets, rider)),
      })),
      led: this.kinematic.map(({ half }) => ({ half })),
    };
  }

  /** Riders that forces do not move, and that do not wait for one that they do: they push what is in their way. */
  private kinematicRiders(byId: ReadonlyMap<string, Rider>, forced: readonly Rider[]) {
    const { shot, assets, unforced } = this.by;
    const ids = new Set(forced.map(({ id }) => id));
    const spare = new Float64Array(WANTED.numbers);
    const starts = this.bodies.map((body) => {
      this.wanted(body, this.wrapped(this.begin), spare, 0, true);
      return { at: [spare[0], spare[1], spare[2]] as Vec3, reach: body.forces.size };
    });
    return shot.riders.flatMap((rider) => {
      const box = hierarchyOfRider(assets, rider)?.box;
      if (!box || NO_BODY.has(rider.kind) || waitsForOne(rider, shot, byId, ids)) return [];
      const { scale } = rider.rest;
      const half = box.high.map((value, k) => Math.abs(((value - box.low[k]) / 2) * scale[k])) as Vec3;
      const middle = box.high.map((value, k) => ((value + box.low[k]) / 2) * scale[k]) as Vec3;
      unforced(rider)(this.wrapped(this.begin), pose, 0);
      const numbers = new Float64Array(12);
      numbers.set(pointOn(pose, middle, place));
      for (let k = 0; k < 3; k++) {
        const axis: Vec3 = [0, 0, 0];
        axis[k] = half[k];
        const end = pointOn(pose, axis, [0, 0, 0]);
        for (let c = 0; c < 3; c++) numbers[3 + 3 * k + c] = end[c] - pose[c];
      }
      // A body that begins inside another's box lies in it, as a load does, and is not thrown out.
      const holds = starts.some(({ at, reach }) => distanceToBox({ numbers }, at) < reach);
      return holds ? [] : [{ rider, half, middle }];
    });
  }
}

const pose = new Float64Array(POSE.size);
const place: Vec3 = [0, 0, 0];
const turned = new Float64Array(POSE.size);

/** The riders that forces move: those whose place without them waits for no other such. */
export function dynamicRidersOf(shot: Shot): Rider[] {
  const wished = shot.riders.filter(({ rigidBody, frozen }) => rigidBody !== null && frozen === null);
  const ids = new Set(wished.map(({ id }) => id));
  const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
  return wished.filter(
    (rider) => !waitsForOne(rider, shot, byId, new Set([...ids].filter((id) => id !== rider.id))),
  );
}

/** Whether where a rider is follows from where another one is, of some; what it takes from another's pace alone is none of that. */
function waitsForOne(
  rider: Rider,
  { cues }: Pick<Shot, 'cues'>,
  byId: ReadonlyMap<string, Rider>,
  some: ReadonlySet<string>,
): boolean {
  const found = new Set([rider]);
  for (const next of found) {
    for (const id of placesBehind(next, cues)) {
      if (some.has(id)) return true;
      const other = byId.get(id);
      if (other) found.add(other);
    }
  }
  return some.has(rider.id);
}

/**
 * The rider among some of which another is the same, delayed on its path; null if there is none. A cue or a retime of
 * only one makes them two.
 */
function leaderShifted(
  rider: Rider,
  riders: readonly Rider[],
  { cues, retimes, range }: Shot,
): { leader: Rider; shift: number } | null {
  const paced = rider.attachment?.pacedBy;
  const leader = paced?.rate === 1 ? riders.find(({ id }) => id === paced.rider) : undefined;
  if (!paced || !leader?.attachment) return null;
  if (Math.abs(paced.delay) > MOST_CYCLES * (range.last - range.first + 1)) return null;
  const told = [
    ...eachAction(cues).map(({ action }) => action.rider),
    ...retimes.flatMap(({ riders: bent }) => bent),
  ];
  if (told.includes(rider.id) || told.includes(leader.id)) return null;
  return movedBy(rider) === movedBy(leader) ? { leader, shift: -paced.delay } : null;
}

/** All of a rider that says where it is but for when, as text. */
function movedBy({
  attachment,
  rigidBody,
  model,
  rest,
  parent,
  ball,
  clearance,
  shake,
  parentKeys,
}: Rider): string {
  const way = attachment && { ...attachment, pace: null, pacedBy: null, takes: null };
  return JSON.stringify([way, rigidBody, model, rest, parent, ball, clearance, shake, parentKeys]);
}

/** Over how many frames a loop's end is led into its beginning: no more than there are. */
const blendOf = ({ blend }: RigidBody, { range }: Shot) => Math.min(blend, range.last - range.first + 1);

/** How large a body is, from its model's box. */
function halvesOf({ rest }: Rider, { shape, size }: RigidBody, hierarchy: NodeHierarchy | null): Vec3 {
  const box = hierarchy?.box;
  if (!box || shape === 'ball') return [size, size, size];
  const half = box.high.map((value, k) => Math.abs(((value - box.low[k]) / 2) * rest.scale[k]));
  // A cylinder's size is its radius alone, so it is as long as its model; what is so thin that it would be nothing is something.
  const scale = shape === 'cylinder' ? 1 : size / (half[1] || 1);
  return half.map((value) => Math.max(1e-3, value * scale)) as Vec3;
}

function bodyOf(rider: Rider, forces: RigidBody, hierarchy: NodeHierarchy | null): Body {
  const { scale } = rider.rest;
  const box = hierarchy?.box;
  const middle: Vec3 = rider.ball
    ? [...rider.ball.centre]
    : box
      ? (box.low.map((value, k) => (value + box.high[k]) / 2) as Vec3)
      : [0, forces.size, 0];
  const scaled = box || rider.ball ? (vec3.multiply([0, 0, 0], middle, scale) as Vec3) : middle;
  return { rider, forces, middle: scaled };
}

function specOf(rider: Rider, forces: RigidBody, hierarchy: NodeHierarchy | null): BodySpec {
  const half = halvesOf(rider, forces, hierarchy);
  const axis = axisVector(forces.axis);
  const points = hierarchy?.outermost;
  const shape: BodySpec['shape'] =
    forces.shape === 'ball'
      ? { kind: 'ball', radius: forces.size }
      : forces.shape === 'cylinder'
        ? { kind: 'cylinder', radius: forces.size, half: Math.abs(vec3.dot(axis, half)), axis }
        : forces.shape === 'hull' && points && hierarchy.box
          ? { kind: 'hull', points: hullOf(points, hierarchy.box, half) }
          : { kind: 'box', half };
  const { mass, friction, bounce, damping, spinDamping } = forces;
  return { shape, mass, friction, bounce, damping, spinDamping };
}

/** Hull points of a model about its middle, scaled to its half sizes. */
function hullOf(
  points: readonly number[],
  { low, high }: NonNullable<NodeHierarchy['box']>,
  half: Vec3,
): number[] {
  return points.map((value, i) => {
    const k = i % 3;
    const reach = (high[k] - low[k]) / 2;
    return reach > 0 ? ((value - (low[k] + high[k]) / 2) / reach) * half[k] : 0;
  });
}

function alongNose(pose: Float64Array, nose: Vec3, out: Vec3): void {
  pointOn(pose, nose, out);
  for (let k = 0; k < 3; k++) out[k] -= pose[k];
}

/** Leads a state into another: softly, turns by the shorter way. */
function mix(now: Float64Array, other: Float64Array, part: number): void {
  const soft = part * part * (3 - 2 * part);
  const [r, from, to] = [STATE.rotation, now.slice(3, 7), other.slice(3, 7)];
  for (let k = 0; k < STATE.numbers; k++) now[k] += soft * (other[k] - now[k]);
  const turn = quat.slerp([0, 0, 0, 1], [...from] as Quat, [...to] as Quat, soft);
  for (let k = 0; k < 4; k++) now[r + k] = turn[k];
}
