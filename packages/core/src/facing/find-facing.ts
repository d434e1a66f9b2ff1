import type { Axis } from '../document/shot-facing.js';
import type { Chassis } from '../document/shot-rider.js';
import type { Vec3 } from '../math/vec.js';
import {
  boxOf,
  boxOfAll,
  isRoundAbout,
  positionsUpTo,
  roundPart,
  type ModelPart,
  type RoundPart,
} from './round-part.js';

/** Which way a model faces, how sure that is (0 to 1), and what it was told from. */
export interface FoundFacing {
  readonly forward: Axis;
  readonly up: Axis;
  readonly confidence: number;
  readonly because: string;
  /** Where its axles and ends are along its nose; null where it has no two axles. */
  readonly chassis: Chassis | null;
}

const WHEEL = /wheel|tyre|tire\b/i;
const NO_WHEEL = /rotor|propeller|fan|blade|steering/i;
const FRONT = /front|fore\b|nose|beak|eyes?(?![a-z])|lens|face|head(?!rest)|headlight|windscreen|windshield/i;
const REAR = /rear|back(?!pack)|tail|exhaust/i;
const COUPLING = /hitch|coupl|drawbar|tow/i;
const LEFT = /(^|[^a-z])(left|l)([^a-z]|$)|left$/i;
const RIGHT = /(^|[^a-z])(right|r)([^a-z]|$)|right$/i;

/** How much longer the longer side has to be to be taken for the length. */
const LONGER = 1.15;

/**
 * The facing of a model, by the first of these that tells: wheels (flat round parts: their common axle gives
 * left, the side they stand on gives down); the longer of its level sides; parts named for the front, or left and
 * right; else glTF's own front, +Z. Names of parts tell which of the two ends is the nose.
 *
 * Places are of the model as it stands, so a turned or unevenly scaled root is met as it looks.
 */
export function findFacing(parts: readonly ModelPart[]): FoundFacing {
  const wheels = findWheels(parts);
  if (wheels !== null) {
    const along = 3 - wheels.axle - wheels.up.axis;
    const sign = noseSign(parts, along, wheels.up);
    const forward = axisName(along, sign ?? 1);
    return {
      forward,
      up: axisName(wheels.up.axis, wheels.up.sign),
      confidence: sign === null ? 0.7 : 0.95,
      because: `${wheels.round.length} wheels on common axles${sign === null ? '' : ', and parts named for an end or a side'}`,
      chassis: chassisOf(parts, wheels.round, along, sign ?? 1),
    };
  }
  const up: Way = { axis: 1, sign: 1 };
  const box = boxOfAll(parts);
  const size = box === null ? [0, 0, 0] : box.high.map((value, k) => value - box.low[k]);
  const found = (along: number, sign: 1 | -1 | null, confidence: number, because: string): FoundFacing => ({
    forward: axisName(along, sign ?? 1),
    up: '+y',
    confidence,
    because,
    chassis: null,
  });
  const pairs = sideways(parts);
  const rolls = [0, 2].filter((axis) => isRoundAbout(positionsUpTo(parts, MOST_PLACES), axis, false));
  if (rolls.length === 1 && box !== null) {
    const along = 2 - rolls[0];
    return found(along, noseSign(parts, along, up), 0.6, 'round about its level axis, so it rolls');
  }
  const longer = size[0] > LONGER * size[2] ? 0 : size[2] > LONGER * size[0] ? 2 : null;
  // Wings and arms stick out sideways: a side that left and right parts lie along is no length.
  if (longer !== null && pairs?.axis !== longer) {
    const sign = noseSign(parts, longer, up);
    return found(longer, sign, sign === null ? 0.45 : 0.75, 'the longer of its level sides');
  }
  if (pairs !== null && pairs.axis !== 1) {
    const along = 2 - pairs.axis;
    return found(along, noseSign(parts, along, up), 0.75, 'parts named left and right');
  }
  const ahead = lean(parts, FRONT, REAR);
  const level = ahead && Math.abs(ahead[0]) > Math.abs(ahead[2]) ? 0 : 2;
  if (ahead && Math.abs(ahead[level]) > 0.05 * Math.max(size[0], size[2])) {
    return found(level, ahead[level] > 0 ? 1 : -1, 0.65, 'parts named for its front');
  }
  return found(2, 1, 0.2, 'nothing in the model; this is the front that glTF has');
}

/** No barrel has more places than this. */
const MOST_PLACES = 100_000;

interface Way {
  readonly axis: number;
  readonly sign: 1 | -1;
}

function axisName(axis: number, sign: 1 | -1): Axis {
  return `${sign > 0 ? '+' : '-'}${'xyz'[axis]}` as Axis;
}

