import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { PathError } from '../../geometry/path/path-error.js';

/** Laps are whole within this, and a speed is the same all the way within so much of it. */
const WHOLE = 1e-6;
const EVEN = 1e-6;

/** Speeds that followers may have in a loop: the leader's laps, or the reason why there are none. */
export type SeamRate = { readonly laps: number } | { readonly why: string };

/**
 * Speeds that followers may have so that they close at the seam: each has to make whole laps at constant speed, else
 * it would reach the seam in another part of the leader's ride. Null without a loop.
 */
export function seamRateOf(shot: Shot, assets: SceneAssets, leader: Rider): SeamRate | null {
  if (!shot.loop) return null;
  const evaluated = evaluateShot(shot, assets);
  const motion = evaluated.motion(leader);
  const path = evaluated.paths.get(leader.attachment?.path ?? '');
  if (motion === null || path === undefined || path instanceof PathError) return { why: 'it rides no path' };
  if (!path.closed) return { why: 'its path is open' };
  const { first, last } = shot.range;
  const laps = (motion.distance(last + 1) - motion.distance(first)) / path.length;
  if (Math.abs(laps - Math.round(laps)) > WHOLE || Math.round(laps) === 0)
    return { why: `it makes ${Number(laps.toFixed(2))} laps itself` };
  const mean = (laps * path.length * shot.fps) / (last - first + 1);
  for (let frame = first; frame <= last; frame++)
    if (Math.abs(motion.speed(frame) - mean) > EVEN * Math.abs(mean))
      return { why: 'its speed changes on the way' };
  if (Math.abs(Math.round(laps)) === 1)
    return { why: 'it makes one lap: another rate would be two, or none' };
  return { laps: Math.abs(Math.round(laps)) };
}

/** Closing rate nearest to a wanted one: whole laps; 1 if only that closes; any without a loop. */
export function seamRates(shot: Shot, assets: SceneAssets, leader: Rider): (rate: number) => number {
  const of = seamRateOf(shot, assets, leader);
  if (of === null) return (rate) => rate;
  if ('why' in of) return () => 1;
  return (rate) => Math.max(1, Math.round(rate * of.laps)) / of.laps;
}
