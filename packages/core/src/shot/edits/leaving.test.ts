import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import type { Shot } from '../../document/shot.js';
import { POSE } from '../../motion/pose/pose.js';
import { even, line, onGround, poseAt, runs, shotOf, slope } from '../../../test/shots.js';
import { withRider } from './change-rider.js';
import { withOwnPace } from './own-pace.js';
import { detachBack, detachHere, removeRider } from './remove-riders.js';
import { hangString } from './string.js';

/** How far two poses are apart in place and turn: the largest difference of their numbers. */
const apart = (a: Float64Array, b: Float64Array) =>
  Math.max(...[...a.subarray(0, 7)].map((value, k) => Math.abs(value - b[k])));

describe('a rider on a slope', () => {
  // A plane that rises by a fifth, under a path that floats a metre above its middle.
  const ground = onGround(slope(0.2, 0.1));
  const shot = shotOf(
    [runs([5, 2, 0], [5, 2, 20], [15, 3, 30])],
    [
      {
        id: 'cart',
        name: 'Cart',
        attachment: { path: 'p', pace: even(2, 14), ground: { mode: 'stick', up: 8, down: 8 } },
      },
      { id: 'load', name: 'Load', parent: 'cart', rest: { translation: [0, 1, -0.5] } },
    ],
  );
  const before = evaluateShot(shot, ground);

  it('stays where it is seen, tilted as it is, when it is taken off its path', () => {
    for (const frame of [1, 40.5, 97]) {
      const after = evaluateShot(detachHere(shot, ground, ['cart'], frame), ground);
      for (const id of ['cart', 'load'])
        expect(apart(poseAt(after, id, frame), poseAt(before, id, frame))).toBeLessThan(1e-9);
      // On the plane, and not where its path is.
      const [x, y, z] = poseAt(before, 'cart', frame);
      expect(y).toBeCloseTo(0.2 * x + 0.1 * z, 9);
    }
  });

  it('leaves what it carried where it is seen when it is deleted', () => {
    const after = evaluateShot(removeRider(shot, ground, 'cart', 40), ground);
    expect(after.shot.riders.map(({ id }) => id)).toEqual(['load']);
    expect(apart(poseAt(after, 'load', 40), poseAt(before, 'load', 40))).toBeLessThan(1e-9);
  });
});

describe('a string', () => {
  const chassis = { frontAxle: 1, rearAxle: -1, frontCoupling: 1.5, rearCoupling: -1.5 };
  const unit = (id: string, size = 1) => ({
    id,
    name: id,
    chassis,
    rest: { scale: [size, size, size] as [number, number, number] },
  });
  const hung = (units: ReturnType<typeof unit>[]): Shot =>
    units.reduce<Shot>(
      (shot, { id }) => hangString(shot, 'e', { unit: id, count: 1, gap: 0.5 }).shot,
      shotOf([line(200)], [{ ...unit('e'), attachment: { path: 'p', pace: even(60, 100) } }, ...units]),
    );

  it('closes up as far back as before when a unit in it is deleted, however large that was', () => {
    for (const size of [1, 2, 0.01]) {
      const shot = hung([unit('a', size), unit('b')]);
      const before = evaluateShot(shot, NO_ASSETS);
      const after = evaluateShot(removeRider(shot, NO_ASSETS, 'a', 1), NO_ASSETS);
      for (const frame of [1, 50, 97])
        expect(apart(poseAt(after, 'b', frame), poseAt(before, 'b', frame))).toBeLessThan(1e-9);
    }
  });

  it('goes on as it did when its leader is taken off the path', () => {
    const shot = hung([unit('a'), unit('b')]);
    const before = evaluateShot(shot, NO_ASSETS);
    const after = evaluateShot(detachBack(shot, NO_ASSETS, ['e']), NO_ASSETS);
    // The unit behind the engine has its own pace; the units behind it stay coupled.
    expect(after.shot.riders.map(({ attachment }) => attachment?.coupledTo?.rider)).toEqual([
      undefined,
      undefined,
      'a',
    ]);
    for (const id of ['a', 'b'])
      for (const frame of [1, 50, 97])
        expect(apart(poseAt(after, id, frame), poseAt(before, id, frame))).toBeLessThan(1e-9);
  });
});

it('a copy with a timing of its own goes as it did, later and slower than its leader', () => {
  const shot = shotOf(
    [line(100)],
    [
      { id: 'a', name: 'A', attachment: { path: 'p', pace: even(0, 40) } },
      { id: 'b', name: 'B', attachment: { path: 'p', pacedBy: { rider: 'a', delay: 12, rate: 0.5 } } },
    ],
  );
  const before = evaluateShot(shot, NO_ASSETS);
  const alone = withRider(shot, 'b', (rider) => withOwnPace(before, rider));
  expect(alone.riders[1].attachment?.pacedBy).toBeNull();
  const after = evaluateShot(alone, NO_ASSETS);
  for (const frame of [1, 13, 60, 97]) {
    expect(poseAt(after, 'b', frame)[POSE.distance]).toBeCloseTo(
      poseAt(before, 'b', frame)[POSE.distance],
      9,
    );
  }
});
