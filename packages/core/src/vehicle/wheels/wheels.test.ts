import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import fc from 'fast-check';
import { quat, vec3 } from 'gl-matrix';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Rider } from '../../document/shot-rider.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE } from '../../motion/pose/pose.js';
import { springTrack } from './body-lean.js';

const HALF = Math.SQRT1_2;
const LAP = 2 * Math.PI;

/** A true circle to the left, once round, as a rational quadratic; it begins heading along +Z. */
function circle(radius: number): Loose<ShotPath> {
  const corners = [
    [1, 0],
    [1, 1],
    [0, 1],
    [-1, 1],
    [-1, 0],
    [-1, -1],
    [0, -1],
    [1, -1],
    [1, 0],
  ];
  return {
    basis: 'nurbs',
    degree: 2,
    knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
    points: corners.map(([u, v], i) => ({
      position: [-radius * u, 0, radius * v],
      weight: i % 2 === 1 ? HALF : 1,
    })),
  };
}

const wheel = (x: number, z: number, steers = false, radius = 0.4) => ({
  node: `${x > 0 ? 'left' : 'right'} ${z}`,
  centre: [x, radius, z] as Vec3,
  radius,
  steers,
});
/** A vehicle whose rear axle is under its origin. */
const wheels = [
  wheel(0.8, 2.5, true),
  wheel(-0.8, 2.5, true),
  wheel(0.8, 0, false, 0.5),
  wheel(-0.8, 0, false, 0.5),
];
const chassis = { frontAxle: 2.5, rearAxle: 0, frontCoupling: 3.2, rearCoupling: -1 };

function drive(path: Loose<ShotPath>, attachment: Loose<Attachment> = {}, rider: Loose<Rider> = {}) {
  const shot = newShot({
    name: 't',
    fps: 24,
    range: { first: 0, last: 100 },
    paths: [{ ...path, id: 'p', name: 'P' }],
    riders: [
      {
        id: 'r',
        name: 'R',
        wheels,
        chassis,
        ...rider,
        attachment: {
          path: 'p',
          pace: {
            unit: 'laps',
            keys: [
              { frame: 0, value: 0 },
              { frame: 100, value: 1 },
            ],
          },
          ...attachment,
        },
      },
    ],
  });
  const evaluated = evaluateShot(shot, NO_ASSETS);
  const [own] = shot.riders;
  const gauge = (kind: string, part: string) => {
    const found = evaluated.gauges(own).find((one) => one.kind === kind && one.part === part);
    if (!found) throw new Error(`no ${kind} of ${part}`);
    return found.value;
  };
  const pose = (frame: number) => {
    const out = new Float64Array(POSE.size);
    evaluated.poses[0](frame, out, 0);
    return out;
  };
  /** World position of a point of the rider. */
  const place = (frame: number, own: Vec3): Vec3 => {
    const now = pose(frame);
    const turn: Quat = [now[3], now[4], now[5], now[6]];
    const out = vec3.transformQuat([0, 0, 0], own, turn) as Vec3;
    return out.map((value, k) => value + now[k]) as Vec3;
  };
  return { evaluated, gauge, pose, place };
}

describe('on a circle', () => {
  const radius = 8;
  it.each([0.8, -0.8])('a wheel %s m to the left has turned s (1 − y / R) / r', (y) => {
    const { gauge } = drive(circle(radius));
    const turns = gauge('turns', `${y > 0 ? 'left' : 'right'} 0`);
    for (const frame of [1, 37, 50, 100]) {
      const s = (LAP * radius * frame) / 100;
      const expected = (s * (1 - y / radius)) / 0.5 / LAP;
      expect(Math.abs(turns(frame) / expected - 1)).toBeLessThan(1e-9);
    }
  });

  it.each<[Loose<Attachment>, number]>([
    [{}, radius],
    [{ anchor: 'rearAxle' }, radius],
    // Its rear axle cuts the bend: with the front on the circle it runs on a smaller one.
    [{ anchor: 'frontAxle' }, Math.sqrt(radius ** 2 - 2.5 ** 2)],
  ])('each front wheel steers by its own circle: %j', (attachment, rear) => {
    const path = 'anchor' in attachment && attachment.anchor === 'frontAxle' ? round(radius) : circle(radius);
    const { gauge } = drive(path, attachment);
    for (const y of [0.8, -0.8]) {
      const steer = gauge('steer', `${y > 0 ? 'left' : 'right'} 2.5`)(50);
      // A through-curve is a circle but for a few parts in ten thousand.
      const expected = (Math.atan(2.5 / rear / (1 - y / rear)) * 180) / Math.PI;
      expect(Math.abs(steer / expected - 1)).toBeLessThan(path.basis === 'nurbs' ? 1e-6 : 2e-3);
    }
  });

  it('the steering wheel is turned by its ratio of the middle of the axle', () => {
    const { gauge } = drive(circle(radius), {}, { steering: { node: 'helm', ratio: 14 } });
    expect(gauge('steering', 'helm')(30)).toBeCloseTo((14 * Math.atan(2.5 / radius) * 180) / Math.PI, 5);
  });

  it('what is scaled rolls by its own size', () => {
    const { gauge } = drive(circle(radius), {}, { rest: { scale: [2, 2, 2] } });
    const expected = (LAP * radius * (1 - 1.6 / radius)) / 1 / LAP;
    expect(gauge('turns', 'left 0')(100)).toBeCloseTo(expected, 8);
  });
});

