import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import fc from 'fast-check';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { ShotPath } from '../../document/shot-path.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { POSE } from '../pose/pose.js';
import { compileAxlePlacement } from './axle-placement.js';

/** Axles 3 m apart, couplings a metre beyond them. */
const chassis = { frontAxle: 1.5, rearAxle: -1.5, frontCoupling: 2.5, rearCoupling: -2.5 };

function evaluated(path: Loose<ShotPath>, riders: Loose<Rider>[]) {
  return evaluateShot(
    newShot({
      name: 't',
      fps: 10,
      range: { first: 0, last: 100 },
      paths: [{ ...path, id: 'p', name: 'P' }],
      riders,
    }),
    NO_ASSETS,
  );
}
const unit = (id: string, attachment: Loose<Attachment> = {}): Loose<Rider> => ({
  id,
  name: id,
  chassis,
  attachment: { path: 'p', anchor: 'bothAxles', ...attachment },
});
/** Once over the path in a hundred frames. */
const over: Loose<Attachment> = {
  pace: {
    unit: 'laps',
    keys: [
      { frame: 0, value: 0 },
      { frame: 100, value: 1 },
    ],
  },
};

function poseOf(shot: ReturnType<typeof evaluated>, rider: number, frame: number): Float64Array {
  const pose = new Float64Array(POSE.size);
  shot.poses[rider](frame, pose, 0);
  return pose;
}

/** A place of a rider on the line of its nose, in the world. */
function onNose(pose: Float64Array, ahead: number): Vec3 {
  const [x, y, z, qx, qy, qz, qw] = pose;
  return [
    x + ahead * 2 * (qx * qz + qy * qw),
    y + ahead * 2 * (qy * qz - qx * qw),
    z + ahead * (1 - 2 * (qx * qx + qy * qy)),
  ];
}

const gap = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** How far a place is from a curve near a distance, metres. */
function offCurve(curve: CompiledPath, place: Vec3, from: number, to: number): number {
  const here: Vec3 = [0, 0, 0];
  const at = (s: number) => {
    curve.position(s, here);
    return gap(here, place);
  };
  let best = from;
  for (let s = from; s <= to; s += 0.02) if (at(s) < at(best)) best = s;
  for (let step = 0.02; step > 1e-9; step /= 2) {
    for (const s of [best - step, best + step]) if (at(s) < at(best)) best = s;
  }
  return at(best);
}

it('both axles are on the curve, and the chord between them is the wheelbase, on any path', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.integer({ min: -20, max: 20 }),
          fc.integer({ min: -4, max: 4 }),
          fc.integer({ min: -20, max: 20 }),
        ),
        { minLength: 4, maxLength: 8 },
      ),
      fc.constantFrom('through', 'bspline', 'polyline'),
      fc.boolean(),
      fc.double({ min: 0.2, max: 0.95, noNaN: true }),
      (places, basis, closed, part) => {
        const spread = places.map(([x, y, z], i): Vec3 => [x + 30 * i, y, z]);
        const shot = evaluated(
          { basis: basis as 'through', closed, points: spread.map((position) => ({ position })) },
          [unit('r', { pace: { unit: 'laps', start: { value: part } } })],
        );
        const curve = shot.paths.get('p') as CompiledPath;
        const s = part * curve.length;
        const here: Vec3 = [0, 0, 0];
        curve.position(s, here);
        const pose = poseOf(shot, 0, 0);
        const front = onNose(pose, 1.5);
        const rear = onNose(pose, -1.5);
        expect(gap(front, here)).toBeLessThan(1e-6);
        expect(Math.abs(gap(front, rear) - 3)).toBeLessThan(1e-6);
        expect(offCurve(curve, rear, s - 12, s - 2.9)).toBeLessThan(1e-6);
      },
    ),
    { numRuns: 60 },
  );
});

