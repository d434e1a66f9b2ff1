import { line, shotOf, slope } from '../../../test/shots.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { standCopies, type Copies } from './copies.js';

const plan: Copies = {
  count: 3,
  places: 'row',
  step: [2, 0, 0],
  radius: 5,
  path: 'p',
  side: 0,
  seed: 1,
  onGround: false,
};
const post = { id: 'post', name: 'Post', badge: 'P1', rest: { translation: [1, 0, 2] as Vec3 } };
const shot = shotOf([line(30)], [post]);
const places = (copies: Partial<Copies>, ground = null as ReturnType<typeof slope> | null) => {
  const made = standCopies(shot, ground, 'post', { ...plan, ...copies });
  expect(parseShot(JSON.parse(JSON.stringify(made.shot)))).toEqual(made.shot);
  expect(new Set(made.shot.riders.map(({ badge }) => badge)).size).toBe(made.shot.riders.length);
  return made.shot.riders.slice(1).map(({ rest }) => rest);
};

it('stand in a row, and evenly round a ring on which the first stands too', () => {
  expect(places({}).map(({ translation }) => translation)).toEqual([
    [3, 0, 2],
    [5, 0, 2],
    [7, 0, 2],
  ]);
  const ring = [post.rest, ...places({ places: 'around' })].map(({ translation }) => translation);
  ring.forEach(([x, , z], i) => {
    expect(Math.hypot(x - 6, z - 2)).toBeCloseTo(5, 9);
    const [nx, , nz] = ring[(i + 1) % 4];
    expect(Math.hypot(nx - x, nz - z)).toBeCloseTo(5 * Math.SQRT2, 9);
  });
});

it('stand at even steps along a path, beside it, turned as it goes', () => {
  const along = places({ places: 'along', side: 1 });
  // Left of +Z is +X.
  expect(along.map(({ translation }) => translation)).toEqual(
    [0, 15, 30].map((z) => [expect.closeTo(1, 9), 0, expect.closeTo(z, 9)]),
  );
  expect(() => places({ places: 'along', path: 'q' })).toThrow('a path to stand along');
});

it('lie over a disc by a seed, the same for the same seed, on the ground under each', () => {
  const ground = slope(0.1, 0.2);
  const some = places({ places: 'area', count: 200, onGround: true }, ground);
  expect(places({ places: 'area', count: 200, onGround: true }, ground)).toEqual(some);
  expect(places({ places: 'area', count: 200, seed: 2 })).not.toEqual(some);
  const inner = some.filter(({ translation: [x, y, z] }) => {
    expect(y).toBeCloseTo(0.1 * x + 0.2 * z, 5);
    expect(Math.hypot(x - 1, z - 2)).toBeLessThanOrEqual(5);
    return Math.hypot(x - 1, z - 2) < 5 * Math.SQRT1_2;
  });
  // Half of them in the inner half of the area: within four of the scatter's own widths.
  expect(Math.abs(inner.length - 100)).toBeLessThan(4 * Math.sqrt(50));
});

it('what is moved by hand moves so from its own place; what rides is copied by a formation', () => {
  const keyed = { keys: [1, 25].map((frame) => ({ frame, translation: [1, 0, frame] as Vec3 })) };
  const moving = shotOf([line(30)], [{ ...post, transformKeys: keyed }]);
  const [, copy] = standCopies(moving, null, 'post', { ...plan, count: 1 }).shot.riders;
  expect(copy.transformKeys?.keys.map(({ translation }) => translation)).toEqual([
    [3, 0, 1],
    [3, 0, 25],
  ]);
  const riding = shotOf([line(30)], [{ ...post, attachment: { path: 'p' } }]);
  expect(() => standCopies(riding, null, 'post', plan)).toThrow('rides no path');
});
