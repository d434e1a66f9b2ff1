import { vec3 } from 'gl-matrix';
import type { Ball, Steering, Wheel } from '../../document/shot-rider.js';
import { AXES, type Axis } from '../../document/shot-facing.js';
import {
  boxOf,
  boxOfAll,
  isRoundAbout,
  joined,
  positionsUpTo,
  type Box,
  type ModelPart,
} from '../facing/round-part.js';
import type { FoundFacing } from '../facing/find-facing.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axisAlong, axisVector } from '../../motion/pose/axes.js';

/** A node of a model and its mesh. */
export interface RigPart extends ModelPart {
  /** Which part it hangs on; −1 for none. A part is followed by all that hangs on it. */
  readonly parent: number;
  /** Position and rotation of its origin, in the model's rest pose. */
  readonly origin: Vec3;
  readonly turn: Quat;
}

/** Wheels, steering and body of a model. */
export interface FoundRig {
  readonly wheels: readonly Wheel[];
  readonly steering: Pick<Steering, 'node' | 'axis'>;
  readonly body: string | null;
  readonly ball: Ball | null;
}

const WHEEL = /wheel|tyre|tire(?![a-z])|axle|roller/i;
const NO_WHEEL = /rotor|propeller|fan|blade|steering|spare|arch|well/i;
const STEERING = /steering|handle ?_?bar/i;
const BODY = /body|cab(in)?(?![a-z])|chassis|hull|shell|carriage|frame|bed(?![a-z])/i;
const COUPLING = /hitch|coupl|drawbar|tow/i;
/** A wheel on the ground is this near to it, as a part of its radius. */
const STANDS = 0.2;
/** A ball's places are all as far from its middle, give or take this part; it is as wide as high as long within the other. */
const ROUND = 0.04;
const EVEN = 0.02;

/**
 * Wheels of a model by shape (round about the axle, on the ground) and by name, at any level of its hierarchy; which
 * of them steer; its steering wheel, and the body that leans. Positions are of the rest pose, so scales and rotations
 * of nodes are included.
 */
export function findRig(parts: readonly RigPart[], facing: Pick<FoundFacing, 'forward' | 'up'>): FoundRig {
  const up = axisVector(facing.up);
  const ahead = axisVector(facing.forward);
  const left = vec3.cross([0, 0, 0], up, ahead) as Vec3;
  const branches = branchesOf(parts);
  const ball = findBall(parts);
  if (ball) return { wheels: [], steering: { node: null, axis: '+z' }, body: null, ball };
  const all = boxOfAll(parts);
  const ground = all === null ? Infinity : extentOf(all, up)[0];
  const taken = new Set<number>();
  const found: FoundWheel[] = [];
  parts.forEach((part, i) => {
    if (taken.has(part.parent) || parts[part.parent]?.names.some((name) => STEERING.test(name))) {
      taken.add(i);
      return;
    }
    const wheel = wheelOf(part, branches[i], { up, left, ground });
    if (wheel === null) return;
    const named = part.names.slice(0, 2).some((name) => WHEEL.test(name));
    const isAll = branches[i].box !== null && sameBox(branches[i].box, all);
    // A tank or a trunk is round as well; only what is all of a model, as a barrel, may roll on its length.
    if (!named && !(isAll ? isEven : isThin)(branches[i].box, left)) return;
    taken.add(i);
    const place = vec3.dot(wheel.centre, ahead);
    found.push({ wheel: { ...wheel, axle: axisAlong(left) }, ahead: place, sure: named || isAll });
  });
  const size = all === null ? 0 : Math.max(...all.high.map((value, k) => value - all.low[k]));
  const real = found.filter((one) => one.sure || hasPartner(one, found, size));
  const rolling = new Set<number>();
  const nodes = new Set(real.map(({ wheel }) => wheel.node));
  parts.forEach(({ names, parent }, i) => {
    if (nodes.has(names[0]) || rolling.has(parent)) rolling.add(i);
  });
  const wheels = withSteering(parts, real, ahead);
  return {
    wheels,
    steering: steeringOf(parts, branches, up, ahead),
    body: wheels.length === 0 ? null : bodyOf(parts, branches, rolling),
    ball: null,
  };
}

interface FoundWheel {
  readonly wheel: Wheel;
  /** How far ahead it is. */
  readonly ahead: number;
  /** Told by its name, or by being all there is. */
  readonly sure: boolean;
}

/** Without names a wheel is a part that has another of its size, and that is no knob. */
function hasPartner({ wheel }: FoundWheel, all: readonly FoundWheel[], size: number): boolean {
  if (wheel.radius < SMALLEST * size) return false;
  return all.some(({ wheel: other }) => other !== wheel && Math.abs(other.radius / wheel.radius - 1) < LIKE);
}