it('near the start of an open path the rear axle stands straight behind it', () => {
  const line = {
    basis: 'polyline' as const,
    points: [
      [0, 0, 0],
      [0, 0, 40],
    ].map((position) => ({ position: position as Vec3 })),
  };
  const pose = poseOf(evaluated(line, [unit('r', { pace: { start: { value: 1 } } })]), 0, 0);
  expect(onNose(pose, 1.5)).toEqual([0, 0, 1].map((v) => expect.closeTo(v, 9)));
  expect(onNose(pose, -1.5)).toEqual([0, 0, -2].map((v) => expect.closeTo(v, 9)));
});

it('held by the rear axle, that axle is on the curve and looks along it', () => {
  const ring = {
    basis: 'through' as const,
    closed: true,
    points: [
      [10, 0, 0],
      [0, 0, 10],
      [-10, 0, 0],
      [0, 0, -10],
    ].map((position) => ({ position: position as Vec3 })),
  };
  const shot = evaluated(ring, [unit('r', { anchor: 'rearAxle', pace: { start: { value: 7 } } })]);
  const curve = shot.paths.get('p') as CompiledPath;
  const frame = new Float64Array(12);
  curve.frame(7, frame, 0);
  const pose = poseOf(shot, 0, 0);
  const rear = onNose(pose, -1.5);
  const ahead = onNose(pose, -0.5);
  for (let k = 0; k < 3; k++) {
    expect(rear[k]).toBeCloseTo(frame[k], 9);
    expect(ahead[k] - rear[k]).toBeCloseTo(frame[9 + k], 9);
  }
});

describe('a string', () => {
  const straight = {
    basis: 'polyline' as const,
    points: [
      [0, 0, 0],
      [0, 0, 100],
    ].map((position) => ({ position: position as Vec3 })),
  };
  const ring = {
    basis: 'through' as const,
    closed: true,
    points: [
      [20, 0, 0],
      [0, 2, 15],
      [-20, 0, 0],
      [0, -1, -15],
    ].map((position) => ({ position: position as Vec3 })),
  };
  const string: Loose<Rider>[] = [
    unit('engine', over),
    unit('first', { coupledTo: { rider: 'engine', gap: 0.5 } }),
    unit('second', { coupledTo: { rider: 'first', gap: 0.5 } }),
  ];

  it('hangs coupling to coupling: on a straight each is a length and a gap behind', () => {
    const shot = evaluated(straight, string);
    for (const frame of [40, 63.5, 99]) {
      const [a, b, c] = [0, 1, 2].map((i) => poseOf(shot, i, frame)[2]);
      expect(a - b).toBeCloseTo(5.5, 9);
      expect(b - c).toBeCloseTo(5.5, 9);
    }
  });

  it('in bends every unit keeps both its axles on the curve, and its couplings keep the gap along it', () => {
    const shot = evaluated(ring, string);
    const curve = shot.paths.get('p') as CompiledPath;
    for (const frame of [30, 55.5, 90]) {
      const poses = [0, 1, 2].map((i) => poseOf(shot, i, frame));
      for (const pose of poses) {
        expect(Math.abs(gap(onNose(pose, 1.5), onNose(pose, -1.5)) - 3)).toBeLessThan(1e-6);
        const s = pose[POSE.distance];
        expect(offCurve(curve, onNose(pose, -1.5), s - 5, s - 2)).toBeLessThan(1e-6);
      }
      // From the rear axle a metre to the coupling, the gap, and a metre to the next front axle.
      for (const [ahead, behind] of [
        [poses[0], poses[1]],
        [poses[1], poses[2]],
      ]) {
        const rear = ahead[POSE.distance];
        const here: Vec3 = [0, 0, 0];
        const behindPlace: Vec3 = [0, 0, 0];
        curve.position(behind[POSE.distance] + 2.5, here);
        curve.position(behind[POSE.distance], behindPlace);
        expect(gap(here, onNose(ahead, -1.5))).toBeLessThan(1e-6);
        expect(gap(behindPlace, onNose(behind, 1.5))).toBeLessThan(1e-6);
        expect(rear).toBeGreaterThan(behind[POSE.distance]);
      }
    }
  });

  it('its speed is how fast its place changes', () => {
    const shot = evaluated(ring, string);
    for (const frame of [33, 71]) {
      const before = poseOf(shot, 2, frame - 1e-4)[POSE.distance];
      const after = poseOf(shot, 2, frame + 1e-4)[POSE.distance];
      expect(poseOf(shot, 2, frame)[POSE.speed]).toBeCloseTo(((after - before) / 2e-4) * 10, 4);
    }
  });

  it('turned round, it is drawn the other way: what follows is on the far side', () => {
    const turned = string.map((rider) => ({
      ...rider,
      attachment: { ...rider.attachment, offset: { yaw: 180 } },
    }));
    const shot = evaluated(straight, turned);
    const [a, b] = [0, 1].map((i) => poseOf(shot, i, 50)[2]);
    expect(b - a).toBeCloseTo(5.5, 9);
  });
});

