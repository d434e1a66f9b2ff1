import type { Frozen, FrozenTrack } from '../../document/shot-frozen.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { FrameRange, Shot } from '../../document/shot.js';
import { mapFrame, timesAsFast, withFrames, type FrameMap } from '../../motion/pace/in-time.js';

/**
 * Another frame rate. Keeping seconds, every key comes at another frame and the shot takes as long as before; keeping
 * frames, every key stays at its frame and the shot takes more or less time.
 */
export function changeRate(shot: Shot, fps: number, keep: 'seconds' | 'frames'): Shot {
  const ratio = fps / shot.fps;
  if (ratio === 1) return shot;
  if (keep === 'frames') return { ...withSpeeds(shot, ratio), fps };
  const { first, last } = shot.range;
  const frames = Math.max(1, Math.round((last - first + 1) * ratio));
  const map = { from: first, to: first, scale: ratio };
  return { ...withKeyFrames(shot, map), fps, range: { first, last: first + frames - 1 } };
}

/** All of the work in another range of frames, as much slower or faster as that is longer or shorter. */
export function scaleToFit(shot: Shot, range: FrameRange): Shot {
  // A loop is as long as its cycle; else what is at the last frame is to stay there.
  const more = shot.loop ? 1 : 0;
  const before = shot.range.last - shot.range.first + more;
  const after = range.last - range.first + more;
  if (before <= 0 || after <= 0) return { ...shot, range };
  const scale = after / before;
  const map = { from: shot.range.first, to: range.first, scale };
  return { ...withSpeeds(withKeyFrames(shot, map), 1 / scale), range };
}

function withSpeeds(shot: Shot, rate: number): Shot {
  return withAttachments(shot, (attachment) => ({
    ...attachment,
    pace: timesAsFast(attachment.pace, rate),
    takes: attachment.takes.map((take) => ({ ...take, pace: timesAsFast(take.pace, rate) })),
  }));
}

/** Everything keyed by frame in a shot, at other frames. */
function withKeyFrames(shot: Shot, map: FrameMap): Shot {
  const at = <T extends { frame: number }>(keys: readonly T[]): T[] =>
    keys.map((key) => ({ ...key, frame: mapFrame(map, key.frame) }));
  const pair = (handle?: [number, number]): [number, number] | undefined =>
    handle && [handle[0] * map.scale, handle[1]];
  const drawn = <T extends { frame: number; in?: [number, number]; out?: [number, number] }>(
    keys: readonly T[],
  ): T[] => at(keys).map((key) => withHandles(key, pair(key.in), pair(key.out)));
  const offsets = (keys: Attachment['offsetKeys']): Attachment['offsetKeys'] =>
    at(keys).map((key) =>
      key.handles === undefined
        ? key
        : {
            ...key,
            handles: Object.fromEntries(
              Object.entries(key.handles).map(([of, one]) => [
                of,
                withHandles(one, pair(one.in), pair(one.out)),
              ]),
            ),
          },
    );
  const moved = withAttachments(shot, (attachment) => ({
    ...attachment,
    pace: withFrames(attachment.pace, map),
    takes: attachment.takes.map((take) => ({ ...take, pace: withFrames(take.pace, map) })),
    offsetKeys: offsets(attachment.offsetKeys),
    influence: drawn(attachment.influence),
    facing: {
      ...attachment.facing,
      influence: drawn(attachment.facing.influence),
      aim: { ...attachment.facing.aim, influence: drawn(attachment.facing.aim.influence) },
    },
    pacedBy: attachment.pacedBy && { ...attachment.pacedBy, delay: attachment.pacedBy.delay * map.scale },
  }));
  return {
    ...moved,
    riders: moved.riders.map((rider): Rider => {
      const { camera, transformKeys, restAim, parentKeys, clips, frozen, emitter, rigidBody } = rider;
      return {
        ...rider,
        camera: camera && { ...camera, keys: drawn(camera.keys) },
        transformKeys: transformKeys && { keys: at(transformKeys.keys) },
        restAim: restAim && { ...restAim, aim: { ...restAim.aim, influence: drawn(restAim.aim.influence) } },
        parentKeys: at(parentKeys),
        clips: at(clips).map((block) => ({ ...block, until: mapFrame(map, block.until) })),
        frozen: frozen && frozenIn(frozen, map),
        emitter: emitter && { ...emitter, bursts: at(emitter.bursts) },
        rigidBody: rigidBody && { ...rigidBody, blend: Math.round(rigidBody.blend * map.scale) },
      };
    }),
    cuts: at(shot.cuts),
    retimes: shot.retimes.map((retime) => ({
      ...retime,
      keys: at(retime.keys).map((key) => ({ ...key, source: mapFrame(map, key.source) })),
    })),
    cues: shot.cues.map((cue) =>
      cue.trigger.kind === 'frame'
        ? { ...cue, keys: cue.keys.map((key) => ({ ...key, at: mapFrame(map, key.at) })) }
        : cue,
    ),
  };
}

/** Handles that there are, in other frames. */
const withHandles = <T extends object>(key: T, into?: [number, number], out?: [number, number]): T => ({
  ...key,
  ...(into && { in: into }),
  ...(out && { out }),
});

function frozenIn(frozen: Frozen, map: FrameMap): Frozen {
  const at = (track: FrozenTrack): FrozenTrack => ({
    ...track,
    frames: track.frames.map((frame) => mapFrame(map, frame)),
  });
  return {
    ...frozen,
    translation: at(frozen.translation),
    rotation: at(frozen.rotation),
    figures: at(frozen.figures),
    parts: frozen.parts.map((part) => ({
      ...part,
      translation: at(part.translation),
      rotation: at(part.rotation),
      scale: at(part.scale),
      weights: part.weights && at(part.weights),
    })),
  };
}

function withAttachments(shot: Shot, change: (attachment: Attachment) => Attachment): Shot {
  return {
    ...shot,
    riders: shot.riders.map((rider) =>
      rider.attachment ? { ...rider, attachment: change(rider.attachment) } : rider,
    ),
  };
}
