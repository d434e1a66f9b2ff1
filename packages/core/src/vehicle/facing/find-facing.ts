import type { Axis } from '../../document/shot-facing.js';
import type { Chassis } from '../../document/shot-rider.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { cluesOf, middleOf, pairsOf, type Clue } from './facing-clues.js';
import { says } from './part-words.js';
import {
  boxOfAll,
  isRoundAbout,
  positionsUpTo,
  roundPart,
  type ModelPart,
  type RoundPart,
} from './round-part.js';

/** Facing of a model, its confidence (0 to 1), and the clues for it. */
export interface FoundFacing {
  readonly forward: Axis;
  readonly up: Axis;
  readonly confidence: number;
  readonly because: string;
  /** Its axles and ends along its nose; null without two axles. */
  readonly chassis: Chassis | null;
}

const WHEEL = /wheel|tyre|tire\b/i;
const NO_WHEEL = /rotor|propeller|fan|blade|steering/i;
const COUPLING = /hitch|coupl|drawbar|tow/i;

/** How much longer the longer side has to be to be taken for the length. */
const LONGER = 1.15;
/** Below this it is a guess. */
const A_GUESS = 0.45;
const LOOK = 'front or back: look';

/**
 * Facing of a model. Its up and its length follow from wheels (flat round parts: their common axle gives left, their
 * ground side gives down), from the direction of toes, from the longer of its level sides or from parts on either
 * side; the nose from all clues together, each by its weight (see {@link cluesOf}). Without clues the result says so.
 * Positions are of the rest pose, so rotated or unevenly scaled roots count as they look.
 */
export function findFacing(parts: readonly ModelPart[]): FoundFacing {
  const wheels = findWheels(parts);
  if (wheels !== null) {
    const along = 3 - wheels.axle - wheels.up.axis;
    const nose = noseAlong(parts, along, wheels.up);
    const because = `${wheels.round.length} wheels on common axles, ${nose?.because ?? LOOK}`;
    return {
      forward: axisName(along, nose?.sign ?? 1),
      up: axisName(wheels.up.axis, wheels.up.sign),
      confidence: nose === null ? A_GUESS : 0.75 + 0.2 * nose.agreed,
      because,
      chassis: chassisOf(parts, wheels.round, along, nose?.sign ?? 1),
    };
  }
  const up: Way = { axis: 1, sign: 1 };
  const box = boxOfAll(parts);
  const size = box === null ? [0, 0, 0] : box.high.map((value, k) => value - box.low[k]);
  const found = (along: number, sureness: number, because: string): FoundFacing => {
    const nose = noseAlong(parts, along, up);
    return {
      forward: axisName(along, nose?.sign ?? 1),
      up: '+y',
      confidence: nose === null ? Math.min(A_GUESS, sureness) : sureness * (0.6 + 0.4 * nose.agreed),
      because: `${because}, ${nose?.because ?? LOOK}`,
      chassis: null,
    };
  };
  const clues = cluesOf(parts, UP, Math.hypot(...size));
  const ahead = sumOf(clues);
  const level = Math.abs(ahead[0]) > Math.abs(ahead[2]) ? 0 : 2;
  const toes = clues.find(({ because }) => because.includes('toes'));
  if (toes) return found(level, 0.95, 'a figure that stands');
  const rolls = [0, 2].filter((axis) => isRoundAbout(positionsUpTo(parts, MOST_PLACES), axis, false));
  if (rolls.length === 1 && box !== null)
    return found(2 - rolls[0], 0.6, 'round about its level axis, so it rolls');
  const sides = sideways(parts);
  // Wings and arms stick out sideways: a side that left and right parts lie along is no length.
  if (sides !== null && sides !== 1) return found(2 - sides, 0.85, 'what stands on either side of it');
  const longer = size[0] > LONGER * size[2] ? 0 : size[2] > LONGER * size[0] ? 2 : null;
  const winged = parts.some(({ names }) => says(names[0], 'wing', 'wings'));
  if (longer !== null) {
    if (winged) return found(2 - longer, 0.75, 'wings that span wider than it is long');
    return found(longer, 0.8, 'the longer of its level sides');
  }
  if (Math.abs(ahead[level]) > 0) return found(level, 0.7, 'about as wide as long');
  return {
    forward: '+z',
    up: '+y',
    confidence: 0.2,
    because: `nothing in the model; this is the front that glTF has, ${LOOK}`,
    chassis: null,
  };
}

const UP: Vec3 = [0, 1, 0];

const sumOf = (clues: readonly Clue[]): Vec3 =>
  clues.reduce<Vec3>((all, { way }) => [all[0] + way[0], all[1] + way[1], all[2] + way[2]], [0, 0, 0]);

/** No barrel has more places than this. */
const MOST_PLACES = 100_000;

interface Way {
  readonly axis: number;
  readonly sign: 1 | -1;
}

function axisName(axis: number, sign: 1 | -1): Axis {
  return `${sign > 0 ? '+' : '-'}${'xyz'[axis]}` as Axis;
}

/** Wheels, the axis of their axles, and up from their ground side. */
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
  // If some parts are named as wheels, other round parts are none.
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

/** End of an axis with the nose by all clues, their agreement (0 to 1), and the heaviest of them; null without clues. */
function noseAlong(
  parts: readonly ModelPart[],
  along: number,
  up: Way,
): { sign: 1 | -1; agreed: number; because: string } | null {
  const box = boxOfAll(parts);
  const length = box ? box.high[along] - box.low[along] : 0;
  const upright: Vec3 = [0, 0, 0];
  upright[up.axis] = up.sign;
  const clues = cluesOf(parts, upright, length);
  const [sum, all] = clues.reduce(([s, a], { way }) => [s + way[along], a + Math.abs(way[along])], [0, 0]);
  if (Math.abs(sum) < 0.2 || all === 0) return null;
  const sign = sum > 0 ? 1 : -1;
  const heaviest = clues.reduce((best, clue) =>
    sign * clue.way[along] > sign * best.way[along] ? clue : best,
  );
  return { sign, agreed: Math.abs(sum) / all, because: heaviest.because };
}

/** The level axis that parts named left and right lie along; null where there are none. */
function sideways(parts: readonly ModelPart[]): number | null {
  const { way } = pairsOf(parts);
  if (way === null) return null;
  const sizes = way.map(Math.abs);
  const axis = sizes.indexOf(Math.max(...sizes));
  return sizes[axis] > 1e-6 ? axis : null;
}

/** Axles and couplings along the nose: parts named so, or else its ends. */
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
    .flatMap((part) => {
      const middle = middleOf(part);
      return middle ? [sign * middle[along]] : [];
    });
  const middle = (front + rear) / 2;
  const round = (value: number) => Math.round(value * 1e4) / 1e4 + 0;
  return {
    frontAxle: round(front),
    rearAxle: round(rear),
    frontCoupling: round(couplings.find((place) => place > middle) ?? Math.max(...ends)),
    rearCoupling: round(couplings.find((place) => place < middle) ?? Math.min(...ends)),
  };
}
