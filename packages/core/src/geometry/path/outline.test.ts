import { newShot } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { pathOutline } from './outline.js';

const pathOf = (positions: readonly Vec3[], more: object): ShotPath =>
  newShot({
    name: 't',
    paths: [{ id: 'p', name: 'P', points: positions.map((position) => ({ position })), ...more }],
  }).paths[0];
const placesOf = (outline: Float64Array | null) =>
  Array.from({ length: (outline?.length ?? 0) / 3 }, (_, i) => [
    ...(outline?.subarray(3 * i, 3 * i + 3) ?? []),
  ]);

const corners: Vec3[] = [
  [0, 0, 0],
  [8, 0, 0],
  [8, 0, 1],
];

it('an outline has even steps and both ends', () => {
  const places = placesOf(pathOutline(pathOf(corners, { basis: 'polyline' }), 10));
  expect(places[0]).toEqual([0, 0, 0]);
  places.slice(0, 9).forEach(([x], i) => expect(x).toBeCloseTo(i, 12));
  places[9].forEach((value, k) => expect(value).toBeCloseTo(corners[2][k], 12));
});

it('the outline of a closed path comes back to its start', () => {
  const places = placesOf(pathOutline(pathOf(corners, { basis: 'polyline', closed: true }), 5));
  expect(places[4]).toEqual(places[0]);
});

it('goes round a circle evenly, however its points lie', () => {
  // A rational circle of nine points, each quarter in two segments of different speed.
  const s = Math.SQRT1_2;
  const ring: [number, number, number][] = [
    [1, 0, 1],
    [1, 1, s],
    [0, 1, 1],
    [-1, 1, s],
    [-1, 0, 1],
    [-1, -1, s],
    [0, -1, 1],
    [1, -1, s],
    [1, 0, 1],
  ];
  const circle = newShot({
    name: 't',
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'nurbs',
        degree: 2,
        knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
        points: ring.map(([x, z, weight]) => ({ position: [5 * x, 0, 5 * z], weight })),
      },
    ],
  }).paths[0];
  placesOf(pathOutline(circle, 33)).forEach(([x, y, z], i) => {
    expect(Math.hypot(x, z)).toBeCloseTo(5, 12);
    expect(y).toBe(0);
    const angle = (2 * Math.PI * i) / 32;
    expect(Math.hypot(x - 5 * Math.cos(angle), z - 5 * Math.sin(angle))).toBeLessThan(1e-3);
  });
});

it('is not thrown off by points in one place, nor by very many', () => {
  const heaped = pathOf([corners[0], corners[0], corners[1], corners[1], corners[2]], { basis: 'polyline' });
  placesOf(pathOutline(heaped, 10))
    .slice(0, 9)
    .forEach(([x], i) => expect(x).toBeCloseTo(i, 12));
  const line = pathOf(
    Array.from({ length: 3000 }, (_, i): Vec3 => [(i / 2999) ** 2, 0, 0]),
    { basis: 'polyline' },
  );
  placesOf(pathOutline(line, 64)).forEach(([x], i) => expect(x).toBeCloseTo(i / 63, 12));
});

it('is none where there is no curve', () => {
  expect(pathOutline(pathOf([corners[0]], {}), 5)).toBeNull();
  expect(pathOutline(pathOf([corners[0], corners[0]], {}), 5)).toBeNull();
});