/** A closed curve through points of a circle. */
function round(radius: number): Loose<ShotPath> {
  const points = Array.from({ length: 48 }, (_, i) => ({
    position: [-radius * Math.cos((i * LAP) / 48), 0, radius * Math.sin((i * LAP) / 48)] as Vec3,
  }));
  return { basis: 'through', closed: true, points };
}

it('turns up a hill by its length in space, backward in reverse, and back to where they were', () => {
  const hill: Loose<ShotPath> = {
    basis: 'polyline',
    points: [{ position: [0, 0, 0] }, { position: [0, 30, 40] }],
  };
  const keys = [
    { frame: 0, value: 0 },
    { frame: 50, value: 50 },
    { frame: 100, value: 10 },
  ];
  const { gauge } = drive(hill, { pace: { keys } });
  const turns = gauge('turns', 'left 0');
  expect(turns(50)).toBeCloseTo(50 / 0.5 / LAP, 9);
  expect(turns(100)).toBeCloseTo(10 / 0.5 / LAP, 9);
  expect(turns(75) - turns(60)).toBeLessThan(0);
});

it('no wheel slides: its contact point stands still, on any path and at any speed', () => {
  const place = fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }));
  fc.assert(
    fc.property(
      fc.uniqueArray(place, { minLength: 4, maxLength: 7, selector: ([x, z]) => `${x >> 3} ${z >> 3}` }),
      fc.constantFrom('origin' as const, 'rearAxle' as const, 'frontAxle' as const),
      fc.double({ min: 5, max: 95, noNaN: true }),
      (places, anchor, frame) => {
        const path: Loose<ShotPath> = {
          basis: 'bspline',
          degree: 5,
          points: places.map(([x, z], i) => ({ position: [x, 0, z + 40 * i] as Vec3 })),
        };
        const { gauge, place: at, evaluated } = drive(path, { anchor });
        const h = 1e-4;
        for (const { node, centre, radius, steers } of wheels) {
          const contact: Vec3 = [centre[0], 0, centre[2]];
          const [a, b] = [at(frame - h, contact), at(frame + h, contact)];
          const moved = vec3.subtract([0, 0, 0], b, a);
          const speed = (vec3.length(moved) / (2 * h)) * 24;
          const rolling =
            (((gauge('turns', node)(frame + h) - gauge('turns', node)(frame - h)) * LAP * radius) / (2 * h)) *
            24;
          // The whole speed is rolled, along the wheel's own way (back, within a bend tighter than itself); a fixed
          // wheel on the rear axle has no other.
          expect(Math.abs(speed - Math.abs(rolling))).toBeLessThan(1e-3);
          const ahead = vec3.subtract([0, 0, 0], at(frame, [0, 0, 1]), at(frame, [0, 0, 0]));
          const left = vec3.subtract([0, 0, 0], at(frame, [1, 0, 0]), at(frame, [0, 0, 0]));
          const angle = steers ? (gauge('steer', node)(frame) * Math.PI) / 180 : 0;
          const aside = vec3.scaleAndAdd(
            [0, 0, 0],
            vec3.scale([0, 0, 0], left, Math.cos(angle)),
            ahead,
            -Math.sin(angle),
          );
          expect(Math.abs((vec3.dot(moved, aside) / (2 * h)) * 24)).toBeLessThan(1e-3);
        }
        expect(evaluated.shot.riders).toHaveLength(1);
      },
    ),
    { numRuns: 40, endOnFailure: true },
  );
});

