import { POSE } from '../motion/pose/pose.js';
import type { TurnedBox } from '../geometry/solid/turned-box.js';
import type { Solid } from './solid.js';
import { found, type RawFinding } from './finding.js';
import type { RiderBody } from './rider-body.js';
import type { RiderLook } from './rider-look.js';
import { framesText, stretchesOver } from './stretches.js';
import { looksBetween } from './sweep.js';

/** A rider that passes through the static set, between frames too. */
export function findThroughSet(look: RiderLook, set: Solid | null): RawFinding[] {
  if (set === null || !look.moves) return [];
  const { rider, limits, count, body } = look;
  const deep = body ? (i: number) => depthIn(look, body, set, i) : (i: number) => crosses(look, set, i);
  // A place that has no size is through or not.
  const limit = body ? limits.overlap : 0;
  return stretchesOver(look, rider.camera === null && body === null ? 0 : count, limit, deep).map(
    ({ worst, frame, ...frames }) =>
      found(
        'through-set',
        'warning',
        {
          rider: rider.id,
          ...frames,
          frame,
          distance: look.distanceAt(frame),
          figure: body ? worst : null,
          unit: body ? 'm' : null,
          fix: look.curve === null ? null : 'detour',
        },
        ({ rider: badge }) =>
          body
            ? `${badge(rider.id)} passes through the set, ${worst.toFixed(2)} m deep at frame ${frame}; ${framesText(frames)}.`
            : `${badge(rider.id)} passes through a wall of the set at frame ${frame}; ${framesText(frames)}.`,
      ),
  );
}

/** How deep the set is in a body over the frame that begins here. */
function depthIn(look: RiderLook, body: RiderBody, set: Solid, i: number): number {
  const { count, first, limits } = look;
  const looks = i + 1 < count ? looksBetween(stepOf(look, i), body.thickness) : 1;
  let most = 0;
  for (let k = 0; k < looks; k++) {
    const frame = first + i + k / looks;
    if (isFar(body.whole(frame), body, set)) continue;
    if (body.play < Infinity && !set.meetsBox(body.whole(frame), limits.overlap - body.play)) continue;
    const { boxes, matrices } = body.at(frame);
    boxes.forEach((box, part) => {
      if (!set.meetsBox(box, limits.overlap) || !set.meets(body.solids[part], matrices[part])) return;
      most = Math.max(most, shrunk(box, set, limits.overlap));
    });
  }
  return most;
}

/** How far the faces of a box can be drawn in until it no longer meets the set, metres. */
function shrunk(box: TurnedBox, set: Solid, least: number): number {
  const half = [3, 6, 9].map((k) => Math.hypot(box.numbers[k], box.numbers[k + 1], box.numbers[k + 2]));
  let [low, high] = [least, Math.min(...half)];
  for (let step = 0; step < 12; step++) {
    const middle = (low + high) / 2;
    if (set.meetsBox(box, middle)) low = middle;
    else high = middle;
  }
  return low;
}

function isFar({ numbers: n }: TurnedBox, { reach }: RiderBody, { low, high }: Solid): boolean {
  for (let k = 0; k < 3; k++) if (n[k] + 2 * reach < low[k] || n[k] - 2 * reach > high[k]) return true;
  return false;
}

function stepOf(look: RiderLook, i: number): number {
  const [a, b] = [look.at(i), look.at(i + 1)];
  return Math.hypot(...[0, 1, 2].map((k) => look.poses[b + k] - look.poses[a + k]));
}

/** 1 where a place goes through a triangle over the frame that begins here. */
function crosses(look: RiderLook, set: Solid, i: number): number {
  const far = i + 1 < look.count ? stepOf(look, i) : 0;
  if (far === 0) return 0;
  const [a, b] = [look.at(i), look.at(i + 1)];
  const way = [0, 1, 2].map((k) => (look.poses[b + k] - look.poses[a + k]) / far);
  return set.along(look.poses.subarray(a, a + POSE.size), way, far) < Infinity ? 1 : 0;
}
