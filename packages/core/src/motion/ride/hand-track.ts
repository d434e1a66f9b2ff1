import { quat } from 'gl-matrix';
import { defaultsOf } from '../../document/defaults.js';
import type { TransformKeys } from '../../document/shot-transform-keys.js';
import { Pace, PaceKey } from '../../document/shot-pace.js';
import { PathPoint, ShotPath } from '../../document/shot-path.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';
import { lastAtMost } from '../../geometry/math/search.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { paceOf, type CompiledPace } from '../pace/compiled-pace.js';
import { keysCurve } from '../pace/keys-curve.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { PathError } from '../../geometry/path/path-error.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import { carried } from '../pose/rest-pose.js';
import type { FrameMapping } from '../timing/frame-step.js';

/** The way of what is moved by hand: where it is by its own frames. */
export interface HandTrack {
  /** The curve through its places, and when it is where on it; null where it never leaves its place. */
  readonly curve: CompiledPath | null;
  readonly pace: CompiledPace;
  position(frame: number, out: Vec3): void;
  rotation(frame: number, out: Quat): void;
}

const kept = new WeakMap<TransformKeys, { readonly fps: number; readonly way: HandTrack }>();

/**
 * Places are run through on one smooth curve (Catmull-Rom, centripetal) and its length is keyed like a pace, so that it neither swings
 * out of its way nor goes back on it; turns go the shorter way from key to key, in the same time.
 *
 * @param keyed with one key at least
 */
export function handTrackOf(keyed: TransformKeys, fps: number): HandTrack {
  const cached = kept.get(keyed);
  if (cached?.fps === fps) return cached.way;
  const way = compileTransformKeys(keyed, fps);
  kept.set(keyed, { fps, way });
  return way;
}

/** The path that hand-keyed places make. */
export function pathThrough(
  places: readonly Vec3[],
): Pick<ShotPath, 'basis' | 'alpha' | 'closed' | 'points'> {
  return {
    basis: 'through',
    alpha: 0.5,
    closed: false,
    points: places.map((position) => ({ ...defaultsOf(PathPoint), position })),
  };
}

function compileTransformKeys({ keys }: TransformKeys, fps: number): HandTrack {
  const curve = curveOf(keys.map(({ translation }) => translation));
  const paceKeys = keys.map(({ frame, ease }, i) => ({
    ...defaultsOf(PaceKey),
    frame,
    ease,
    value: curve?.pointDistances[i] ?? 0,
  }));
  const pace = paceOf(keysCurve({ ...defaultsOf(Pace), keys: paceKeys }, 1), fps);
  // Turned through so much by each key: paced like the way between them.
  const turned = [0];
  for (let i = 1; i < keys.length; i++)
    turned.push(turned[i - 1] + angleBetween(keys[i - 1].rotation, keys[i].rotation));
  const angle = keyedCurve(keys.map(({ frame, ease }, i) => ({ frame, ease, value: turned[i] })));
  const frames = keys.map(({ frame }) => frame);
  const last = keys.length - 1;
  return {
    curve,
    pace,
    position(frame, out) {
      if (curve) curve.position(pace.distance(frame), out);
      else for (let k = 0; k < 3; k++) out[k] = keys[0].translation[k];
    },
    rotation(frame, out) {
      const from = lastAtMost(frames, frame);
      const to = Math.min(last, from + 1);
      const way = turned[to] - turned[from];
      const part = way < STILL ? 0 : Math.min(1, Math.max(0, (angle.value(frame) - turned[from]) / way));
      quat.slerp(out, keys[from].rotation, keys[to].rotation, part);
      quat.normalize(out, out);
    },
  };
}

/** Turns smaller than this are none, radians. */
const STILL = 1e-12;

function angleBetween(a: Quat, b: Quat): number {
  // By the chord: near 1 the arc cosine has no digits left.
  const sign = quat.dot(a, b) < 0 ? -1 : 1;
  const chord = Math.hypot(...a.map((value, k) => value - sign * b[k]));
  return 4 * Math.asin(Math.min(1, chord / 2));
}

function curveOf(places: readonly Vec3[]): CompiledPath | null {
  try {
    return compilePath({ ...defaultsOf(ShotPath), id: 'keyed', name: 'keyed', ...pathThrough(places) });
  } catch (error) {
    if (error instanceof PathError) return null;
    throw error;
  }
}

/**
 * Pose of a rider moved by hand, in the world or on its carrier; its distance is the length of its track.
 *
 * @param frames which of its own frames is shown at a frame of the work, and how fast they go by
 */
export function compileHandPose(
  { position, rotation, pace }: HandTrack,
  { own, rate }: Pick<FrameMapping, 'own' | 'rate'>,
  parent: PoseAt | null,
): PoseAt {
  const place: Vec3 = [0, 0, 0];
  const turn: Quat = [0, 0, 0, 1];
  return (frame, out, at) => {
    const now = own(frame);
    position(now, place);
    rotation(now, turn);
    if (parent !== null) carried(parent, frame, place, turn);
    for (let k = 0; k < 3; k++) out[at + k] = place[k];
    for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = turn[k];
    out[at + POSE.distance] = pace.distance(now);
    out[at + POSE.speed] = pace.speed(now) * rate(frame);
    out[at + POSE.bank] = 0;
  };
}
