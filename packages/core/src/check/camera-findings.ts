import { aimedAt, axesOf } from '../document/rider-axes.js';
import { mat4, vec3 } from 'gl-matrix';
import type { GroundMesh } from '../geometry/ground/ground-surface.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { axisVector } from '../motion/pose/axes.js';
import { compileFocal, pictureHalves } from '../motion/pose/camera.js';
import { POSE } from '../motion/pose/pose.js';
import { pointOn } from '../motion/pose/point-on.js';
import { sourceFrame } from '../motion/timing/retiming.js';
import { boxMeetsStretch, distanceToBox } from '../geometry/solid/turned-box.js';
import { solidOf } from './check-scene.js';
import type { Solid } from './solid.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { staysApart } from './rider-look.js';
import { framesText, stretchesOver } from './stretches.js';
import { newMat4 } from '../geometry/math/new-matrix.js';

/** Findings of a camera's picture: whether its target is in it, and what hides the target. */
export function findUnseen(camera: RiderLook, others: readonly RiderLook[], set: Solid | null): RawFinding[] {
  const { rider, evaluated, first, count, fps, limits } = camera;
  const target = evaluated.target(rider);
  if (rider.camera === null || target === null) return [];
  const aimed = aimedAt(rider)?.rider ?? null;
  const at = (i: number): { eye: Vec3; place: Vec3 } => {
    const from = camera.at(i);
    const place: Vec3 = [0, 0, 0];
    target(first + i, place);
    return { eye: [camera.poses[from], camera.poses[from + 1], camera.poses[from + 2]], place };
  };
  const before = blockers(camera, others, aimed);
  /** Rider in front of the target, by frame; null for the static set, and the ground apart. */
  const hides = new Map<number, { readonly by: string | null; readonly isGround: boolean }>();
  const ground = evaluated.assets.ground?.mesh ?? null;
  const hidden = (i: number): number => {
    const { eye, place } = at(i);
    const by = blockerOf(eye, place, first + i, before, set);
    const isGround = by === undefined && isBehind(ground, eye, place);
    if (by === undefined && !isGround) return 0;
    hides.set(first + i, { by: by ?? null, isGround });
    return 1;
  };
  const outside = pictureEdge(camera);
  return [
    ...stretchesOver(camera, count, 1, (i) => outside(i, at(i).place)).map(({ worst, frame, ...frames }) =>
      found(
        'out-of-frame',
        'warning',
        {
          rider: rider.id,
          other: aimed,
          ...frames,
          frame,
          distance: camera.distanceAt(frame),
          figure: worst,
          unit: 'of half the picture',
          fix: 'turn-freely',
        },
        ({ rider: badge }) =>
          `The target of ${badge(rider.id)}${aimed === null ? '' : `, ${badge(aimed)},`} leaves the picture ${framesText(frames)}.`,
      ),
    ),
    ...stretchesOver(camera, count, 0, hidden)
      .filter(({ from, to }) => (to - from + 1) / fps > limits.hidden)
      .map(({ frame, from, to }) => {
        const { by, isGround } = hides.get(frame) ?? { by: null, isGround: false };
        const name = isGround ? 'the ground' : 'the set';
        return found(
          'hidden',
          'warning',
          {
            rider: rider.id,
            other: by,
            from,
            to,
            frame,
            distance: camera.distanceAt(frame),
            figure: (to - from + 1) / fps,
            unit: 's',
            fix: null,
          },
          ({ rider: badge }) =>
            `${badge(rider.id)} does not see ${aimed === null ? 'its target' : badge(aimed)}: ${by === null ? name : badge(by)} hides it for ${((to - from + 1) / fps).toFixed(1)} s, ${framesText({ from, to })}.`,
        );
      }),
  ];
}

/** Riders that may hide a camera's target: all except itself, the target, and what carries or is carried by either. */
function blockers({ rider }: RiderLook, others: readonly RiderLook[], aimed: string | null): RiderLook[] {
  return others.filter(
    ({ rider: other, body }) =>
      body !== null &&
      other.id !== rider.id &&
      other.id !== aimed &&
      other.id !== rider.parent &&
      other.parent !== rider.id &&
      (aimed === null || other.parent !== aimed),
  );
}

/** A target may sink this far into its ground: the ground hides it only if it also hides a point this far above it, metres. */
const ABOVE = 0.3;

/** Whether the ground rises, or a floor lies, between an eye and a place. */
function isBehind(ground: GroundMesh | null, eye: Vec3, place: Vec3): boolean {
  if (ground === null) return false;
  const { level } = ground;
  return [0, ABOVE].every((above) => {
    const seen: Vec3 = [place[0], place[1] + above, place[2]];
    if (level !== undefined && eye[1] > level !== seen[1] > level) return true;
    const way = vec3.subtract([0, 0, 0], seen, eye);
    const far = vec3.length(way) - SKIN;
    if (far <= 0) return false;
    return solidOf(ground).along(eye, vec3.normalize(way, way) as Vec3, far) < Infinity;
  });
}

/** So near to the target what is met is the target’s own, metres. */
const SKIN = 0.05;

