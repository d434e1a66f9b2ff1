import fc from 'fast-check';
import { GroundSurface, type GroundMesh } from '../../geometry/ground/ground-surface.js';
import { checkShot } from '../../check/check-shot.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { GroundContact } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { LOCAL, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { POSE } from '../pose/pose.js';

/** Ground as a grid of squares over the plan; squares without a height are holes. */
function terrain(
  height: (x: number, z: number) => number | null,
  size: number,
  step: number,
  width = size,
): GroundMesh {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let x = -width; x < width; x += step) {
    for (let z = -size; z < size; z += step) {
      const corners: Vec3[] = [];
      for (const [a, b] of [
        [0, 0],
        [0, step],
        [step, step],
        [step, 0],
      ]) {
        const y = height(x + a, z + b);
        if (y !== null) corners.push([x + a, y, z + b]);
      }
      if (corners.length < 4) continue;
      const first = positions.length / 3;
      corners.forEach((corner) => positions.push(...corner));
      indices.push(first, first + 1, first + 2, first, first + 2, first + 3);
    }
  }
  return { positions: Float64Array.from(positions), indices: Uint32Array.from(indices) };
}

function joined(...meshes: GroundMesh[]): GroundMesh {
  const positions = meshes.flatMap((mesh) => Array.from(mesh.positions));
  let first = 0;
  const indices = meshes.flatMap((mesh) => {
    const own = Array.from(mesh.indices, (index) => index + first);
    first += mesh.positions.length / 3;
    return own;
  });
  return { positions: Float64Array.from(positions), indices: Uint32Array.from(indices) };
}

const wheels = [
  [0.8, 2.4],
  [-0.8, 2.4],
  [0.8, 0],
  [-0.8, 0],
].map(([x, z]) => ({ node: `wheel ${x} ${z}`, centre: [x, 0.4, z] as Vec3, radius: 0.4 }));

const straight = [
  [0, 0, -30],
  [0, 0, 30],
] as Vec3[];

function ride(
  mesh: GroundMesh,
  points: readonly Vec3[] = straight,
  ground: Loose<GroundContact> = {},
  rider: Loose<Rider> = {},
  closed = false,
) {
  const shot = newShot({
    name: 't',
    range: { first: 1, last: 121 },
    models: [{ id: 'm', name: 'Cart', source: { file: 'm.glb' } }],
    ground: { model: 'm' },
    paths: [
      { id: 'p', name: 'P', basis: 'through', closed, points: points.map((position) => ({ position })) },
    ],
    riders: [
      {
        id: 'r',
        name: 'R',
        badge: 'R1',
        model: 'm',
        wheels,
        ...rider,
        attachment: {
          path: 'p',
          ground: { mode: 'stick', ...ground },
          pace: {
            unit: 'laps',
            keys: [
              { frame: 1, value: 0 },
              { frame: 121, value: 1 },
            ],
          },
        },
      },
    ],
  });
  const node = (name: string, parent: number, translation: Vec3) => ({
    name,
    parent,
    translation,
    rotation: [0, 0, 0, 1] as [number, number, number, number],
    scale: [1, 1, 1] as Vec3,
    weights: [],
  });
  const hierarchy: NodeHierarchy = {
    box: null,
    nodes: [node('cart', -1, [0, 0, 0]), ...wheels.map((wheel) => node(wheel.node, 0, wheel.centre))],
    clips: [],
  };
  const evaluated = evaluateShot(shot, {
    ground: new GroundSurface(mesh),
    hierarchies: new Map([['m', hierarchy]]),
    physics: null,
  });
  const pose = (frame: number) => {
    const out = new Float64Array(POSE.size);
    evaluated.poses[0](frame, out, 0);
    return out;
  };
  const parts = evaluated.parts(shot.riders[0]);
  /** Lowest point of a wheel in the world. */
  const contact = (frame: number, wheel: number): Vec3 => {
    const values = new Float64Array(parts.size);
    parts.pose(frame, values, 0);
    const mount = parts.nodes.find(({ name }) => name === `${wheels[wheel].node} mount`);
    if (!mount) throw new Error('the wheel is not mounted');
    const [x, y, z] = values.subarray(mount.at + LOCAL.translation, mount.at + 3);
    const now = pose(frame);
    const [qx, qy, qz, qw] = now.subarray(POSE.rotation, POSE.rotation + 4);
    const own = [x, y - 0.4, z];
    const turned = [0, 1, 2].map((k) => {
      const q = [qx, qy, qz];
      const [a, b] = [(k + 1) % 3, (k + 2) % 3];
      const cross = (v: number[], i: number, j: number) => q[i] * v[j] - q[j] * v[i];
      const t = [0, 1, 2].map((n) => 2 * cross(own, (n + 1) % 3, (n + 2) % 3));
      return own[k] + qw * t[k] + cross(t, a, b);
    });
    return turned.map((value, k) => value + now[k]) as Vec3;
  };
  return { evaluated, shot, pose, contact };
}

