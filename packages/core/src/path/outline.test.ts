import { newShot } from '../document/new-shot.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';
import { pathOutline } from './outline.js';

const corners: Vec3[] = [
  [0, 0, 0],
  [8, 0, 0],
  [8, 0, 1],
];
const path = newShot({
  name: 't',
  paths: [{ id: 'p', name: 'P', basis: 'polyline', points: corners.map((position) => ({ position })) }],
}).paths[0];

it('an outline has even steps and both ends', () => {
  const outline = pathOutline(compilePath(path), 10);
  const places = Array.from({ length: 10 }, (_, i) => [...outline.subarray(3 * i, 3 * i + 3)]);
  expect(places[0]).toEqual([0, 0, 0]);
  places.slice(0, 9).forEach(([x], i) => expect(x).toBeCloseTo(i, 12));
  places[9].forEach((value, k) => expect(value).toBeCloseTo(corners[2][k], 12));
});

it('the outline of a closed path comes back to its start', () => {
  const outline = pathOutline(compilePath({ ...path, closed: true }), 5);
  expect([...outline.subarray(12)]).toEqual([...outline.subarray(0, 3)]);
});
