import { mat4 } from 'gl-matrix';
import { headOf } from '../motion/timing/leader.js';
import type { Rider } from '../document/shot-rider.js';
import { depthOf } from '../geometry/solid/turned-box.js';
import { found, type RawFinding } from './finding.js';
import type { BodyNow, RiderBody } from './rider-body.js';
import { staysApart, type RiderLook } from './rider-look.js';
import { framesText, stretchesOver } from './stretches.js';
import { looksBetween } from './sweep.js';
import { newMat4 } from '../geometry/math/new-matrix.js';

/** Two riders that are in each other, between frames too. */
export function findOverlap(a: RiderLook, b: RiderLook): RawFinding[] {
  if (!a.moves && !b.moves) return [];
  const [bodyA, bodyB] = [a.body, b.body];
  if (bodyA === null || bodyB === null || belongTogether(a, b) || isGroundOf(a, b)) return [];
  const reach = bodyA.reach + bodyB.reach;
  const { count, first } = a;
  const limit = a.limits.overlap;
  const closing = a.extent.step + b.extent.step;
  if (staysApart(a.extent, b.extent, reach + closing)) return [];
  const thickness = Math.min(bodyA.thickness, bodyB.thickness);
  const depths = new Float64Array(count);
  let any = false;
  for (let i = 0; i < count; i++) {
    const far = gapAt(a, b, i) - reach - closing;
    if (far > 0) {
      // They come no nearer to each other than that from one frame to the next.
      i += closing > 0 ? Math.floor(far / closing) : count;
      continue;
    }
    const looks = i + 1 < count ? looksBetween(passedBy(a, b, i), thickness) : 1;
    for (let k = 0; k < looks; k++) {
      const depth = depthAt(bodyA, bodyB, first + i + k / looks, limit);
      if (depth > depths[i]) [depths[i], any] = [depth, true];
    }
  }
  if (!any) return [];
  return stretchesOver(a, count, limit, (i) => depths[i]).map(({ worst, frame, ...frames }) => {
    const shifted = [a, b].find(
      ({ rider }) => rider.attachment && !rider.attachment.coupledTo && !rider.attachment.pacedBy,
    );
    return found(
      'overlap',
      'warning',
      {
        rider: a.rider.id,
        other: b.rider.id,
        ...frames,
        frame,
        distance: a.distanceAt(frame),
        figure: worst,
        unit: 'm',
        fix: shifted ? 'shift-start' : null,
      },
      ({ rider: badge }) =>
        `${badge(a.rider.id)} and ${badge(b.rider.id)} intersect, ${worst.toFixed(2)} m deep at frame ${frame}; ${framesText(frames)}.`,
    );
  });
}

/** Whether one of two is the shot's ground: riders drive on it, and another check reports their depth in it. */
function isGroundOf(a: RiderLook, b: RiderLook): boolean {
  const { model } = a.evaluated.shot.ground;
  // It lies where its model has it, as the ground does.
  const lies = ({ rider: { rest, model: worn }, moves }: RiderLook) =>
    worn === model && !moves && rest.translation.every((value) => value === 0) && rest.rotation[3] === 1;
  return model !== null && (lies(a) || lies(b));
}

/** Units of one string, and what is carried, or handed over, with what carries it. */
function belongTogether(a: RiderLook, b: RiderLook): boolean {
  const { riders } = a.evaluated.shot;
  const find = (id: string) => riders.find((rider) => rider.id === id);
  const carriers = ({ rider }: RiderLook): Set<Rider> => {
    const all = new Set<Rider>([rider]);
    for (const one of all) {
      for (const id of [one.parent, ...one.parentKeys.map((key) => key.rider)]) {
        const carrier = id === null ? undefined : find(id);
        if (carrier) all.add(carrier);
      }
    }
    return all;
  };
  const [overA, overB] = [carriers(a), carriers(b)];
  if ([...overA].some((one) => overB.has(one))) return true;
  const isUnit = ({ rider }: RiderLook) =>
    rider.attachment?.coupledTo !== null && rider.attachment?.coupledTo !== undefined;
  return (isUnit(a) || isUnit(b)) && headOf(a.rider, find) === headOf(b.rider, find);
}

function gapAt(a: RiderLook, b: RiderLook, i: number): number {
  const [p, q] = [a.at(i), b.at(i)];
  const x = b.poses[q] - a.poses[p];
  const y = b.poses[q + 1] - a.poses[p + 1];
  const z = b.poses[q + 2] - a.poses[p + 2];
  return Math.sqrt(x * x + y * y + z * z);
}

/** How far one moves against the other from a frame to the next. */
function passedBy(a: RiderLook, b: RiderLook, i: number): number {
  let square = 0;
  const [p, q, p1, q1] = [a.at(i), b.at(i), a.at(i + 1), b.at(i + 1)];
  for (let k = 0; k < 3; k++)
    square += (a.poses[p1 + k] - a.poses[p + k] - b.poses[q1 + k] + b.poses[q + k]) ** 2;
  return Math.sqrt(square);
}

/** How deep two bodies are in each other at a frame: 0 where none of their parts’ triangles meet. */
function depthAt(a: RiderBody, b: RiderBody, frame: number, limit: number): number {
  const near = limit - a.play - b.play;
  if (near > -Infinity && depthOf(a.whole(frame), b.whole(frame), near) <= near) return 0;
  const [nowA, nowB] = [a.at(frame), b.at(frame)];
  let most = 0;
  for (let i = 0; i < nowA.boxes.length; i++)
    for (let j = 0; j < nowB.boxes.length; j++) {
      const depth = depthOf(nowA.boxes[i], nowB.boxes[j], limit);
      if (depth > limit && depth > most && partsMeet(a, nowA, i, b, nowB, j)) most = depth;
    }
  return most;
}

function partsMeet(a: RiderBody, nowA: BodyNow, i: number, b: RiderBody, nowB: BodyNow, j: number): boolean {
  const back = mat4.invert(newMat4(), nowA.matrices[i] as unknown as mat4);
  if (back === null) return false;
  const placed = mat4.multiply(newMat4(), back, nowB.matrices[j] as unknown as mat4);
  return a.solids[i].meets(b.solids[j], placed as unknown as number[]);
}
