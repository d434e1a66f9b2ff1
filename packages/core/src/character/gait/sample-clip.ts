import { lastAtMost } from '../../geometry/math/search.js';
import { quat } from 'gl-matrix';
import type { Quat } from '../../geometry/math/vec.js';
import { LOCAL, type Clip, type ClipChannel, type HierarchyPose } from '../hierarchy/node-hierarchy.js';

const OFFSET = { translation: LOCAL.translation, rotation: LOCAL.rotation, scale: LOCAL.scale } as const;

/** The part of a clip from a time to another, or to its end, seconds; it has some length. */
export function partOfClip(
  { from, to }: { readonly from: number; readonly to: number | null },
  { seconds }: Pick<Clip, 'seconds'>,
): { readonly from: number; readonly length: number } {
  const end = Math.min(to ?? seconds, seconds);
  return { from: Math.min(from, end), length: Math.max(1e-6, end - from) };
}

/** Which nodes some clips move. */
export function nodesMoved(clips: readonly Clip[]): number[] {
  return [...new Set(clips.flatMap(({ channels }) => channels.map(({ node }) => node)))];
}

/** A clip of some nodes alone. */
export function clipOfNodes(clip: Clip, nodes: ReadonlySet<number>): Clip {
  return { ...clip, channels: clip.channels.filter(({ node }) => nodes.has(node)) };
}

/** Poses a model's nodes from a clip at a time; nodes that the clip does not move stay. */
export function sampleClip(clip: Clip, seconds: number, { locals, weights }: HierarchyPose): void {
  let moment: Moment | null = null;
  let times: ClipChannel['times'] | null = null;
  for (const channel of clip.channels) {
    // Channels mostly share their times: where the moment lies in them is looked for once.
    if (moment === null || channel.times !== times) moment = momentIn((times = channel.times), seconds);
    if (channel.path === 'weights') {
      const out = weights[channel.node];
      sampleChannel(channel, moment, out.length, out, 0);
    } else {
      const width = channel.path === 'rotation' ? 4 : 3;
      sampleChannel(channel, moment, width, locals, channel.node * LOCAL.size + OFFSET[channel.path]);
    }
  }
}

/**
 * Position of a time among the times of keys: the key before it, the part of the way to the next, and the length of
 * that way.
 */
interface Moment {
  readonly i: number;
  readonly t: number;
  readonly span: number;
}

function momentIn(times: ClipChannel['times'], seconds: number): Moment {
  const last = times.length - 1;
  const i = last < 0 ? -1 : lastAtMost(times, seconds);
  const span = i < last ? times[i + 1] - times[i] : 0;
  return { i, t: span > 0 ? Math.min(1, Math.max(0, (seconds - times[i]) / span)) : 0, span };
}

/** One value at a time, by the rules of glTF 2.0, appendix C; held before the first time and after the last. */
function sampleChannel(
  { values, interpolation, path }: ClipChannel,
  { i, t, span }: Moment,
  width: number,
  out: Float64Array,
  at: number,
): void {
  if (i < 0 || width === 0) return;
  const cubic = interpolation === 'CUBICSPLINE';
  const stride = cubic ? 3 * width : width;
  // A cubic key has its value between its tangents.
  const now = i * stride + (cubic ? width : 0);
  const next = now + stride;
  if (t === 0 || interpolation === 'STEP') {
    for (let k = 0; k < width; k++) out[at + k] = values[now + k];
    if (path === 'rotation') normalize(out, at);
    return;
  }
  if (cubic) {
    const t2 = t * t;
    const t3 = t2 * t;
    const [a, b] = [2 * t3 - 3 * t2 + 1, t3 - 2 * t2 + t];
    const [c, d] = [3 * t2 - 2 * t3, t3 - t2];
    for (let k = 0; k < width; k++) {
      const leaving = values[now + width + k];
      const coming = values[next - width + k];
      out[at + k] = a * values[now + k] + span * b * leaving + c * values[next + k] + span * d * coming;
    }
    if (path === 'rotation') normalize(out, at);
    return;
  }
  if (path === 'rotation') {
    for (let k = 0; k < 4; k++) {
      from[k] = values[now + k];
      to[k] = values[next + k];
    }
    quat.slerp(from, from, to, t);
    for (let k = 0; k < 4; k++) out[at + k] = from[k];
    normalize(out, at);
    return;
  }
  for (let k = 0; k < width; k++) out[at + k] = values[now + k] + t * (values[next + k] - values[now + k]);
}

/**
 * Puts a part of one pose over another: turns by the shorter way round, all else straight.
 *
 * @param nodes those in which the two may differ
 */
export function blendPoses(
  under: HierarchyPose,
  over: HierarchyPose,
  part: number,
  nodes: readonly number[],
): void {
  const [a, b] = [under.locals, over.locals];
  for (const node of nodes) {
    const at = node * LOCAL.size;
    for (let k = 0; k < LOCAL.size; k++) {
      if (k < LOCAL.rotation || k >= LOCAL.scale) a[at + k] += part * (b[at + k] - a[at + k]);
    }
    for (let k = 0; k < 4; k++) {
      from[k] = a[at + LOCAL.rotation + k];
      to[k] = b[at + LOCAL.rotation + k];
    }
    quat.slerp(from, from, to, part);
    for (let k = 0; k < 4; k++) a[at + LOCAL.rotation + k] = from[k];
    const [own, other] = [under.weights[node], over.weights[node]];
    for (let k = 0; k < own.length; k++) own[k] += part * (other[k] - own[k]);
  }
}

function normalize(out: Float64Array, at: number): void {
  const x = out[at];
  const y = out[at + 1];
  const z = out[at + 2];
  const w = out[at + 3];
  const size = Math.sqrt(x * x + y * y + z * z + w * w) || 1;
  for (let k = 0; k < 4; k++) out[at + k] /= size;
}

const from: Quat = [0, 0, 0, 1];
const to: Quat = [0, 0, 0, 1];
