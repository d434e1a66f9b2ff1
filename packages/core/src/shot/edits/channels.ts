import { defaultsOf } from '../../document/defaults.js';
import type { OffsetKey } from '../../document/shot-attachment.js';
import type { FocalKey, InfluenceKey, KeyEase } from '../../document/shot-keys.js';
import { Pace, type PaceKey } from '../../document/shot-pace.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';
import { compileFocal } from '../../motion/pose/camera.js';
import { compileInfluence } from '../../motion/pose/influence.js';
import { offsetAt, offsetCurveKey } from '../../motion/pose/keyed-offset.js';
import type { FrameMapping } from '../../motion/timing/frame-step.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { ownRetimeStep, wholeRetimeStep } from '../../motion/timing/retiming.js';

const OFFSETS = ['along', 'side', 'rise', 'yaw', 'pitch', 'roll'] as const;
type OffsetPart = (typeof OFFSETS)[number];

/** A value of a rider that can be keyed by itself, beside its pace. */
export type ChannelId = OffsetPart | 'focal' | 'attachment' | 'facing' | 'aim';

const isOffset = (id: ChannelId): id is OffsetPart => OFFSETS.includes(id as OffsetPart);

/** The channels a rider has, whether keyed or not. */
export function channelsOf({ attachment, camera, restAim }: Rider): ChannelId[] {
  return [
    ...(attachment ? OFFSETS : []),
    ...(camera ? (['focal'] as const) : []),
    ...(attachment ? (['attachment'] as const) : []),
    ...(attachment && attachment.facing.mode !== 'keep' ? (['facing'] as const) : []),
    ...((attachment ? attachment.facing.mode === 'aim' : restAim !== null) ? (['aim'] as const) : []),
  ];
}

/** Limits of a channel's values. */
export function channelLimits(id: ChannelId): readonly [number, number] {
  if (id === 'focal') return [1, 10_000];
  return isOffset(id) ? [-1e9, 1e9] : [0, 1];
}

/**
 * The keys of a channel as those of a pace, so that all that is done with the keys of a pace can be done with them. Keys of an offset
 * carry their other values along.
 */
export function channelPace(rider: Rider, id: ChannelId): Pace {
  return { ...defaultsOf(Pace), keys: keysOf(rider, id).map((key) => ({ in: [0, 0], out: [0, 0], ...key })) };
}

function keysOf(rider: Rider, id: ChannelId): readonly (Partial<PaceKey> & Omit<PaceKey, 'in' | 'out'>)[] {
  const { attachment, camera, restAim } = rider;
  if (isOffset(id))
    return (attachment?.offsetKeys ?? []).map((key) => {
      const { ease, value, in: into = [0, 0], out = [0, 0] } = offsetCurveKey(key, id);
      return { ...key, plain: key.ease, ease, value, in: [...into], out: [...out] };
    });
  if (id === 'focal') return camera?.keys ?? [];
  if (id === 'attachment') return attachment?.influence ?? [];
  if (id === 'facing') return attachment?.facing.influence ?? [];
  return (attachment ? attachment.facing : restAim)?.aim.influence ?? [];
}

/** A channel's value over its own frames. */
export function channelValue(rider: Rider, id: ChannelId): (frame: number) => number {
  const { attachment, camera } = rider;
  if (isOffset(id)) {
    const keys = attachment?.offsetKeys ?? [];
    if (keys.length === 0) return () => attachment?.offset[id] ?? 0;
    const curve = keyedCurve(keys.map((key) => offsetCurveKey(key, id)));
    return (frame) => curve.value(frame);
  }
  if (id === 'focal') return camera ? compileFocal(camera) : () => 0;
  return compileInfluence(keysOf(rider, id) as InfluenceKey[]) ?? (() => 1);
}

/** The rider with other keys for a channel; values are held between their limits. */
export function withChannelKeys(rider: Rider, id: ChannelId, keys: readonly PaceKey[]): Rider {
  const { attachment, camera, restAim } = rider;
  const [low, high] = channelLimits(id);
  const held = (value: number) => Math.min(high, Math.max(low, value));
  if (isOffset(id)) {
    if (attachment === null) return rider;
    const offsetKeys = keys.map((key: PaceKey & Carried): OffsetKey => {
      const { frame, value, ease } = key;
      const drawn = ease === 'handles';
      const handles = { ...key.handles, [id]: { in: key.in, ...(drawn && { out: key.out }) } };
      if (!drawn && !key.in.some(Boolean)) delete handles[id];
      const all = { ...offsetAt(attachment, frame), ...pick(key), [id]: value };
      // How the others run on is one for all that have no handles.
      const plain = { ...all, frame, ease: drawn ? (key.plain ?? 'smooth') : ease };
      return Object.keys(handles).length === 0 ? plain : { ...plain, handles };
    });
    // The last key's value stays when it goes.
    const offset =
      keys.length === 0 ? offsetAt(attachment, attachment.offsetKeys[0]?.frame ?? 0) : attachment.offset;
    return { ...rider, attachment: { ...attachment, offset, offsetKeys } };
  }
  const plain = keys.map(({ frame, value, ease, in: into, out }): InfluenceKey & FocalKey => ({
    frame,
    value: held(value),
    ease,
    ...(into.some(Boolean) && { in: into }),
    ...(out.some(Boolean) && { out }),
  }));
  if (id === 'focal') return camera ? { ...rider, camera: { ...camera, keys: plain } } : rider;
  if (attachment === null)
    return restAim ? { ...rider, restAim: { ...restAim, aim: { ...restAim.aim, influence: plain } } } : rider;
  if (id === 'attachment') return { ...rider, attachment: { ...attachment, influence: plain } };
  const { facing } = attachment;
  const turned =
    id === 'facing'
      ? { ...facing, influence: plain }
      : { ...facing, aim: { ...facing.aim, influence: plain } };
  return { ...rider, attachment: { ...attachment, facing: turned } };
}

/** Fields of an offset's key that survive an edit as a key of a pace. */
interface Carried {
  readonly plain?: KeyEase;
  readonly handles?: OffsetKey['handles'];
}

/** The values of an offset that a key carries beside the one that is shown. */
function pick(rest: object): Partial<Record<OffsetPart, number>> {
  return Object.fromEntries(Object.entries(rest).filter(([name]) => isOffset(name as ChannelId)));
}

/** The rider with one key more for a channel, of the value it has there; runs on as the key before it does. */
export function keyChannel(rider: Rider, id: ChannelId, frame: number): Rider {
  const { keys } = channelPace(rider, id);
  if (keys.some((key) => Math.abs(key.frame - frame) < 1e-3)) return rider;
  const before = keys.filter((key) => key.frame < frame).at(-1);
  const ease = before === undefined || before.ease === 'handles' ? 'smooth' : before.ease;
  const key: PaceKey = { frame, value: channelValue(rider, id)(frame), ease, in: [0, 0], out: [0, 0] };
  return withChannelKeys(
    rider,
    id,
    [...keys, key].sort((a, b) => a.frame - b.frame),
  );
}

/** A channel's own frames and those of the shot: offsets go along with what bends their rider's time. */
export function channelFrames(shot: Shot, rider: Rider, id: ChannelId): FrameMapping {
  const own = isOffset(id) ? ownRetimeStep(shot, rider.id) : [];
  return mapFrames([...own, ...wholeRetimeStep(shot)], shot.range);
}