/** Looks at every wheel along a way of such points: it rolls just as far as its contact point goes. */
function rollsAsFar(
  points: readonly [x: number, z: number][],
  anchor: Attachment['anchor'],
  { from, to, step }: { from: number; to: number; step: number },
): { node: string; way: number }[] {
  const path: Loose<ShotPath> = {
    basis: 'bspline',
    degree: 5,
    points: points.map(([x, z], i) => ({ position: [x, 0, z + 40 * i] as Vec3 })),
  };
  const { gauge, place } = drive(path, { anchor });
  const h = 1e-4;
  const seen: { node: string; way: number }[] = [];
  for (let frame = from; frame <= to; frame += step)
    for (const { node, centre, radius, steers } of wheels) {
      const angle = steers ? gauge('steer', node) : () => 0;
      // As it stops at a right angle its speed is undefined.
      if (Math.abs(angle(frame - h) - angle(frame + h)) > 90) continue;
      const [a, b] = [frame - h, frame + h].map((at) => place(at, [centre[0], 0, centre[2]]));
      const rolled = (gauge('turns', node)(frame + h) - gauge('turns', node)(frame - h)) * LAP * radius;
      expect(Math.abs(vec3.distance(a, b) - Math.abs(rolled)) / (2 * h)).toBeLessThan(1e-4);
      seen.push({ node, way: Math.sign(rolled) });
    }
  return seen;
}

it('in a bend of 0.38 m radius it rolls just as far as its contact point goes', () => {
  const hook: [number, number][] = [
    [-1, 20],
    [6, -4],
    [-19, 20],
    [-8, -34],
  ];
  rollsAsFar(hook, 'rearAxle', { from: 94, to: 97, step: 0.25 });
});

it('a steered wheel that comes to stand straight across rolls on as fast the other way', () => {
  const hairpin: [number, number][] = [
    [2, 38],
    [6, -14],
    [25, 16],
    [-13, -32],
  ];
  const seen = rollsAsFar(hairpin, 'frontAxle', { from: 4.5, to: 6, step: 0.0625 });
  const right = seen.filter(({ node }) => node === 'right 2.5').map(({ way }) => way);
  expect(new Set(right)).toEqual(new Set([-1, 1]));
});

it('turned round it rolls backward, and its turns meet lap by lap', () => {
  const tail = drive(round(10), { offset: { yaw: 180 } });
  expect(tail.gauge('turns', 'left 0')(100)).toBeLessThan(0);
  const laps = (value: number) => ({
    pace: {
      unit: 'laps' as const,
      keys: [
        { frame: 0, value: 0 },
        { frame: 100, value },
      ],
    },
  });
  const [one, three] = [drive(round(10), laps(1)), drive(round(10), laps(3))];
  expect(three.gauge('turns', 'right 0')(100)).toBeCloseTo(3 * one.gauge('turns', 'right 0')(100), 8);
});

it('with offset keys it rolls over the ground it really covers', () => {
  const straight: Loose<ShotPath> = {
    basis: 'polyline',
    points: [{ position: [0, 0, 0] }, { position: [0, 0, 50] }],
  };
  const keys = [
    { frame: 0, along: 0 },
    { frame: 100, along: -20 },
  ].map((key) => ({ ...key, ease: 'linear' as const }));
  const { gauge } = drive(straight, {
    offsetKeys: keys,
    pace: {
      keys: [
        { frame: 0, value: 20 },
        { frame: 100, value: 50 },
      ],
    },
  });
  const turns = gauge('turns', 'left 0');
  expect(turns(90) - turns(10)).toBeCloseTo((80 * 0.1) / 0.5 / LAP, 6);
});

