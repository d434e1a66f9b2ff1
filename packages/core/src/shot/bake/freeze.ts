import type { Frozen, FrozenPart, FrozenTrack } from '../../document/shot-frozen.js';
import type { Shot } from '../../document/shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { LOCAL } from '../../character/hierarchy/node-hierarchy.js';
import { POSE } from '../../motion/pose/pose.js';
import { sampleRider } from './sample-shot.js';
import { sampleParts, type SampledParts } from './sampled-parts.js';
import { keysWithin } from './thin-keys.js';
import { frameOfSample, workTime, type WorkTime } from './work-samples.js';

/**
 * The shot with riders frozen: what they do is baked into them and plays instead of the ride, which stays underneath.
 *
 * @param within how near it stays, metres; above 0
 */
export function freeze(shot: Shot, assets: SceneAssets, ids: readonly string[], within: number): Shot {
  const time = workTime(shot, assets);
  const riders = shot.riders.map((rider, i) => {
    if (!ids.includes(rider.id) || rider.frozen !== null) return rider;
    const poses = sampleRider(time.evaluated.poses[i], time.first, time.count, time.step);
    const parts = sampleParts(time.evaluated.parts(rider), time.first, time.count, time.step);
    return { ...rider, frozen: frozenOf(time, poses, parts, within) };
  });
  return { ...shot, riders };
}

/** The shot with riders that ride again as they did. */
export function thaw(shot: Shot, ids: readonly string[]): Shot {
  const riders = shot.riders.map((rider) =>
    ids.includes(rider.id) && rider.frozen !== null ? { ...rider, frozen: null } : rider,
  );
  return { ...shot, riders };
}

function frozenOf(time: WorkTime, poses: Float64Array, parts: SampledParts, within: number): Frozen {
  const ofPose = (at: number, width: number, kind: 'straight' | 'turns') =>
    track(time, poses, POSE.size, at, width, within, kind);
  return {
    within,
    translation: ofPose(POSE.translation, 3, 'straight'),
    rotation: ofPose(POSE.rotation, 4, 'turns'),
    figures: ofPose(POSE.distance, 3, 'straight'),
    parts: parts.nodes.map(({ name, at, weights }): FrozenPart => {
      const ofPart = (from: number, width: number, kind: 'straight' | 'turns') =>
        track(time, parts.values, parts.size, at + from, width, within, kind);
      return {
        node: name,
        translation: ofPart(LOCAL.translation, 3, 'straight'),
        rotation: ofPart(LOCAL.rotation, 4, 'turns'),
        scale: ofPart(LOCAL.scale, 3, 'straight'),
        weights: weights > 0 ? ofPart(LOCAL.size, weights, 'straight') : null,
      };
    }),
  };
}

/** One channel of samples, of which no more is kept than a tolerance needs. */
function track(
  time: WorkTime,
  samples: Float64Array,
  size: number,
  at: number,
  width: number,
  within: number,
  kind: 'straight' | 'turns',
): FrozenTrack {
  const count = samples.length / size;
  const values = new Float64Array(count * width);
  for (let i = 0; i < count; i++)
    for (let k = 0; k < width; k++) values[i * width + k] = samples[i * size + at + k];
  let kept = keysWithin(values, width, within, kind);
  const same = kept.length === 2 && isSame(values, width, kept[0], kept[1]);
  if (same) kept = [kept[0]];
  return {
    frames: kept.map((i) => frameOfSample(time, i)),
    values: kept.flatMap((i) => Array.from(values.subarray(i * width, (i + 1) * width))),
  };
}

function isSame(values: Float64Array, width: number, a: number, b: number): boolean {
  for (let k = 0; k < width; k++) if (values[a * width + k] !== values[b * width + k]) return false;
  return true;
}