it('on any plane all wheels are on it, and the rider is as tilted as it', () => {
  const slope = (x: number, z: number) => 0.2 * z + 0.1 * x;
  const points: Vec3[] = [
    [0, -4, -20],
    [0, 4, 20],
  ];
  const { contact, pose } = ride(terrain(slope, 40, 4), points);
  for (const frame of [20, 61, 100]) {
    for (let wheel = 0; wheel < 4; wheel++) {
      const [x, y, z] = contact(frame, wheel);
      expect(y).toBeCloseTo(slope(x, z), 6);
    }
    // Its own up is the plane's normal.
    const [qx, , qz, qw] = pose(frame).subarray(POSE.rotation, POSE.rotation + 4);
    const up = [2 * (qx * pose(frame)[4] - qw * qz), 1 - 2 * (qx * qx + qz * qz)];
    expect(up[0] / up[1]).toBeCloseTo(-0.1, 6);
  }
});

it('on uneven ground each wheel is set on it by itself; upright where it is not to tilt', () => {
  const bumps = (x: number, z: number) => 0.15 * Math.sin(1.3 * z) * Math.cos(0.9 * x);
  for (const tilt of [true, false]) {
    const { contact, pose } = ride(terrain(bumps, 33, 0.15, 1.5), straight, { tilt });
    for (const frame of [31, 62]) {
      for (let wheel = 0; wheel < 4; wheel++) {
        const [x, y, z] = contact(frame, wheel);
        // Evened out over the size of the wheel: by less than a fifth of its bump.
        expect(Math.abs(y - bumps(x, z))).toBeLessThan(0.03);
      }
      if (!tilt) expect(pose(frame)[POSE.rotation]).toBeCloseTo(0, 9);
    }
  }
});

it('a step is climbed over the length of a wheel, without a jump', () => {
  const { contact } = ride(terrain((_, z) => (z >= 0 ? 0.2 : 0), 40, 0.5, 2));
  const heights = Array.from({ length: 400 }, (_, i) => contact(50 + i * 0.05, 0)[1]);
  const jumps = heights.slice(1).map((height, i) => Math.abs(height - heights[i]));
  expect(Math.max(...jumps)).toBeLessThan(0.03);
  expect(heights[0]).toBeCloseTo(0, 6);
  expect(heights[399]).toBeCloseTo(0.2, 6);
});

describe('a figure of eight with a bridge over itself', () => {
  const points = Array.from({ length: 24 }, (_, i): Vec3 => {
    const t = (i * Math.PI) / 12;
    const over = (t - 1.5 * Math.PI) / 0.62;
    return [32 * Math.cos(t), 3.6 * Math.exp(-over * over), 19 * Math.sin(2 * t)];
  });
  const near = (x: number, z: number) => Math.hypot(x, z) < 14;
  const flat = terrain(() => 0, 60, 5);
  // A deck over the whole middle of the eight: the way under it runs right below.
  const deck = terrain((x, z) => (near(x, z) ? 3.6 : null), 16, 1);

  it('is driven on the right level throughout', () => {
    const { pose, evaluated } = ride(joined(flat, deck), points, {}, {}, true);
    const curve = evaluated.paths.get('p');
    if (curve === undefined || !('position' in curve)) throw new Error('no curve');
    const levels = new Set<string>();
    for (let frame = 1; frame <= 121; frame++) {
      const now = pose(frame);
      const at: Vec3 = [0, 0, 0];
      curve.position(now[POSE.distance], at);
      if (Math.hypot(at[0], at[2]) > 3) continue;
      // Crossing of the path with itself: on the deck while it is high, on the ground while it is low.
      expect(now[1]).toBeCloseTo(at[1] > 1.8 ? 3.6 : 0, 1);
      levels.add(at[1] > 1.8 ? 'over' : 'under');
    }
    expect([...levels].sort()).toEqual(['over', 'under']);
  });
});

it('where there is no ground the last good height holds, and it is told at which frames', () => {
  const { pose, shot, evaluated } = ride(terrain((_, z) => (z > 5 && z < 15 ? null : 0.5), 40, 1));
  expect(pose(81)[1]).toBeCloseTo(0.5, 6);
  const [finding] = checkShot(evaluated);
  expect(finding).toMatchObject({ severity: 'warning', kind: 'off-ground', rider: shot.riders[0].id });
  expect(finding.message).toMatch(
    /R1 there is no ground within 1.5 m above and 1.5 m below its path in frames 6\d–9\d/,
  );
  expect(shot.riders).toHaveLength(1);
});

