import { vec3 } from 'gl-matrix';
import type { Axis } from '../document/shot-facing.js';
import type { Echo } from '../document/shot-echo.js';
import { lastAtMost } from '../math/search.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { axisVector } from '../pose/axes.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import type { TrackRange } from './aim-track.js';

/** The leader's way is measured by so many looks a frame, at most so many in all. */
const LOOKS = 4;
const MOST_LOOKS = 40_000;

/**
 * A rider that goes where another went: as far behind it as that has travelled since. The leader's way is measured once over the range
 * (its chords between looks a quarter of a frame apart); before and after that it goes straight on.
 *
 * @param axes the leader's nose and roof, by which to the left and up are told
 */
export function compileEcho(
  { behind, side, rise, delay }: Echo,
  leader: PoseAt,
  axes: { readonly forward: Axis; readonly up: Axis },
  { first, last }: TrackRange,
): PoseAt {
  let kept: Way | null = null;
  const way = () => (kept ??= wayOf(leader, first, last));
  const up = axisVector(axes.up);
  const left = vec3.cross([0, 0, 0], up, axisVector(axes.forward)) as Vec3;
  const turn: Quat = [0, 0, 0, 1];
  const beside: Vec3 = [0, 0, 0];
  return (frame, out, at) => {
    const { frames, gone, enter, leave } = way();
    const total = gone[gone.length - 1];
    const wanted = travelled(way(), frame - delay) - behind;
    const there = frameAt(frames, gone, Math.min(total, Math.max(0, wanted)));
    leader(there, out, at);
    for (let k = 0; k < 4; k++) turn[k] = out[at + POSE.rotation + k];
    for (let k = 0; k < 3; k++) beside[k] = side * left[k] + rise * up[k];
    vec3.transformQuat(beside, beside, turn);
    const beyond = wanted < 0 ? wanted : Math.max(0, wanted - total);
    const on = wanted < 0 ? enter : leave;
    for (let k = 0; k < 3; k++) out[at + k] += beside[k] + beyond * on[k];
    out[at + POSE.distance] = wanted;
  };
}

/** Where a leader went: at rising frames how far it has gone since the first, and which way it came and went. */
interface Way {
  readonly frames: Float64Array;
  readonly gone: Float64Array;
  readonly enter: Vec3;
  readonly leave: Vec3;
}

function wayOf(leader: PoseAt, first: number, last: number): Way {
  const count = Math.min(MOST_LOOKS, Math.max(1, (last + 1 - first) * LOOKS));
  const frames = Float64Array.from({ length: count + 1 }, (_, i) => first + (i * (last + 1 - first)) / count);
  const gone = new Float64Array(count + 1);
  const now = new Float64Array(POSE.size);
  const before: Vec3 = [0, 0, 0];
  const step: Vec3 = [0, 0, 0];
  let enter: Vec3 | null = null;
  let leave: Vec3 = [0, 0, 0];
  frames.forEach((frame, i) => {
    leader(frame, now, 0);
    for (let k = 0; k < 3; k++) step[k] = now[k] - before[k];
    for (let k = 0; k < 3; k++) before[k] = now[k];
    if (i === 0) return;
    const far = vec3.length(step);
    gone[i] = gone[i - 1] + far;
    if (far < 1e-9) return;
    leave = vec3.scale([0, 0, 0], step, 1 / far) as Vec3;
    enter ??= leave;
  });
  return { frames, gone, enter: enter ?? [0, 0, 0], leave };
}

/** How far the leader has gone at a frame; straight on outside of what was measured, at its speed there. */
function travelled({ frames, gone }: Way, frame: number): number {
  const last = frames.length - 1;
  const i = Math.min(last - 1, lastAtMost(frames, frame));
  const rate = (gone[i + 1] - gone[i]) / (frames[i + 1] - frames[i]);
  return gone[i] + (frame - frames[i]) * rate;
}

/** The last frame at which the leader had gone so far: where it stood, when it set off again. */
function frameAt(frames: Float64Array, gone: Float64Array, wanted: number): number {
  const i = Math.min(frames.length - 2, lastAtMost(gone, wanted));
  const span = gone[i + 1] - gone[i];
  if (span <= 0) return frames[i];
  return frames[i] + ((frames[i + 1] - frames[i]) * (wanted - gone[i])) / span;
}