/** Body between two points at a frame: a rider's id, null for the static set, undefined for none. */
function blockerOf(
  eye: Vec3,
  place: Vec3,
  frame: number,
  riders: readonly RiderLook[],
  set: Solid | null,
): string | null | undefined {
  const way = vec3.subtract([0, 0, 0], place, eye);
  const far = vec3.length(way) - SKIN;
  if (far <= 0) return undefined;
  vec3.normalize(way, way);
  if (set !== null && set.along(eye, way, far) < Infinity) return null;
  for (const look of riders) {
    const { rider, body, poses } = look;
    if (body === null) continue;
    const from = look.at(frame - look.first);
    const beside = vec3.subtract([0, 0, 0], [poses[from], poses[from + 1], poses[from + 2]], eye);
    const along = Math.max(0, Math.min(far, vec3.dot(beside, way)));
    vec3.scaleAndAdd(beside, beside, way, -along);
    if (vec3.length(beside) > body.reach) continue;
    const { boxes, matrices } = body.at(frame);
    for (let i = 0; i < boxes.length; i++) {
      if (!boxMeetsStretch(boxes[i], eye, place)) continue;
      if (meetsInside(body.solids[i], matrices[i], eye, place, far)) return rider.id;
    }
  }
  return undefined;
}

/** Whether a segment in world space meets a solid that is placed by a matrix. */
function meetsInside(solid: Solid, matrix: Float64Array, eye: Vec3, place: Vec3, far: number): boolean {
  const back = mat4.invert(newMat4(), matrix as unknown as mat4);
  if (back === null) return false;
  const [a, b] = [eye, place].map((one) => vec3.transformMat4([0, 0, 0], one, back) as Vec3);
  const way = vec3.subtract([0, 0, 0], b, a) as Vec3;
  const whole = vec3.length(way);
  if (whole === 0) return false;
  vec3.scale(way, way, 1 / whole);
  // Of the whole way as much as there is in the world, whatever the scale.
  return solid.along(a, way, (whole * far) / (far + SKIN)) < Infinity;
}

/** Of a place behind the camera. */
const BEHIND = 10;

/** By frame how far a place is from the middle of the picture: 1 at its edge, more beyond it. */
function pictureEdge(look: RiderLook): (i: number, place: Vec3) => number {
  const { rider, evaluated, first, poses } = look;
  const camera = rider.camera as NonNullable<typeof rider.camera>;
  const focal = compileFocal(camera);
  const ahead = axisVector(axesOf(rider).forward);
  const up = axisVector(axesOf(rider).up);
  const left = vec3.cross([0, 0, 0], up, ahead) as Vec3;
  return (i, place) => {
    const from = look.at(i);
    const pose = poses.subarray(from, from + POSE.size);
    const beside = [0, 1, 2].map((k) => place[k] - pose[k]);
    const along = (axis: Vec3) => {
      const tip = pointOn(pose, axis);
      return [0, 1, 2].reduce((sum, k) => sum + (tip[k] - pose[k]) * beside[k], 0);
    };
    const depth = along(ahead);
    if (depth <= 0) return BEHIND;
    const { across, upward } = pictureHalves(camera, focal(sourceFrame(evaluated.shot, first + i)));
    return Math.max(Math.abs(along(left)) / (across * depth), Math.abs(along(up)) / (upward * depth));
  };
}

/** A camera that comes too near to a rider: to its real surface. */
export function findNear(camera: RiderLook, other: RiderLook): RawFinding[] {
  const { rider, limits, first, count } = camera;
  const { body } = other;
  if (rider.camera === null || body === null || rider.id === other.rider.id) return [];
  // A carrier and what it carries are meant to be together.
  if (rider.parent === other.rider.id || other.rider.parent === rider.id) return [];
  const limit = limits.near;
  if (staysApart(camera.extent, other.extent, body.reach + limit)) return [];
  const nearness = (i: number): number => {
    const [p, q] = [camera.at(i), other.at(i)];
    const eye: Vec3 = [camera.poses[p], camera.poses[p + 1], camera.poses[p + 2]];
    const gap = Math.hypot(...[0, 1, 2].map((k) => other.poses[q + k] - eye[k]));
    if (gap > body.reach + limit) return 0;
    const { boxes, matrices } = body.at(first + i);
    let near = limit;
    boxes.forEach((box, part) => {
      if (distanceToBox(box, eye) < near)
        near = Math.min(near, surfaceDistance(body.solids[part], matrices[part], eye, near));
    });
    return limit - near;
  };
  return stretchesOver(camera, count, 1e-9, nearness).map(({ worst, frame, ...frames }) =>
    found(
      'near',
      'warning',
      {
        rider: rider.id,
        other: other.rider.id,
        ...frames,
        frame,
        distance: camera.distanceAt(frame),
        figure: worst,
        unit: 'm too near',
        fix: rider.attachment === null ? null : 'keep-away',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} comes within ${(limit - worst).toFixed(2)} m of the surface of ${badge(other.rider.id)} at frame ${frame}, nearer than ${limit} m ${framesText(frames)}.`,
    ),
  );
}

/** Distance of a point from a solid placed by a matrix, metres: exact if its scale is even. */
function surfaceDistance(solid: Solid, matrix: Float64Array, eye: Vec3, most: number): number {
  const back = mat4.invert(newMat4(), matrix as unknown as mat4);
  if (back === null) return Infinity;
  const size = Math.cbrt(Math.abs(mat4.determinant(matrix as unknown as mat4)));
  const own = vec3.transformMat4([0, 0, 0], eye, back) as Vec3;
  return solid.distanceTo(own, most / size) * size;
}