it('by the ground’s normal alone a rider keeps the height of its path', () => {
  const mesh = terrain((x) => 0.5 * x, 40, 4);
  const { shot } = ride(mesh);
  const leaning = newShot({
    ...shot,
    riders: shot.riders.map((rider) => ({
      ...rider,
      attachment: rider.attachment && {
        ...rider.attachment,
        ground: { ...rider.attachment.ground, mode: 'none' as const },
        facing: { ...rider.attachment.facing, reference: 'ground' as const },
        offset: { ...rider.attachment.offset, rise: 2 },
      },
    })),
  });
  const evaluated = evaluateShot(leaning, {
    ground: new GroundSurface(mesh),
    hierarchies: new Map(),
    physics: null,
  });
  const pose = new Float64Array(POSE.size);
  evaluated.poses[0](50, pose, 0);
  // Two metres along the normal of a slope of one in two: up by 2 × 2/√5, aside by 2 × 1/√5.
  expect(pose[1]).toBeCloseTo(4 / Math.sqrt(5), 6);
  expect(pose[0]).toBeCloseTo(-2 / Math.sqrt(5), 6);
});

/** Endless ground, however far off it is. */
class SoughtEverywhere extends GroundSurface {
  override isFarFrom(): boolean {
    return false;
  }
}

/** Ground that counts how often it was reported as too far off. */
class Counted extends GroundSurface {
  far = 0;

  override isFarFrom(...asked: Parameters<GroundSurface['isFarFrom']>): boolean {
    const isFar = super.isFarFrom(...asked);
    this.far += Number(isFar);
    return isFar;
  }
}

it('that the ground is too far off changes no pose, whatever a rider does beside it, before it and beyond', () => {
  const hill = terrain((x, z) => 0.1 * x + Math.sin(z), 6, 1);
  const metres = (most: number) => fc.integer({ min: -most, max: most });
  let far = 0;
  fc.assert(
    fc.property(
      fc.constantFrom('origin', 'frontAxle', 'rearAxle', 'bothAxles'),
      fc.record({ side: metres(9), yaw: fc.constantFrom(0, 30, 180), along: metres(12) }),
      fc.option(
        fc.record({
          translation: fc.tuple(metres(9), metres(1), metres(9)),
          turn: metres(180),
          size: fc.constantFrom(0.25, 1, 3),
        }),
      ),
      fc.boolean(),
      metres(25),
      metres(25),
      (anchor, offset, displaced, keyed, from, to) => {
        const offsetKeys = keyed ? [{ frame: 1 }, { frame: 21, side: -offset.side, yaw: 20 }] : [];
        const shot = newShot({
          name: 't',
          range: { first: 1, last: 21 },
          models: [{ id: 'm', name: 'M', source: { file: 'm.glb' } }],
          ground: { model: 'm' },
          paths: [
            {
              id: 'p',
              name: 'P',
              points: [
                [-40, 3, -30],
                [-3, 0, 2],
                [4, 1, -4],
                [50, -6, 20],
              ].map((position) => ({ position: position as Vec3 })),
            },
          ],
          riders: [
            {
              id: 'r',
              name: 'R',
              wheels,
              chassis: { frontAxle: 2.4, rearAxle: 0 },
              attachment: {
                path: 'p',
                anchor: anchor as 'origin',
                offset,
                offsetKeys,
                rideTransform: displaced,
                ground: { mode: 'stick', up: 3, down: 3 },
                pace: {
                  keys: [
                    { frame: 1, value: 52 + from, ease: 'linear' },
                    { frame: 21, value: 52 + to, ease: 'linear' },
                  ],
                },
              },
            },
          ],
        });
        const counted = new Counted(hill);
        const posesOn = (ground: GroundSurface) => {
          const { poses } = evaluateShot(shot, { ground, hierarchies: new Map(), physics: null });
          const out = new Float64Array(20 * POSE.size);
          // From behind and from before.
          for (let i = 0; i < 20; i++) poses[0](i % 2 === 0 ? 1 + i : 21 - i, out, i * POSE.size);
          return out;
        };
        expect(posesOn(counted)).toEqual(posesOn(new SoughtEverywhere(hill)));
        far += counted.far;
      },
    ),
    { numRuns: 100 },
  );
  expect(far).toBeGreaterThan(1_000);
});
