import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { quat, vec3 } from 'gl-matrix';
import { newShot, type Loose } from '../../document/new-shot.js';
import { AXES } from '../../document/shot-facing.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axesToTravel, axisVector } from '../pose/axes.js';
import { headingDeg } from '../pose/heading.js';
import { POSE } from '../pose/pose.js';

const turned = (q: Quat, v: Vec3) => vec3.transformQuat([0, 0, 0], v, q) as Vec3;

it('every one of the 24 pairs of axes is brought to travel with its nose ahead and its roof up', () => {
  let pairs = 0;
  for (const forward of AXES) {
    for (const up of AXES.filter((axis) => axis[1] !== forward[1])) {
      const q = axesToTravel(forward, up);
      expect(vec3.distance(turned(q, axisVector(forward)), [0, 0, 1])).toBeLessThan(1e-12);
      expect(vec3.distance(turned(q, axisVector(up)), [0, 1, 0])).toBeLessThan(1e-12);
      pairs++;
    }
  }
  expect(pairs).toBe(24);
});

/** A quarter of a circle of 20 m radius from +Z to the left, as a closed ring of eight cubics. */
const RADIUS = 20;
const ring = Array.from({ length: 8 }, (_, i) => {
  const a = (i * Math.PI) / 4;
  const k = (4 / 3) * Math.tan(Math.PI / 16) * RADIUS;
  const along: Vec3 = [k * Math.sin(a), 0, k * Math.cos(a)];
  return {
    position: [-RADIUS * Math.cos(a), 0, RADIUS * Math.sin(a)] as Vec3,
    out: along,
    in: along.map((v) => -v) as Vec3,
  };
});

function posed(
  attachment: Loose<Omit<Attachment, 'path'>>,
  frame: number,
  rider: Loose<Rider> = {},
): Float64Array {
  const shot = newShot({
    name: 't',
    paths: [{ id: 'ring', name: 'Ring', closed: true, points: ring }],
    riders: [{ id: 'r', name: 'R', attachment: { path: 'ring', ...attachment }, ...rider }],
  });
  const out = new Float64Array(POSE.size);
  evaluateShot(shot, NO_ASSETS).poses[0](frame, out, 0);
  return out;
}
const lap = {
  pace: {
    unit: 'laps' as const,
    keys: [
      { frame: 1, value: 0 },
      { frame: 241, value: 1 },
    ],
  },
};
const place = (pose: Float64Array) => [...pose.subarray(0, 3)] as Vec3;
const turn = (pose: Float64Array) => [...pose.subarray(3, 7)] as Quat;

it('on a ring at even speed, place, heading and speed are those of the circle', () => {
  for (const frame of [1, 31, 61, 100.5, 200]) {
    const pose = posed(lap, frame);
    const angle = (2 * Math.PI * (frame - 1)) / 240;
    // Eight cubics match the circle within 4e-6 of the radius.
    expect(vec3.distance(place(pose), [-RADIUS * Math.cos(angle), 0, RADIUS * Math.sin(angle)])).toBeLessThan(
      3e-4,
    );
    expect(headingDeg(pose, '+z')).toBeCloseTo((angle * 180) / Math.PI, 2);
    expect(pose[POSE.speed]).toBeCloseTo((2 * Math.PI * RADIUS) / 10, 3);
  }
});

it('a left offset on a left-turning ring is nearer to its middle', () => {
  const pose = posed({ ...lap, offset: { side: 3, rise: 1.5 } }, 61);
  expect(Math.hypot(pose[0], pose[2])).toBeCloseTo(RADIUS + 3 - 6, 4);
  expect(pose[1]).toBeCloseTo(1.5, 12);
});

it('an offset along the path goes where the leader went', () => {
  const metres = (2 * Math.PI * RADIUS) / 4;
  const pose = posed({ ...lap, offset: { along: -metres } }, 61);
  expect(vec3.distance(place(pose), [-RADIUS, 0, 0])).toBeLessThan(1e-3);
});

it('yaw turns left, pitch lifts the nose, roll lowers the right side', () => {
  const start = { pace: { start: { frame: 1, value: 0 } } };
  const nose = (offset: Loose<Attachment['offset']>) =>
    turned(turn(posed({ ...start, offset }, 1)), [0, 0, 1]);
  expect(nose({ yaw: 30 })[0]).toBeCloseTo(0.5, 9);
  expect(nose({ pitch: 30 })[1]).toBeCloseTo(0.5, 9);
  const right = turned(turn(posed({ ...start, offset: { roll: 30 } }, 1)), [-1, 0, 0]);
  expect(right[1]).toBeCloseTo(-0.5, 9);
});

it('keep leaves the rider turned as it rests', () => {
  const rest = { rotation: [0, Math.SQRT1_2, 0, Math.SQRT1_2] as Quat };
  expect(turn(posed({ ...lap, facing: { mode: 'keep' } }, 77, { rest }))).toEqual(
    rest.rotation.map((v) => expect.closeTo(v, 12)),
  );
});

it('past the end of an open path a rider waits there at no speed', () => {
  const shot = newShot({
    name: 't',
    paths: [
      { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 10] }] },
    ],
    riders: [
      {
        id: 'r',
        name: 'R',
        attachment: {
          path: 'p',
          pace: {
            keys: [
              { frame: 1, value: 0 },
              { frame: 49, value: 20 },
            ],
          },
        },
      },
    ],
  });
  const pose = new Float64Array(POSE.size);
  evaluateShot(shot, NO_ASSETS).poses[0](40, pose, 0);
  expect([pose[2], pose[POSE.distance], pose[POSE.speed]]).toEqual([10, 10, 0]);
});

it('a rider at rest on a carrier goes along with it', () => {
  const shot = newShot({
    name: 't',
    paths: [{ id: 'ring', name: 'Ring', closed: true, points: ring }],
    riders: [
      { id: 'c', name: 'Carrier', kind: 'carrier', attachment: { path: 'ring', ...lap } },
      { id: 'r', name: 'Load', parent: 'c', rest: { translation: [0, 2, -1] } },
    ],
  });
  const { poses } = evaluateShot(shot, NO_ASSETS);
  const [carrier, load] = [new Float64Array(POSE.size), new Float64Array(POSE.size)];
  poses[0](90, carrier, 0);
  poses[1](90, load, 0);
  const expected = vec3.add([0, 0, 0], place(carrier), turned(turn(carrier), [0, 2, -1]));
  expect(vec3.distance(place(load), expected)).toBeLessThan(1e-12);
  expect(Math.abs(quat.dot(turn(load), turn(carrier)))).toBeCloseTo(1, 12);
});
