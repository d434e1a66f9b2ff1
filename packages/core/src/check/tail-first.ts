import type { Vec3 } from '../geometry/math/vec.js';
import { axisVector } from '../motion/pose/axes.js';
import { POSE } from '../motion/pose/pose.js';
import { pointOn } from '../motion/pose/point-on.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { aboutStretch } from './about-stretch.js';
import { framesText, stretchesOver } from './stretches.js';

/** Slower than this nothing moves, m/s. */
const MOVING = 0.05;
/** Its nose points away from its travel by more than two thirds of a half turn. */
const AWAY = -0.5;
const FACING_ITS_WAY = new Set(['creature', 'character', 'vehicle']);

/** A rider that faces its travel and moves tail first. */
export function findTailFirst(look: RiderLook): RawFinding[] {
  const { rider, limits, fps, count, poses } = look;
  const { attachment, kind } = rider;
  if (!FACING_ITS_WAY.has(kind) || look.curve === null || attachment === null) return [];
  if (attachment.facing.mode !== 'path' || attachment.facing.influence.length > 0 || attachment.coupledTo)
    return [];
  const least = kind === 'vehicle' ? limits.backing : MOVING;
  const nose = axisVector(attachment.facing.forward);
  const tip: Vec3 = [0, 0, 0];
  /** The speed at which it goes tail first over the frame that begins here; 0 where it does not. */
  const stepAt = (i: number) => [0, 1, 2].map((k) => poses[look.at(i + 1) + k] - poses[look.at(i) + k]);
  const moves = (i: number) => Math.hypot(...stepAt(i)) * fps >= MOVING;
  const backward = (i: number, slowest: number): number => {
    if (i + 1 >= count) return 0;
    const now = look.at(i);
    const step = stepAt(i);
    const far = Math.hypot(...step);
    if (far * fps < slowest || far === 0) return 0;
    pointOn(poses.subarray(now, now + POSE.size), nose, tip);
    const along = [0, 1, 2].reduce((sum, k) => sum + (tip[k] - poses[now + k]) * step[k], 0) / far;
    return along < AWAY ? far * fps : 0;
  };
  const isLong = ({ from, to }: { from: number; to: number }) => (to - from + 1) / fps > limits.tailFirst;
  const fast = stretchesOver(look, count, 0, (i) => backward(i, least)).filter(isLong);
  // A vehicle may back slowly; one that never does anything else was turned round, as where the ends of its ride were swapped.
  const slow =
    fast.length > 0 ? [] : stretchesOver(look, count, 0, (i) => backward(i, MOVING)).filter(isLong);
  const ahead = (i: number) => i + 1 < count && moves(i) && backward(i, MOVING) === 0;
  const always = slow.length > 0 && !Array.from({ length: count }, (_, i) => i).some(ahead);
  return [...fast, ...(always ? slow : [])].map(({ worst, frame, ...frames }) =>
    found(
      'tail-first',
      always ? 'note' : 'warning',
      aboutStretch(
        look,
        { ...frames, frame, worst },
        'm/s',
        frames.to - frames.from + 2 >= count ? 'turn-round' : 'face-travel',
      ),
      ({ rider: badge }) =>
        `${badge(rider.id)} moves tail first, at up to ${worst.toFixed(1)} m/s, ${framesText(frames)}.`,
    ),
  );
}
