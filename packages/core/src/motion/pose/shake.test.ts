import fc from 'fast-check';
import { quat } from 'gl-matrix';
import type { Shake } from '../../document/shot-shake.js';
import { POSE, type PoseAt } from './pose.js';
import { withShake } from './shake.js';

const still: PoseAt = (_, out, at) => {
  out.fill(0, at, at + POSE.size);
  out[at + 6] = 1;
};
const range = { first: 1, last: 240, fps: 24, loop: false };
const poseOf = (shake: Shake, frame: number, loop = false) => {
  const out = new Float64Array(POSE.size);
  withShake(still, shake, { ...range, loop })(frame, out, 0);
  return out;
};
const shake = fc.record({
  place: fc.double({ min: 0, max: 0.5, noNaN: true }),
  turn: fc.double({ min: 0, max: 10, noNaN: true }),
  rate: fc.double({ min: 0.2, max: 6, noNaN: true }),
  seed: fc.nat(),
});

it('never strays further than it may, and is the same for the same seed', () => {
  fc.assert(
    fc.property(shake, fc.double({ min: -50, max: 400, noNaN: true }), (one, frame) => {
      const pose = poseOf(one, frame);
      for (let k = 0; k < 3; k++) expect(Math.abs(pose[k])).toBeLessThanOrEqual(one.place * (1 + 1e-12));
      const turned = quat.getAxisAngle([0, 0, 0], [pose[3], pose[4], pose[5], pose[6]]);
      // Three turns about its own axes, of which one is half as large.
      expect(Math.min(turned, 2 * Math.PI - turned)).toBeLessThanOrEqual(
        (2.5 * one.turn * Math.PI) / 180 + 1e-9,
      );
      expect(poseOf({ ...one }, frame)).toEqual(pose);
    }),
  );
});

it('swings about as often as asked for', () => {
  const rate = 2;
  let crossings = 0;
  let before = 0;
  // Over a hundred seconds, by how often one channel changes its sign: twice a swing.
  for (let frame = 0; frame < 2400; frame += 0.5) {
    const now = poseOf({ place: 0.1, turn: 0, rate, seed: 7 }, frame)[0];
    if (now * before < 0) crossings++;
    before = now;
  }
  expect(crossings / 200).toBeGreaterThan(rate * 0.4);
  expect(crossings / 200).toBeLessThan(rate * 2);
});

it('in a loop it is after the last frame where it was at the first, at the same speed', () => {
  fc.assert(
    fc.property(shake, (one) => {
      const at = (frame: number) => poseOf(one, frame, true);
      for (let k = 0; k < 7; k++) {
        expect(at(241)[k]).toBeCloseTo(at(1)[k], 9);
        expect(at(241.5)[k] - at(240.5)[k]).toBeCloseTo(at(1.5)[k] - at(0.5)[k], 9);
      }
    }),
  );
});
