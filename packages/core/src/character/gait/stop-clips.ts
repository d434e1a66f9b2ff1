import type { Act, Gait } from '../../document/shot-rider.js';
import { clipNamed, type Clip, type HierarchyPose, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { modulo } from '../../geometry/math/angle.js';
import type { IdleSpan } from './idle-spans.js';
import { partOfClip, sampleClip } from './sample-clip.js';

/** Clip and idle of one stop. */
export interface StopClips {
  readonly act: { readonly act: Act; readonly clip: Clip } | null;
  readonly idle: Clip | null;
  /** Played once as it stops, and once before it starts. */
  readonly stop: Clip | null;
  readonly start: Clip | null;
}

const STOPS = /(^|[\s_.-])(stop|halt|(walk|run)[\s_.-]?(stop|end|to[\s_.-]?(idle|stand)))/i;
const STARTS =
  /(^|[\s_.-])(start|set[\s_.-]?off|(walk|run)[\s_.-]?(start|begin)|(idle|stand)[\s_.-]?to[\s_.-]?(walk|run))/i;

/** Clip of stopping, or of starting, that a model has by name; null if it has none. */
export function clipOfChange({ clips }: NodeHierarchy, change: 'start' | 'stop'): Clip | null {
  const pattern = change === 'start' ? STARTS : STOPS;
  return clips.find(({ name }) => pattern.test(name)) ?? null;
}

/** Clips of stopping and starting: those that were chosen, else those the model has by name. */
function changesOf({ stopClip, startClip }: Gait, hierarchy: NodeHierarchy) {
  const chosen = (name: string | null, change: 'start' | 'stop') =>
    name === null ? clipOfChange(hierarchy, change) : clipNamed(hierarchy, name);
  return { stop: chosen(stopClip, 'stop'), start: chosen(startClip, 'start') };
}

/** Duration of a stop that is as long as its act, at the act's own speed, with the clips of stopping and starting; seconds. */
export function actSeconds(gait: Gait, hierarchy: NodeHierarchy, act: Act): number {
  const clip = clipNamed(hierarchy, act.clip);
  const { stop, start } = changesOf(gait, hierarchy);
  return (clip ? partOfClip(act, clip).length : 0) + (stop?.seconds ?? 0) + (start?.seconds ?? 0);
}

/** Clip of each idle span: acts are counted from the first stop. */
export function stopsOf(gait: Gait, hierarchy: NodeHierarchy, spans: readonly IdleSpan[]): StopClips[] {
  const { stop, start } = changesOf(gait, hierarchy);
  const idle = clipNamed(hierarchy, gait.idle);
  let count = -1;
  return spans.map(({ from, to }): StopClips => {
    if (from > -Infinity) count++;
    const act = from > -Infinity ? gait.acts.find((other) => other.stop === count) : undefined;
    const clip = act ? clipNamed(hierarchy, act.clip) : null;
    return {
      act: act && clip ? { act, clip } : null,
      idle,
      stop: Number.isFinite(from) ? stop : null,
      start: Number.isFinite(to) ? start : null,
    };
  });
}

export const clipsOf = ({ act, idle, stop, start }: StopClips): Clip[] =>
  [act?.clip, idle, stop, start].filter((clip) => clip !== undefined && clip !== null);

/** A stop with parts of its clips in their places. */
export function stopOf({ act, idle, stop, start }: StopClips, part: (clip: Clip) => Clip): StopClips {
  return {
    act: act && { act: act.act, clip: part(act.clip) },
    idle: idle && part(idle),
    stop: stop && part(stop),
    start: start && part(start),
  };
}

/**
 * Poses a node hierarchy during a stop; between the clips of stopping and starting plays its act, or the idle clip.
 *
 * @returns whether there is anything to show
 */
export function poseStop(
  { act, idle, stop, start }: StopClips,
  { from, to }: IdleSpan,
  { first, fps }: { readonly first: number; readonly fps: number },
  frame: number,
  pose: HierarchyPose,
): boolean {
  // A stop that is too short for both keeps the beginning of the one and the end of the other.
  const inner = { from: from + (stop?.seconds ?? 0) * fps, to: to - (start?.seconds ?? 0) * fps };
  if (stop && frame < Math.min(inner.from, (from + to) / 2)) {
    sampleClip(stop, (frame - from) / fps, pose);
    return true;
  }
  if (start && frame > Math.max(inner.to, (from + to) / 2)) {
    sampleClip(start, start.seconds - (to - frame) / fps, pose);
    return true;
  }
  if (act === null && idle === null) return false;
  const begun = Number.isFinite(inner.from) ? inner.from : Number.isFinite(inner.to) ? inner.to : first;
  const seconds = (frame - begun) / fps;
  if (act === null) {
    if (idle) sampleClip(idle, wrapped(seconds, idle.seconds), pose);
    return true;
  }
  const { from: begins, length } = partOfClip(act.act, act.clip);
  const whole = act.act.fit === 'stretch' && Number.isFinite(to);
  const span = inner.to - inner.from;
  const gone = whole
    ? length * Math.min(1, Math.max(0, (frame - inner.from) / span))
    : wrapped(seconds, length);
  sampleClip(act.clip, begins + gone, pose);
  return true;
}

const wrapped = (value: number, size: number) => (size > 0 ? modulo(value, size) : 0);
