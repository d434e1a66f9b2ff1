import { quat } from 'gl-matrix';
import { straightWay } from '../../../test/straight-way.js';
import type { Quat } from '../../geometry/math/vec.js';
import { compileBall } from './ball-roll.js';

/** Turned about +x, which is up × ahead. */
const rolled = (angle: number) => quat.setAxisAngle([0, 0, 0, 1], [1, 0, 0], angle) as Quat;
const apart = (a: Quat, b: Quat) => 2 * Math.acos(Math.min(1, Math.abs(quat.dot(a, b))));

it.each([0, 0.03, 7.77, 300, -0.03, -7.77, -299.5])(
  'turns by distance over radius from where its path starts: %d m',
  (distance) => {
    const out: Quat = [0, 0, 0, 1];
    compileBall(straightWay(-300, 300), 0.5)(distance, out);
    expect(apart(out, rolled(distance / 0.5))).toBeLessThan(1e-7);
  },
);

it('turns back as it turned forward, in whatever order it is asked', () => {
  const [one, other] = [straightWay(-40, 60), straightWay(-40, 60)];
  const [forward, back] = [compileBall(one, 0.4), compileBall(other, 0.4)];
  const places = Array.from({ length: 101 }, (_, i) => i - 40);
  const seen = places.map((place): Quat => {
    const out: Quat = [0, 0, 0, 1];
    forward(place, out);
    return out;
  });
  for (const [i, place] of [...places.entries()].reverse()) {
    const out: Quat = [0, 0, 0, 1];
    back(place, out);
    expect(out).toEqual(seen[i]);
  }
});

it('is looked at no further than it has come, however long its way', () => {
  const way = straightWay(-20_000, 20_000);
  const ball = compileBall(way, 12);
  const out: Quat = [0, 0, 0, 1];
  ball(-30, out);
  ball(50, out);
  expect(apart(out, rolled(50 / 12))).toBeLessThan(1e-7);
  // Steps of two metres, four looks each.
  expect(way.looks).toBeLessThan(4 * 45);
});
