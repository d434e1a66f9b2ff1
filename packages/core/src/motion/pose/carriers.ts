import { quat, vec3 } from 'gl-matrix';
import type { ParentKey } from '../../document/shot-parent-key.js';
import { lastAtMost } from '../../geometry/math/search.js';
import type { Quat } from '../../geometry/math/vec.js';
import { POSE, positionIn, rotationIn, type PoseAt } from './pose.js';
import { compileRestPose } from './rest-pose.js';

/**
 * A pose switched from carrier to carrier: from each key's frame on its rider is where the key says on the carrier,
 * blended softly and the shorter way from where it would have been by the key before.
 *
 * @param own       what it does by itself, before the first key and where nobody carries it
 * @param carriers  by key the pose of who carries; null for nobody
 * @param fps       frames a second
 */
export function withCarriers(
  own: PoseAt,
  keys: readonly ParentKey[],
  carriers: readonly (PoseAt | null)[],
  fps: number,
): PoseAt {
  const seats = keys.map((key, i): PoseAt => {
    const carrier = carriers[i];
    if (carrier === null) return own;
    const seat = compileRestPose({ ...key, scale: [1, 1, 1] }, carrier);
    const under = new Float64Array(POSE.size);
    return (frame, out, at) => {
      seat(frame, out, at);
      carrier(frame, under, 0);
      out[at + POSE.speed] = under[POSE.speed];
      // On its own path it is still where it left that.
      own(frame, under, 0);
      out[at + POSE.distance] = under[POSE.distance];
    };
  });
  const frames = keys.map(({ frame }) => frame);
  const before = new Float64Array(POSE.size);
  const between: Quat = [0, 0, 0, 1];
  return (frame, out, at) => {
    if (frame < frames[0]) return own(frame, out, at);
    const i = lastAtMost(frames, frame);
    seats[i](frame, out, at);
    const over = keys[i].blend * fps;
    const part = over > 0 ? (frame - frames[i]) / over : 1;
    if (part >= 1) return;
    // Position by the key before, at the end of its blend.
    (i > 0 ? seats[i - 1] : own)(frame, before, 0);
    const eased = part * part * (3 - 2 * part);
    const place = vec3.lerp([0, 0, 0], positionIn(before), positionIn(out, at), eased);
    quat.slerp(between, rotationIn(before), rotationIn(out, at), eased);
    for (let k = 0; k < 3; k++) out[at + k] = place[k];
    for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = between[k];
  };
}

/** How much of a rider is carried at a frame, 0 to 1; null for one that is never handed over. */
export function carriedPart(keys: readonly ParentKey[], fps: number): ((frame: number) => number) | null {
  if (keys.length === 0) return null;
  const frames = keys.map(({ frame }) => frame);
  return (frame) => {
    if (frame < frames[0]) return 0;
    const i = lastAtMost(frames, frame);
    const [from, to] = [i > 0 && keys[i - 1].rider !== null ? 1 : 0, keys[i].rider === null ? 0 : 1];
    const over = keys[i].blend * fps;
    const part = over > 0 ? Math.min(1, (frame - frames[i]) / over) : 1;
    return from + (to - from) * part * part * (3 - 2 * part);
  };
}
