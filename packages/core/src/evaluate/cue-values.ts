import { eachAction } from '../document/each-action.js';
import type { Cue } from '../document/shot-cue.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { keyedCurve } from '../math/keyed-curve.js';
import { bisect } from '../math/search.js';
import { distance3 } from '../math/vec.js';
import { POSE, positionIn, type PoseAt } from '../pose/pose.js';
import type { PaceStop } from '../pace/compiled-pace.js';
import type { PathMotion } from '../ride/path-motion.js';
import type { CuedPart } from './moved-parts.js';

/** What cues listen to. */
export interface CueSources {
  find(id: string | null): Rider | undefined;
  motion(rider: Rider): PathMotion | null;
  pose(rider: Rider): PoseAt;
  /** Its stops, in the time of the work. */
  stops(rider: Rider): readonly PaceStop[];
  /** The frame of the work at which another cue comes; null where it does not. */
  momentOf(cue: string): number | null;
  readonly fps: number;
}

/** A cue's value over the frames of the work. */
export function cueValue({ on, keys }: Cue, sources: CueSources): (frame: number) => number {
  const curve = keyedCurve(keys.map(({ at, value, ease }) => ({ frame: at, value, ease })));
  const [rider, other] = [sources.find(on.rider), sources.find(on.other)];
  if (on.kind === 'frame') return (frame) => curve.value(frame);
  if (on.kind === 'distance') {
    const motion = rider && sources.motion(rider);
    return (frame) => curve.value(motion ? motion.pace.distance(frame) : 0);
  }
  if (on.kind === 'speed') {
    const motion = rider && sources.motion(rider);
    return (frame) => curve.value(motion ? Math.abs(motion.pace.speed(frame)) : 0);
  }
  if (on.kind === 'stop' || on.kind === 'cue') {
    let since: number | null | undefined;
    return (frame) => {
      since ??= on.kind === 'cue' ? sources.momentOf(on.cue ?? '') : (stopMoment(on, rider, sources) ?? null);
      // What never comes is for ever before its first key.
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
  { stop, from }: Cue['on'],
  rider: Rider | undefined,
  sources: CueSources,
): number | undefined {
  const found = rider && sources.stops(rider)[stop];
  const at = found && (from === 'begin' ? found.from : found.to);
  return at !== undefined && Number.isFinite(at) ? at : undefined;
}

/** The first frame of the work, up to one past the range, at which a cue's value comes to 1; null where it does not. */
export function cueMoment(cue: Cue, { first, last }: Shot['range'], sources: CueSources): number | null {
  if (cue.keys.length === 0) return null;
  const value = cueValue(cue, sources);
  if (value(first) >= 1) return first;
  for (let frame = first + 1; frame <= last + 1; frame++) {
    if (value(frame) >= 1) return bisect((moment) => value(moment) >= 1, frame - 1, frame);
  }
  return null;
}

/** What cues do to parts of a rider's model. */
export function cuedParts({ cues }: Pick<Shot, 'cues'>, rider: Rider, sources: CueSources): CuedPart[] {
  return eachAction(cues).flatMap((cue): CuedPart[] => {
    const { does, off } = cue;
    if (off || does.rider !== rider.id || does.node === null || cue.keys.length === 0) return [];
    if (does.kind !== 'turn' && does.kind !== 'move') return [];
    const value = cueValue(cue, sources);
    const { kind, node, axis, times } = does;
    return [{ kind, node, axis, value: times === 1 ? value : (frame) => times * value(frame) }];
  });
}
