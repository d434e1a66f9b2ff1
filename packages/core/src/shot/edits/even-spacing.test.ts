import { even, line, placeOf, poseAt, shotOf } from '../../../test/shots.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { evenSpacing } from './even-spacing.js';
import { formUp, type Formation } from './formation.js';

const file: Formation = {
  count: 4,
  arrangement: 'file',
  spacing: 0,
  delay: 0,
  step: [0, 0, 0],
  turn: 0,
  seed: 1,
  vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
};
const places = [
  [0, 0, 0],
  [0, 0, 25],
  [25, 0, 25],
  [25, 0, 0],
] as Vec3[];
const square = {
  ...line(1),
  closed: true,
  points: places.map((position) => ({ position })),
};
const car = { id: 'c', name: 'Car', attachment: { path: 'p', pace: even(0, 100) } };

/** How far round the square a place on it is, metres from its first corner. */
function roundAt([x, , z]: Vec3): number {
  if (Math.abs(x) < 1e-9) return z;
  if (Math.abs(z - 25) < 1e-9) return 25 + x;
  return Math.abs(x - 25) < 1e-9 ? 75 - z : 100 - x;
}

it('riders in file stand evenly round a closed path, at every frame', () => {
  const shot = shotOf([square], [car]);
  const spacing = evenSpacing(shot, shot.riders[0], file.count)!;
  const { shot: formed, ids } = formUp(shot, NO_ASSETS, 'c', { ...file, spacing });
  const evaluated = evaluateShot(formed, NO_ASSETS);
  for (const frame of [1, 20.5, 61, 97]) {
    const round = ['c', ...ids].map((id) => roundAt(placeOf(poseAt(evaluated, id, frame))));
    round.forEach((at, i) => {
      const gap = (at - round[(i + 1) % round.length] + 200) % 100;
      expect(gap).toBeCloseTo(20, 6);
    });
  }
});

it('there is no even spacing round a path that does not close, or without one', () => {
  const shot = shotOf([line(40)], [car, { id: 'f', name: 'Free' }]);
  expect(shot.riders.map((rider) => evenSpacing(shot, rider, 3))).toEqual([null, null]);
});
