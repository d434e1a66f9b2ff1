// Shots and grounds that the tests ride on; not part of what core gives.
import { GroundSurface } from '../src/geometry/ground/ground-surface.js';
import { newShot, type Loose } from '../src/document/new-shot.js';
import type { ShotPath } from '../src/document/shot-path.js';
import type { Rider } from '../src/document/shot-rider.js';
import type { Shot } from '../src/document/shot.js';
import type { EvaluatedShot } from '../src/shot/evaluate/evaluate-shot.js';
import type { SceneAssets } from '../src/shot/evaluate/scene-assets.js';
import type { Quat, Vec3 } from '../src/geometry/math/vec.js';
import { POSE } from '../src/motion/pose/pose.js';

/** A circle about the origin that turns left, from (−radius, 0, 0) towards +Z: nine rational control points, exact. */
export function circle(radius: number, closed = false): Loose<ShotPath> {
  const points = Array.from({ length: 9 }, (_, i) => {
    const reach = i % 2 === 0 ? radius : radius * Math.SQRT2;
    const a = (i * Math.PI) / 4;
    return {
      position: [-reach * Math.cos(a), 0, reach * Math.sin(a)] as Vec3,
      weight: i % 2 === 0 ? 1 : Math.SQRT1_2,
    };
  });
  const knots = [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4];
  return { id: 'p', name: 'P', basis: 'nurbs', degree: 2, knots, points, closed };
}

/** Straight runs through places. */
export const runs = (...positions: Vec3[]): Loose<ShotPath> => ({
  id: 'p',
  name: 'P',
  basis: 'polyline',
  points: positions.map((position) => ({ position })),
});

/** A straight path of a length along +Z. */
export const line = (length: number): Loose<ShotPath> => runs([0, 0, 0], [0, 0, length]);

/** Keys from a place to another at even speed. */
export const even = (from: number, to: number, first = 1, last = 97) => ({
  keys: [
    { frame: first, value: from },
    { frame: last, value: to },
  ],
});

/** A shot of 96 steps at 24 frames a second. */
export const shotOf = (
  paths: Loose<ShotPath>[],
  riders: Loose<Rider>[],
  rest: Loose<Omit<Shot, 'format' | 'version' | 'name'>> = {},
): Shot => newShot({ name: 't', fps: 24, range: { first: 1, last: 97 }, paths, riders, ...rest });

/** A square plane through the origin that rises by so much towards +X and +Z. */
export function slope(towardsX: number, towardsZ: number, reach = 400): GroundSurface {
  const corner = (x: number, z: number) => [x, towardsX * x + towardsZ * z, z];
  return new GroundSurface({
    positions: Float64Array.from([
      ...corner(-reach, -reach),
      ...corner(reach, -reach),
      ...corner(reach, reach),
      ...corner(-reach, reach),
    ]),
    indices: Uint32Array.from([0, 2, 1, 0, 3, 2]),
  });
}

/** Ground of waves in a fine grid of triangles. */
export function waves(height: (x: number, z: number) => number, reach = 60, cell = 0.25): GroundSurface {
  const n = Math.round((2 * reach) / cell);
  const positions: number[] = [];
  const indices: number[] = [];
  for (let i = 0; i <= n; i++)
    for (let j = 0; j <= n; j++) {
      const [x, z] = [-reach + i * cell, -reach + j * cell];
      positions.push(x, height(x, z), z);
      if (i === n || j === n) continue;
      const a = i * (n + 1) + j;
      indices.push(a, a + 1, a + n + 1, a + n + 1, a + 1, a + n + 2);
    }
  return new GroundSurface({
    positions: Float64Array.from(positions),
    indices: Uint32Array.from(indices),
  });
}

export const onGround = (ground: GroundSurface): SceneAssets => ({
  ground,
  hierarchies: new Map(),
  physics: null,
});

/** A rider's pose at a frame, by id. */
export function poseAt({ shot, poses }: EvaluatedShot, id: string, frame: number): Float64Array {
  const pose = new Float64Array(POSE.size);
  poses[shot.riders.findIndex((rider) => rider.id === id)](frame, pose, 0);
  return pose;
}

export const placeOf = (pose: Float64Array): Vec3 => [pose[0], pose[1], pose[2]];
export const turnOf = (pose: Float64Array): Quat => [pose[3], pose[4], pose[5], pose[6]];

/** The way a pose's own +Z points. */
export function noseOf(pose: Float64Array): Vec3 {
  const [x, y, z, w] = turnOf(pose);
  return [2 * (x * z + y * w), 2 * (y * z - x * w), 1 - 2 * (x * x + y * y)];
}