/** Wheels, the axis of their axles, and which way is up from what they stand on. */
function findWheels(parts: readonly ModelPart[]): { round: RoundPart[]; axle: number; up: Way } | null {
  const all = boxOfAll(parts);
  if (all === null) return null;
  const round = parts
    .filter(({ names }) => !names.some((name) => NO_WHEEL.test(name)))
    .flatMap((part) => {
      const named = part.names.some((name) => WHEEL.test(name));
      const found = roundPart(part, named);
      return found ? [{ ...found, named }] : [];
    });
  // Where wheels are named as such, other round parts are none.
  const candidates =
    round.filter(({ named }) => named).length > 1 ? round.filter(({ named }) => named) : round;
  let best: { round: RoundPart[]; axle: number; up: Way } | null = null;
  for (const axle of [0, 2, 1]) {
    const group = candidates.filter(({ axis }) => axis === axle);
    for (const up of UPS.filter(({ axis }) => axis !== axle)) {
      const ground = up.sign > 0 ? all.low[up.axis] : -all.high[up.axis];
      const standing = group.filter(
        ({ centre, half }) =>
          Math.abs(up.sign * centre[up.axis] - half[up.axis] - ground) < 0.2 * half[up.axis],
      );
      // Discs of which most hang in the air, such as rotors, are no wheels.
      if (standing.length < 2 || standing.length < 0.75 * group.length) continue;
      if (standing.length > (best?.round.length ?? 0)) best = { round: standing, axle, up };
    }
  }
  return best;
}

/** Ways up might be, the likeliest first. */
const UPS: readonly Way[] = [1, 2, 0].flatMap((axis): Way[] => [
  { axis, sign: 1 },
  { axis, sign: -1 },
]);

/** Which end of an axis the nose is at, by the names of parts; null where they do not tell. */
function noseSign(parts: readonly ModelPart[], along: number, up: Way): 1 | -1 | null {
  const ahead = lean(parts, FRONT, REAR);
  const box = boxOfAll(parts);
  const length = box ? box.high[along] - box.low[along] : 0;
  if (ahead && Math.abs(ahead[along]) > 0.02 * length) return ahead[along] > 0 ? 1 : -1;
  const left = sideways(parts);
  if (left === null || left.axis === along || left.axis === up.axis) return null;
  // Forward is left × up.
  const handed = (left.axis + 1) % 3 === up.axis ? 1 : -1;
  return (handed * left.sign * up.sign) as 1 | -1;
}

/** Which way is left, by parts that are named left and right. */
function sideways(parts: readonly ModelPart[]): Way | null {
  const gap = lean(parts, LEFT, RIGHT, true);
  if (gap === null) return null;
  const sizes = gap.map(Math.abs);
  const axis = sizes.indexOf(Math.max(...sizes));
  return sizes[axis] > 1e-6 ? { axis, sign: gap[axis] > 0 ? 1 : -1 } : null;
}

/**
 * From the middle of the parts with one kind of name to that of those with the other; where none have the
 * other, from the middle of all.
 */
function lean(parts: readonly ModelPart[], to: RegExp, from: RegExp, both = false): Vec3 | null {
  const middleOf = (name: RegExp | null, not: RegExp | null): Vec3 | null => {
    // A mesh often has a name of no meaning, below a node that has one.
    const named = (by: RegExp, names: readonly string[]) => names.slice(0, 2).some((own) => by.test(own));
    const chosen = parts.filter(
      ({ names }) => (name === null || named(name, names)) && (not === null || !named(not, names)),
    );
    const boxes = chosen.flatMap(({ positions }) => boxOf(positions) ?? []);
    if (boxes.length === 0) return null;
    const sum = [0, 1, 2].map((k) => boxes.reduce((all, { low, high }) => all + (low[k] + high[k]) / 2, 0));
    return sum.map((value) => value / boxes.length) as Vec3;
  };
  const end = middleOf(to, from);
  const other = middleOf(from, to);
  if (both && (end === null || other === null)) return null;
  if (end === null && other === null) return null;
  const all = middleOf(null, null) as Vec3;
  return (end ?? all).map((value, k) => value - (other ?? all)[k]) as Vec3;
}

/** Where the axles are along the nose, and the couplings: parts named so, or else its ends. */
function chassisOf(
  parts: readonly ModelPart[],
  wheels: readonly RoundPart[],
  along: number,
  sign: 1 | -1,
): Chassis | null {
  const axles = wheels.map(({ centre }) => sign * centre[along]);
  const box = boxOfAll(parts);
  const [front, rear] = [Math.max(...axles), Math.min(...axles)];
  if (box === null || front - rear < 1e-3) return null;
  const ends = [sign * box.low[along], sign * box.high[along]];
  const couplings = parts
    .filter(({ names }) => COUPLING.test(names[0]))
    .flatMap(({ positions }) => boxOf(positions) ?? [])
    .map(({ low, high }) => (sign * (low[along] + high[along])) / 2);
  const middle = (front + rear) / 2;
  const round = (value: number) => Math.round(value * 1e4) / 1e4 + 0;
  return {
    frontAxle: round(front),
    rearAxle: round(rear),
    frontCoupling: round(couplings.find((place) => place > middle) ?? Math.max(...ends)),
    rearCoupling: round(couplings.find((place) => place < middle) ?? Math.min(...ends)),
  };
}