/** Radii of wheels that are partners, give or take this part; and a wheel's, as a part of the model's longest side. */
const LIKE = 0.3;
const SMALLEST = 0.03;
/** Along its axle a wheel is no longer than this part of how wide it is. */
const THIN = 0.8;

function isThin(box: Box | null, left: Vec3): boolean {
  if (box === null) return false;
  const [along, ...across] = sizesAbout(box, left);
  return along <= THIN * Math.max(...across);
}

/** Across its axle a barrel is as high as long, give or take what few sides make of it: an egg is not. */
const AS_HIGH = 0.9;

function isEven(box: Box | null, left: Vec3): boolean {
  if (box === null) return false;
  const [, ...across] = sizesAbout(box, left);
  return Math.min(...across) >= AS_HIGH * Math.max(...across);
}

/** How large a box is along an axle to the left, and across it. */
function sizesAbout({ low, high }: Box, left: Vec3): number[] {
  const axis = left.findIndex((value) => Math.abs(value) > 0.5);
  return [axis, (axis + 1) % 3, (axis + 2) % 3].map((k) => high[k] - low[k]);
}

function sameBox(a: Box, b: Box | null): boolean {
  return b !== null && a.low.every((v, k) => v === b.low[k]) && a.high.every((v, k) => v === b.high[k]);
}

/** No wheel has more places than this: what is larger is not looked through. */
const MOST_PLACES = 100_000;

/** A part with all that hangs on it. */
interface Branch {
  readonly parts: readonly RigPart[];
  readonly box: Box | null;
  /** All its places; none where they are too many for a wheel. */
  whole(): Float64Array;
}

function branchesOf(parts: readonly RigPart[]): Branch[] {
  const ends = parts.map((_, i) => i + 1);
  const boxes = parts.map(({ positions }) => boxOf(positions));
  for (let i = parts.length - 1; i >= 0; i--) {
    const { parent } = parts[i];
    if (parent < 0) continue;
    ends[parent] = Math.max(ends[parent], ends[i]);
    boxes[parent] = joined(boxes[parent], boxes[i]);
  }
  return parts.map((_, i) => {
    let whole: Float64Array | null = null;
    const own = () => parts.slice(i, ends[i]);
    return {
      get parts() {
        return own();
      },
      box: boxes[i],
      whole: () => (whole ??= positionsUpTo(own(), MOST_PLACES)),
    };
  });
}

function wheelOf(
  part: RigPart,
  { box, whole: placesOf }: Branch,
  { up, left, ground }: { up: Vec3; left: Vec3; ground: number },
): Wheel | null {
  if (box === null || part.names.some((name) => NO_WHEEL.test(name))) return null;
  const named = part.names.slice(0, 2).some((name) => WHEEL.test(name));
  const axis = left.findIndex((value) => Math.abs(value) > 0.5);
  const centre = box.high.map((value, k) => (value + box.low[k]) / 2) as Vec3;
  // Boxes rule out nearly all parts; meshes are examined last.
  const [low, high] = extentOf(box, up);
  const radius = (high - low) / 2;
  if (Math.abs(low - ground) > STANDS * radius) return null;
  const whole = placesOf();
  if (whole.length < 24 || !rollsAbout(whole, axis, named)) return null;
  // A wheel's own origin is mostly its true middle, while the box of an uneven polygon is a little off.
  const off = [0, 1, 2].map((k) => (k === axis ? 0 : part.origin[k] - centre[k]));
  const middle = Math.hypot(...off) < 0.15 * radius ? centre.map((v, k) => v + off[k]) : centre;
  const furthest = furthestFrom(whole, middle as Vec3, axis);
  return {
    node: part.names[0],
    centre: middle.map(tidy) as Vec3,
    // Of an even polygon the corners touch the ground; of one that is squashed its height counts.
    radius: tidy(Math.abs(furthest / radius - 1) < 0.06 ? furthest : radius),
    axle: '+x',
    steers: false,
    drives: true,
  };
}

/**
 * Whether places are round about an axle; also where they are long along it, as an axle with both its wheels is. What is long
 * and has no wheel's name may be a tank or a trunk; a barrel is at most so long.
 */
function rollsAbout(places: Float64Array, axis: number, named: boolean): boolean {
  const box = boxOf(places);
  if (box === null) return false;
  const size = box.high.map((value, k) => value - box.low[k]);
  const across = Math.max(size[(axis + 1) % 3], size[(axis + 2) % 3]);
  return (named || size[axis] < 3 * across) && isRoundAbout(places, axis, named);
}

function furthestFrom(places: Float64Array, middle: Vec3, axis: number): number {
  let most = 0;
  for (let i = 0; i < places.length; i += 3) {
    let square = 0;
    for (let k = 0; k < 3; k++) if (k !== axis) square += (places[i + k] - middle[k]) ** 2;
    most = Math.max(most, square);
  }
  return Math.sqrt(most);
}

