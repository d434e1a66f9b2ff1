import type { CompiledPath } from '../geometry/path/compiled-path.js';
import { DEGREES } from '../geometry/math/angle.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { POSE } from '../motion/pose/pose.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { aboutStretch } from './about-stretch.js';
import { framesText, stretchesOver } from './stretches.js';

/** A rider that turns over within a frame where its path does not. */
export function findFlips(look: RiderLook): RawFinding[] {
  const { rider, limits, count, poses, curve } = look;
  if (!look.moves || count < 2) return [];
  const turned = (i: number): number => {
    if (i === 0) return 0;
    const [a, b] = [look.at(i - 1) + POSE.rotation, look.at(i) + POSE.rotation];
    let dot = 0;
    for (let k = 0; k < 4; k++) dot += poses[a + k] * poses[b + k];
    const angle = 2 * Math.acos(Math.min(1, Math.abs(dot))) * DEGREES;
    if (angle <= limits.flip) return angle;
    const path = curve === null ? 0 : pathTurn(curve, look.distance(i - 1), look.distance(i));
    return angle - path > limits.flip ? angle : 0;
  };
  const banks = rider.attachment !== null && rider.attachment.bank.mode !== 'none';
  return stretchesOver(look, count, limits.flip, turned).map(({ worst, frame, ...frames }) => {
    const i = frame - look.first;
    const leans = Math.abs(poses[look.at(i) + POSE.bank] - poses[look.at(i - 1) + POSE.bank]);
    const byBank = banks && leans > limits.flip / 2;
    return found(
      'flip',
      'fault',
      aboutStretch(
        look,
        { ...frames, frame, worst },
        '°',
        byBank ? 'widen-bank' : rider.attachment === null ? null : 'up-by-path',
      ),
      ({ rider: badge }) =>
        byBank
          ? `The bank of ${badge(rider.id)} jumps by ${leans.toFixed(0)}° from frame ${frame - 1} to ${frame}; ${framesText(frames)}.`
          : `${badge(rider.id)} turns over by ${worst.toFixed(0)}° from frame ${frame - 1} to ${frame}, and its path does not; ${framesText(frames)}.`,
    );
  });
}

/** How far a path's direction turns between two places, degrees, a corner between them counted. */
function pathTurn(curve: CompiledPath, from: number, to: number): number {
  curve.tangent(from, before);
  curve.tangent(to, after);
  const dot = before[0] * after[0] + before[1] * after[1] + before[2] * after[2];
  return Math.acos(Math.max(-1, Math.min(1, dot))) * DEGREES;
}

const before: Vec3 = [0, 0, 0];
const after: Vec3 = [0, 0, 0];