describe('a trailer', () => {
  it('hangs at its leader’s coupling, and its axle never slides aside', () => {
    const shot = newShot({
      name: 't',
      fps: 24,
      range: { first: 0, last: 100 },
      paths: [{ ...round(12), id: 'p', name: 'P' }],
      riders: [
        {
          id: 'a',
          name: 'A',
          chassis,
          attachment: {
            path: 'p',
            pace: {
              unit: 'laps',
              keys: [
                { frame: 0, value: 0.3 },
                { frame: 100, value: 1.3 },
              ],
            },
          },
        },
        {
          id: 'b',
          name: 'B',
          chassis: { frontAxle: 1, rearAxle: -1, frontCoupling: 2, rearCoupling: -2 },
          wheels: [wheel(0.7, -1)],
          attachment: { path: 'p', anchor: 'frontAxle', coupledTo: { rider: 'a', gap: 0 } },
        },
      ],
    });
    const evaluated = evaluateShot(shot, NO_ASSETS);
    const at = (rider: number, frame: number, ahead: number): Vec3 => {
      const pose = new Float64Array(POSE.size);
      evaluated.poses[rider](frame, pose, 0);
      const nose = vec3.transformQuat([0, 0, 0], [0, 0, ahead], [pose[3], pose[4], pose[5], pose[6]]) as Vec3;
      return nose.map((value, k) => value + pose[k]) as Vec3;
    };
    for (const frame of [10, 47, 88]) {
      expect(vec3.distance(at(0, frame, -1), at(1, frame, 2))).toBeLessThan(1e-6);
      const slip = evaluated.gauges(shot.riders[1]).find(({ kind }) => kind === 'slip');
      expect(Math.abs(slip?.value(frame) ?? 1)).toBeLessThan(1e-3);
    }
  });
});

describe('the body', () => {
  it('follows a push as a critically damped spring does, and is within 2 % after its time', () => {
    const track = springTrack((frame) => (frame >= 0 ? 1 : 0), 0.5, {
      first: 0,
      count: 48,
      fps: 24,
      loop: false,
    });
    const omega = 5.8339 / 0.5;
    for (const frame of [2, 6, 12, 30]) {
      const t = frame / 24;
      expect(track(frame)).toBeCloseTo(1 - (1 + omega * t) * Math.exp(-omega * t), 6);
    }
    expect(track(12)).toBeCloseTo(0.98, 3);
  });

  it('in a loop it lags neither way and meets itself', () => {
    const push = (frame: number) => Math.exp(-(((((frame % 96) + 96) % 96) - 48) ** 2) / 20);
    const track = springTrack(push, 0.4, { first: 0, count: 96, fps: 24, loop: true });
    for (const off of [1, 5, 11]) expect(track(48 + off)).toBeCloseTo(track(48 - off), 6);
    expect(track(96)).toBeCloseTo(track(0), 9);
  });

  it('leans out of a steady bend by so much per g, and stands still on a straight', () => {
    const { gauge } = drive(circle(8), {}, { body: { node: 'cab', rollPerG: 4 } });
    const speed = (LAP * 8) / (100 / 24);
    // To the left the body leans to the right.
    expect(gauge('roll', 'cab')(50)).toBeCloseTo((4 * speed ** 2) / 8 / 9.80665, 2);
    expect(gauge('pitch', 'cab')(50)).toBeCloseTo(0, 6);
  });
});

describe('a ball', () => {
  const roll = (path: Loose<ShotPath>, laps = 1) => {
    const { evaluated } = drive(
      path,
      {
        pace: {
          unit: 'laps',
          keys: [
            { frame: 0, value: 0 },
            { frame: 100, value: laps },
          ],
        },
      },
      { wheels: [], ball: { radius: 0.5 } },
    );
    const ball = evaluated.contact(evaluated.shot.riders[0]).ball;
    return (frame: number): Quat => {
      const out: Quat = [0, 0, 0, 1];
      ball?.(frame, out);
      return out;
    };
  };

  it('turns by distance over radius about the axis square to its way', () => {
    const turn = roll({ basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [30, 0, 40] }] });
    // Forward (0.6, 0, 0.8), so up × forward is (0.8, 0, −0.6).
    const expected = quat.setAxisAngle([0, 0, 0, 1], [0.8, 0, -0.6], (50 * 0.37) / 0.5);
    expect(Math.abs(quat.dot(turn(37), expected as Quat))).toBeCloseTo(1, 10);
  });

  it('on a circle it is where a cone would roll it, without drift after many laps', () => {
    const radius = 8;
    for (const laps of [1, 7]) {
      const turn = roll(round(radius), laps);
      // Seen from the turning way it turns steadily about one line: way by way about Y, and rolling about left.
      const psi = LAP * laps;
      const spin = (radius * psi) / 0.5;
      const size = Math.hypot(psi, spin);
      const steady = quat.setAxisAngle([0, 0, 0, 1], [spin / size, -psi / size, 0], size);
      const expected = quat.multiply(
        [0, 0, 0, 1],
        quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], psi),
        steady,
      ) as Quat;
      // The curve through points is as long as the circle within three parts in a million.
      expect(Math.abs(quat.dot(turn(100), expected))).toBeGreaterThan(Math.cos(0.002 * laps));
    }
  });
});