/** From where to where a box reaches along one of its axes. */
function extentOf({ low, high }: Box, way: Vec3): [number, number] {
  const ends = [vec3.dot(low, way), vec3.dot(high, way)];
  return [Math.min(...ends), Math.max(...ends)];
}

function extent(places: ArrayLike<number>, way: Vec3): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < places.length; i += 3) {
    const at = places[i] * way[0] + places[i + 1] * way[1] + places[i + 2] * way[2];
    low = Math.min(low, at);
    high = Math.max(high, at);
  }
  return [low, high];
}

/** Front wheels steer where there is a rear axle, and nothing pulls the model at its front. */
function withSteering(
  parts: readonly RigPart[],
  found: readonly { wheel: Wheel; ahead: number }[],
  ahead: Vec3,
): Wheel[] {
  const places = found.map((one) => one.ahead);
  const front = Math.max(...places);
  const pulled = parts.some(
    ({ names, origin }) => COUPLING.test(names[0]) && vec3.dot(origin, ahead) > front,
  );
  const foremost = onFrontAxle(places);
  return found.map(({ wheel }, i) => {
    const steers = foremost[i] && !pulled;
    return { ...wheel, steers, drives: !steers };
  });
}

/** Positions on the foremost axle among several; none if all share one. */
export function onFrontAxle(places: readonly number[]): boolean[] {
  const [front, rear] = [Math.max(...places), Math.min(...places)];
  const near = 0.15 * (front - rear);
  return places.map((place) => front - rear > 1e-3 && place > front - near);
}

function steeringOf(
  parts: readonly RigPart[],
  branches: readonly Branch[],
  up: Vec3,
  ahead: Vec3,
): FoundRig['steering'] {
  const i = parts.findIndex(({ names }) => STEERING.test(names[0]));
  if (i < 0) return { node: null, axis: '+z' };
  // It is thin along the axis it turns about, which points to the driver: up and back.
  const driver = vec3.subtract([0, 0, 0], up, ahead);
  const ways = AXES.map((axis): [Axis, Vec3] => [
    axis,
    vec3.transformQuat([0, 0, 0], axisVector(axis), parts[i].turn) as Vec3,
  ]).filter(([, way]) => vec3.dot(way, driver) > 0);
  const thin = ([, way]: [Axis, Vec3]) => {
    const [low, high] = extent(branches[i].whole(), way);
    return high - low;
  };
  const [axis] = ways.reduce((best, way) => (thin(way) < thin(best) ? way : best), ways[0]);
  return { node: parts[i].names[0], axis };
}

/** The part named as a body, the highest up; else the largest that is no wheel. */
function bodyOf(
  parts: readonly RigPart[],
  branches: readonly Branch[],
  wheels: ReadonlySet<number>,
): string | null {
  const size = (places: ArrayLike<number>) => {
    const box = boxOf(places);
    return box === null ? 0 : box.high.reduce((all, value, k) => all * (value - box.low[k]), 1);
  };
  const named = parts.findIndex(
    ({ names }, i) =>
      !wheels.has(i) && BODY.test(names[0]) && !WHEEL.test(names[0]) && branches[i].box !== null,
  );
  if (named >= 0) return parts[named].names[0];
  let best = -1;
  parts.forEach(({ positions }, i) => {
    if (!wheels.has(i) && size(positions) > (best < 0 ? 0 : size(parts[best].positions))) best = i;
  });
  return best < 0 ? null : parts[best].names[0];
}

/** A model that is one ball. */
function findBall(parts: readonly RigPart[]): Ball | null {
  const tops = parts.filter(({ parent }) => parent < 0);
  const box = boxOfAll(parts);
  if (tops.length !== 1 || box === null) return null;
  const centre = box.high.map((value, k) => (value + box.low[k]) / 2) as Vec3;
  const sizes = box.high.map((value, k) => value - box.low[k]);
  if (Math.min(...sizes) < (1 - EVEN) * Math.max(...sizes)) return null;
  const all = positionsUpTo(parts, MOST_PLACES);
  if (all.length < 60) return null;
  let [least, most] = [Infinity, 0];
  for (let i = 0; i < all.length; i += 3) {
    const far = Math.hypot(all[i] - centre[0], all[i + 1] - centre[1], all[i + 2] - centre[2]);
    least = Math.min(least, far);
    most = Math.max(most, far);
  }
  if (most <= 0 || least < (1 - 2 * ROUND) * most) return null;
  // The corners of a cube are as far from its middle as each other too.
  if (![0, 1, 2].every((axis) => isRoundAbout(all, axis, false))) return null;
  return { node: tops[0].names[0], centre: centre.map(tidy) as Vec3, radius: tidy(most) };
}

const tidy = (value: number) => Math.round(value * 1e5) / 1e5 + 0;
