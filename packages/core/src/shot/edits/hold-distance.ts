import type { Attachment } from '../../document/shot-attachment.js';
import { frameCount } from '../../document/frames.js';
import type { Rider } from '../../document/shot-rider.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { bisect } from '../../geometry/math/search.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { changeUnit } from '../../motion/pace/change-unit.js';
import { keysThrough } from '../../motion/pace/fit-pace.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';
import { compileOffset } from '../../motion/pose/keyed-offset.js';
import { POSE } from '../../motion/pose/pose.js';
import { placeAlong } from '../../motion/ride/travel-place.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { risingFrames } from '../../motion/timing/rising-frames.js';
import { poseOfRider, withAttachment } from './change-rider.js';

/** A rider that moves along its path so that it keeps its distance from another at a frame. */
export interface HeldDistance {
  readonly rider: Rider;
  /** How far it stays off, metres. */
  readonly distance: number;
  /** By how much it misses that at the worst frame, where its path does not lead nearer, or further away; metres. */
  readonly missed: number;
}

/** Tolerance of the keys. */
const WITHIN = { distance: 0.01, speed: 0.02 };
/** So many steps to its length a path is looked along. */
const STEPS = 4000;

/**
 * Looks for the place along its path, nearest to the one before, at which a rider is as far from another as at a frame; where none
 * is, it waits where it is least wrong.
 *
 * @param frame the frame of the shot at which it stays where it is
 * @returns null where it rides no path; what took its time from another has its own now
 */
export function holdDistance(
  evaluated: EvaluatedShot,
  id: string,
  other: string,
  frame: number,
): HeldDistance | null {
  const shot = withAttachment(evaluated.shot, id, (was) => ({ ...was, coupledTo: null, pacedBy: null }));
  const rider = shot.riders.find((one) => one.id === id);
  const curve = curveRidden(shot, rider);
  // If it has its own pace.
  const timing = rider && evaluateShot(shot, evaluated.assets).timing(rider);
  if (frameCount(shot) < 2 || !rider?.attachment || !curve || !timing) return null;
  const { attachment } = rider;
  const { own } = mapFrames(timing.steps, shot.range);
  const placeAt = alongItsPath(attachment, curve);
  const its = shot.riders.findIndex((one) => one.id === other);
  const target = new Float64Array(POSE.size);
  const here: Vec3 = [0, 0, 0];
  const farFrom = (at: number, s: number): number => {
    evaluated.poses[its](at, target, 0);
    placeAt(own(at), s, here);
    return Math.hypot(here[0] - target[0], here[1] - target[1], here[2] - target[2]);
  };
  const along = compileOffset(attachment);
  const now = Math.min(shot.range.last, Math.max(shot.range.first, Math.round(frame)));
  const begins = poseOfRider(evaluated, id, now)[POSE.distance];
  const distance = farFrom(now, begins);
  const frames = Array.from({ length: frameCount(shot) }, (_, i) => shot.range.first + i);
  const places = new Float64Array(frames.length);
  let missed = 0;
  const settle = (i: number, from: number) => {
    const off = (s: number) => farFrom(frames[i], s) - distance;
    places[i] = nearestPlace(off, from, curve);
    missed = Math.max(missed, Math.abs(off(places[i])));
  };
  const start = now - shot.range.first;
  places[start] = begins;
  for (let i = start + 1; i < frames.length; i++) settle(i, places[i - 1]);
  for (let i = start - 1; i >= 0; i--) settle(i, places[i + 1]);
  const kept = risingFrames(frames, own);
  if (kept.length < 2) return null;
  const keys = keysThrough(
    kept.map((i) => own(frames[i])),
    kept.map((i) => places[i] - along.at(own(frames[i])).along),
    shot.fps,
    curve,
    WITHIN,
  );
  const inMetres = { ...changeUnit(attachment.pace, 'metres', curve.length), mode: 'keys' as const, keys };
  return {
    rider: {
      ...rider,
      attachment: { ...attachment, pace: changeUnit(inMetres, attachment.pace.unit, curve.length) },
    },
    distance,
    missed,
  };
}

/** Position of a rider at an own frame and a distance along its path, before any ground or clearance. */
function alongItsPath(attachment: Attachment, curve: CompiledPath) {
  const offset = compileOffset(attachment);
  const write = placeAlong(attachment, { placement: { frame: (s, out) => curve.frame(s, out, 0) } });
  const way = new Float64Array(12);
  return (frame: number, s: number, out: Vec3): void => {
    const { side, rise } = offset.at(frame);
    write(s, side, rise, way);
    for (let k = 0; k < 3; k++) out[k] = way[k];
  };
}

/** The zero of a function nearest to a distance, or its least value on the way there. */
function nearestPlace(off: (s: number) => number, from: number, { closed, length }: CompiledPath): number {
  const step = length / STEPS;
  const held = (s: number) => (closed ? s : Math.min(length, Math.max(0, s)));
  const begins = off(from);
  if (begins === 0) return from;
  const [ahead, behind] = [held(from + step), held(from - step)].map((s) => Math.abs(off(s)));
  const way = ahead <= behind ? 1 : -1;
  const sign = Math.sign(begins);
  for (let n = 0, at = from; n < STEPS; n++) {
    const next = held(at + way * step);
    const value = off(next);
    if (Math.sign(value) !== sign) return bisect((s) => Math.sign(off(s)) !== sign, at, next);
    if (next === at || Math.abs(value) >= Math.abs(off(at)))
      return leastBetween(off, held(at - way * step), next);
    at = next;
  }
  return from;
}

/** Zero nearest to a minimum of a function that falls and rises again, by thirds. */
function leastBetween(off: (s: number) => number, low: number, high: number): number {
  let [a, b] = [low, high];
  for (let i = 0; i < 60; i++) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3];
    if (Math.abs(off(p)) <= Math.abs(off(q))) b = q;
    else a = p;
  }
  return (a + b) / 2;
}
