import { eachAction } from '../../document/each-action.js';
import type { Cue, CueAction } from '../../document/shot-cue.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';
import { bisect } from '../../geometry/math/search.js';
import { distance3 } from '../../geometry/math/vec.js';
import { POSE, positionIn, type PoseAt } from '../../motion/pose/pose.js';
import type { PaceStop } from '../../motion/pace/compiled-pace.js';
import type { PathMotion } from '../../motion/ride/path-motion.js';
import { clipNamed, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import type { PlayedClip } from '../../character/gait/clip-blocks.js';
import { cuedClip } from './cue-clips.js';
import type { CuedPart } from './moved-parts.js';

/** Sources of cues. */
export interface CueSources {
  find(id: string | null): Rider | undefined;
  /** How far it has come along its path. */
  motion(rider: Rider): Pick<PathMotion, 'pace'> | null;
  pose(rider: Rider): PoseAt;
  /** Its stops, in the time of the work. */
  stops(rider: Rider): readonly PaceStop[];
  /** The frame of the work at which another cue comes; null where it does not. */
  momentOf(cue: string): number | null;
  readonly fps: number;
}

/** A cue's value over the frames of the work. */
export function cueValue({ trigger, keys }: Cue, sources: CueSources): (frame: number) => number {
  const curve = keyedCurve(keys.map(({ at, value, ease }) => ({ frame: at, value, ease })));
  const [rider, other] = [sources.find(trigger.rider), sources.find(trigger.other)];
  if (trigger.kind === 'frame') return (frame) => curve.value(frame);
  if (trigger.kind === 'distance') {
    const motion = rider && sources.motion(rider);
    return (frame) => curve.value(motion ? motion.pace.distance(frame) : 0);
  }
  if (trigger.kind === 'speed') {
    const motion = rider && sources.motion(rider);
    return (frame) => curve.value(motion ? Math.abs(motion.pace.speed(frame)) : 0);
  }
  if (trigger.kind === 'stop' || trigger.kind === 'cue') {
    let since: number | null | undefined;
    return (frame) => {
      since ??=
        trigger.kind === 'cue'
          ? sources.momentOf(trigger.cue ?? '')
          : (stopMoment(trigger, rider, sources) ?? null);
      // A value that never changes is that of its first key.
      return since === null ? keys[0].value : curve.value((frame - since) / sources.fps);
    };
  }
  const poses = [rider, other].flatMap((one) => (one ? [sources.pose(one)] : []));
  const now = poses.map(() => new Float64Array(POSE.size));
  return (frame) => {
    poses.forEach((pose, i) => pose(frame, now[i], 0));
    return curve.value(now.length < 2 ? 0 : distance3(positionIn(now[0]), positionIn(now[1])));
  };
}

function stopMoment(
  { stop, from }: Cue['trigger'],
  rider: Rider | undefined,
  sources: CueSources,
): number | undefined {
  const found = rider && sources.stops(rider)[stop];
  const at = found && (from === 'begin' ? found.from : found.to);
  return at !== undefined && Number.isFinite(at) ? at : undefined;
}

/** First frame of the work, up to one past the range, at which a cue's value reaches 1; null if it never does. */
export function cueMoment(cue: Cue, { first, last }: Shot['range'], sources: CueSources): number | null {
  if (cue.keys.length === 0) return null;
  const value = cueValue(cue, sources);
  if (value(first) >= 1) return first;
  for (let frame = first + 1; frame <= last + 1; frame++) {
    if (value(frame) >= 1) return bisect((moment) => value(moment) >= 1, frame - 1, frame);
  }
  return null;
}

/** The actions of cues that are played on a rider, of some kinds, with the value of their cue. */
function actionsOn(
  { cues }: Pick<Shot, 'cues'>,
  rider: Rider,
  kinds: readonly CueAction['kind'][],
  sources: CueSources,
): { readonly does: CueAction; readonly value: (frame: number) => number }[] {
  return eachAction(cues).flatMap((cue) => {
    const { action, off } = cue;
    if (off || action.rider !== rider.id || cue.keys.length === 0 || !kinds.includes(action.kind)) return [];
    return [{ does: action, value: cueValue(cue, sources) }];
  });
}

/** Cued motion of a rider's parts. */
export function cuedParts(shot: Pick<Shot, 'cues'>, rider: Rider, sources: CueSources): CuedPart[] {
  return actionsOn(shot, rider, ['turn', 'move'], sources).flatMap(({ does, value }): CuedPart[] => {
    const { kind, node, axis, times } = does;
    if (node === null || (kind !== 'turn' && kind !== 'move')) return [];
    return [{ kind, node, axis, value: times === 1 ? value : (frame) => times * value(frame) }];
  });
}

/** The clips of a rider's model that cues play. */
export function cuedClips(
  shot: Pick<Shot, 'cues' | 'range' | 'fps'>,
  rider: Rider,
  hierarchy: NodeHierarchy,
  sources: CueSources,
): PlayedClip[] {
  return actionsOn(shot, rider, ['play'], sources).flatMap(({ does, value }) => {
    const clip = clipNamed(hierarchy, does.clip);
    return clip ? [cuedClip(clip, does, value, { ...shot.range, fps: shot.fps })] : [];
  });
}

/** How much cues let a rider follow its path, or face its way or its target; null where none does. The last one holds. */
export function cuedBlend(
  shot: Pick<Shot, 'cues'>,
  rider: Rider,
  kind: 'attachment' | 'facing',
  sources: CueSources,
): ((frame: number) => number) | null {
  const value = actionsOn(shot, rider, [kind], sources).at(-1)?.value;
  return value === undefined ? null : (frame) => Math.min(1, Math.max(0, value(frame)));
}

/** Whether a rider is seen at a frame of the work; null where no cue shows or hides it. It is hidden where one of them hides it. */
export function cuedShow(
  shot: Pick<Shot, 'cues'>,
  rider: Rider,
  sources: CueSources,
): ((frame: number) => boolean) | null {
  const all = actionsOn(shot, rider, ['show'], sources);
  return all.length === 0 ? null : (frame) => all.every(({ value }) => value(frame) >= SHOWN);
}

const SHOWN = 0.5;