it('timing taken from another is that of its leader, later and faster', () => {
  const path = {
    basis: 'polyline' as const,
    points: [
      [0, 0, 0],
      [0, 0, 100],
    ].map((position) => ({ position: position as Vec3 })),
  };
  const keys = [
    { frame: 0, value: 0, ease: 'smooth' as const },
    { frame: 40, value: 30, ease: 'smooth' as const },
    { frame: 90, value: 90 },
  ];
  const shot = evaluated(path, [
    { id: 'a', name: 'A', attachment: { path: 'p', offset: { along: 4 }, pace: { keys } } },
    {
      id: 'b',
      name: 'B',
      attachment: { path: 'p', offset: { along: -2 }, pacedBy: { rider: 'a', delay: 12, rate: 1.5 } },
    },
  ]);
  for (const frame of [20, 37.5, 60]) {
    const leader = poseOf(shot, 0, (frame - 12) * 1.5);
    const copy = poseOf(shot, 1, frame);
    expect(copy[POSE.distance]).toBeCloseTo(leader[POSE.distance] - 6, 9);
    expect(copy[POSE.speed]).toBeCloseTo(leader[POSE.speed] * 1.5, 9);
  }
});

it('the place it is told by is as far from its origin as said, whatever holds it', () => {
  const points = [
    [0, 0, 0],
    [30, 4, 10],
    [10, -3, 40],
    [-20, 2, 10],
  ].map((position) => ({ position: position as Vec3 }));
  const path = evaluated({ basis: 'through', points }, []).paths.get('p') as CompiledPath;
  const frame = new Float64Array(12);
  const about: Vec3 = [0, 0, 0];
  for (const anchor of ['origin', 'frontAxle', 'rearAxle', 'bothAxles'] as const)
    for (const travelSign of [1, -1] as const)
      for (const s of [-4, 0, 2, 31.7, path.length, path.length + 9]) {
        const placement = compileAxlePlacement(path, 'world', anchor, chassis, travelSign);
        placement.frame(s, frame);
        placement.about(s, about);
        expect(gap([frame[0], frame[1], frame[2]], about)).toBeCloseTo(placement.around, 9);
      }
});

it('far along a path, where places have noise of their own, the second axle is found in a few looks', () => {
  const points = [
    [0, 0, 0],
    [90_000, 8_000, 70_000],
    [40_000, -9_000, 130_000],
    [-60_000, 5_000, 20_000],
    [-90_000, 0, -110_000],
    [70_000, 9_000, -80_000],
  ].map((position) => ({ position: position as Vec3 }));
  const path = evaluated({ basis: 'through', points }, []).paths.get('p') as CompiledPath;
  expect(path.length).toBeGreaterThan(5e5);
  let looks = 0;
  const way = path.way.bind(path);
  path.way = (...given) => {
    looks++;
    way(...given);
  };
  const placement = compileAxlePlacement(path, 'world', 'bothAxles', chassis, 1);
  const frame = new Float64Array(12);
  const front: Vec3 = [0, 0, 0];
  const places = 500;
  for (let i = 1; i <= places; i++) {
    const s = (path.length * (i - 0.5)) / places;
    placement.frame(s, frame);
    path.position(s, front);
    const origin: Vec3 = [frame[0], frame[1], frame[2]];
    expect(Math.abs(gap(origin, front) - chassis.frontAxle)).toBeLessThan(1e-9);
  }
  expect(looks / places).toBeLessThan(8);
});
