import { vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import type { Follow } from '../../document/shot-follow.js';
import { modulo } from '../../geometry/math/angle.js';
import { lastAtMost } from '../../geometry/math/search.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../pose/axes.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import type { TrackRange } from './aim-track.js';

/** Samples of the leader's track a frame, and the most in all. */
const LOOKS = 4;
const MOST_LOOKS = 40_000;

/**
 * A rider that follows another: at a distance behind it on its track. The leader's track is measured once over the
 * range (its chords between samples a quarter of a frame apart); before and after it continues straight, or, if a
 * loop ends where it began, round and round.
 *
 * @param axes the leader's nose and roof, by which to the left and up are told
 */
export function compileFollow(
  { behind, side, rise, delay }: Follow,
  leader: PoseAt,
  axes: { readonly forward: Axis; readonly up: Axis },
  { first, last, loop }: TrackRange,
): PoseAt {
  let kept: Way | null = null;
  const way = () => (kept ??= wayOf(leader, first, last, loop));
  const up = axisVector(axes.up);
  const left = vec3.cross([0, 0, 0], up, axisVector(axes.forward)) as Vec3;
  const turn: Quat = [0, 0, 0, 1];
  const beside: Vec3 = [0, 0, 0];
  return (frame, out, at) => {
    const { frames, gone, enter, leave, round } = way();
    const total = gone[gone.length - 1];
    const wanted = travelled(way(), frame - delay) - behind;
    const place = round ? modulo(wanted, total) : Math.min(total, Math.max(0, wanted));
    const there = frameAt(frames, gone, place);
    leader(there, out, at);
    for (let k = 0; k < 4; k++) turn[k] = out[at + POSE.rotation + k];
    for (let k = 0; k < 3; k++) beside[k] = side * left[k] + rise * up[k];
    vec3.transformQuat(beside, beside, turn);
    const beyond = round ? 0 : wanted < 0 ? wanted : Math.max(0, wanted - total);
    const on = wanted < 0 ? enter : leave;
    for (let k = 0; k < 3; k++) out[at + k] += beside[k] + beyond * on[k];
    out[at + POSE.distance] = wanted;
  };
}

/** Track of a leader: at rising frames the distance since the first, and its directions before and after. */
interface Way {
  readonly frames: Float64Array;
  readonly gone: Float64Array;
  readonly enter: Vec3;
  readonly leave: Vec3;
  /** Whether it comes back to where it began. */
  readonly round: boolean;
}

/** Nearer than this to where it began it has come back, metres. */
const BACK = 1e-6;

function wayOf(leader: PoseAt, first: number, last: number, loop: boolean): Way {
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
  const begun = new Float64Array(POSE.size);
  leader(first, begun, 0);
  const back = Math.hypot(...[0, 1, 2].map((k) => begun[k] - before[k])) < BACK;
  const round = loop && back && gone[count] > 0;
  return { frames, gone, enter: enter ?? [0, 0, 0], leave, round };
}

/** How far the leader has gone at a frame; straight on outside of what was measured, at its speed there. */
function travelled({ frames, gone, round }: Way, frame: number): number {
  const last = frames.length - 1;
  const span = frames[last] - frames[0];
  const laps = round ? Math.floor((frame - frames[0]) / span) : 0;
  const within = frame - laps * span;
  const i = Math.min(last - 1, lastAtMost(frames, within));
  const rate = (gone[i + 1] - gone[i]) / (frames[i + 1] - frames[i]);
  return laps * gone[last] + gone[i] + (within - frames[i]) * rate;
}

/** Last frame at which the leader had travelled a distance: after a stop, as it starts again. */
function frameAt(frames: Float64Array, gone: Float64Array, wanted: number): number {
  const i = Math.min(frames.length - 2, lastAtMost(gone, wanted));
  const span = gone[i + 1] - gone[i];
  if (span <= 0) return frames[i];
  return frames[i] + ((frames[i + 1] - frames[i]) * (wanted - gone[i])) / span;
}
