import type { Frozen, FrozenTrack } from '../document/shot-frozen.js';
import type { Hitch } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import type { FrameRange, Shot } from '../document/shot.js';
import { mapFrame, timesAsFast, withFrames, type FrameMap } from '../pace/in-time.js';

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
  return withHitches(shot, (hitch) => ({
    ...hitch,
    pace: timesAsFast(hitch.pace, rate),
    takes: hitch.takes.map((take) => ({ ...take, pace: timesAsFast(take.pace, rate) })),
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
  const offsets = (keys: Hitch['offsetKeys']): Hitch['offsetKeys'] =>
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
  const moved = withHitches(shot, (hitch) => ({
    ...hitch,
    pace: withFrames(hitch.pace, map),
    takes: hitch.takes.map((take) => ({ ...take, pace: withFrames(take.pace, map) })),
    offsetKeys: offsets(hitch.offsetKeys),
    influence: drawn(hitch.influence),
    facing: {
      ...hitch.facing,
      influence: drawn(hitch.facing.influence),
      aim: { ...hitch.facing.aim, influence: drawn(hitch.facing.aim.influence) },
    },
    pacedBy: hitch.pacedBy && { ...hitch.pacedBy, delay: hitch.pacedBy.delay * map.scale },
  }));
  return {
    ...moved,
    riders: moved.riders.map((rider): Rider => {
      const { camera, keyed, looks, carriers, clips, frozen, emitter, forces } = rider;
      return {
        ...rider,
        camera: camera && { ...camera, keys: drawn(camera.keys) },
        keyed: keyed && { keys: at(keyed.keys) },
        looks: looks && { ...looks, aim: { ...looks.aim, influence: drawn(looks.aim.influence) } },
        carriers: at(carriers),
        clips: at(clips).map((block) => ({ ...block, until: mapFrame(map, block.until) })),
        frozen: frozen && frozenIn(frozen, map),
        emitter: emitter && { ...emitter, bursts: at(emitter.bursts) },
        forces: forces && { ...forces, blend: Math.round(forces.blend * map.scale) },
      };
    }),
    cuts: at(shot.cuts),
    retimes: shot.retimes.map((retime) => ({
      ...retime,
      keys: at(retime.keys).map((key) => ({ ...key, source: mapFrame(map, key.source) })),
    })),
    cues: shot.cues.map((cue) =>
      cue.on.kind === 'frame'
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

function withHitches(shot: Shot, change: (hitch: Hitch) => Hitch): Shot {
  return {
    ...shot,
    riders: shot.riders.map((rider) => (rider.hitch ? { ...rider, hitch: change(rider.hitch) } : rider)),
  };
}
