import type { Rider } from '../../document/shot-rider.js';
import type { Chassis } from '../../document/shot-rider.js';
import { modulo } from '../../geometry/math/angle.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import type { ChassisMotion } from '../../motion/ride/chassis-motion.js';
import type { Coupling } from '../../motion/ride/ground-fit.js';
import type { PathMotion } from '../../motion/ride/path-motion.js';
import type { Pin } from '../../motion/ride/trail.js';

/** A rider that tows, as it moves. */
export interface Tower {
  readonly rider: Rider;
  readonly motion: PathMotion;
  readonly chassis: Chassis;
}

/** The leader's distance along the path when what it tows is at s: its tail is then a gap ahead. By Newton's steps. */
function leaderDistance({ motion }: Tower, gap: number, s: number): number {
  const { rear } = motion.placement;
  if (rear !== null) return s + gap - rear;
  let at = s;
  for (let step = 0; step < 4; step++) {
    const { distance, rate } = motion.placement.tail(at);
    const missing = s + gap - distance;
    if (missing === 0) break;
    at += missing / (rate || 1);
  }
  return at;
}

/** Pin of a towed rider in plan, by its own distance along the path. */
export function towingPin(tower: Tower, asked: number): Pin {
  const { motion, chassis } = tower;
  const gap = motion.travelSign * asked;
  const frame = new Float64Array(12);
  return (s, out) => {
    motion.placement.frame(leaderDistance(tower, gap, s), frame);
    for (let k = 0; k < 3; k++) out[k] = frame[k] + motion.travelSign * chassis.rearCoupling * frame[9 + k];
  };
}

/** Distances of a towed rider at which its leader passes a joint of its own track. */
export function towedJoints({ motion }: Tower, asked: number): number[] {
  const { closed, length } = motion.path;
  return motion.joints.map((joint) => {
    const s = motion.placement.tail(joint).distance - motion.travelSign * asked;
    return closed ? modulo(s, length) : s;
  });
}

/**
 * The leader's coupling in the world, on its ground: the towed unit hangs there.
 *
 * @param own how the towed rider moves, whose distance or frame is asked for
 */
export function towingCoupling(
  tower: Tower,
  leads: ChassisMotion,
  asked: number,
  own: Pick<PathMotion, 'byDistance'>,
  ahead: number,
): Coupling {
  const { motion, chassis } = tower;
  const gap = motion.travelSign * asked;
  const frame = new Float64Array(12);
  const progress = own.byDistance
    ? (s: number) => leaderDistance(tower, gap, s)
    : (at: number) => leads.progress(at);
  return {
    ahead,
    at(at, out: Vec3) {
      leads.track.at(progress(at), frame);
      for (let k = 0; k < 3; k++) out[k] = frame[k] + chassis.rearCoupling * frame[9 + k];
    },
  };
}
