import fc from 'fast-check';
import { GroundSurface, floorAt } from './ground-surface.js';

/** A slope y = x over 10 × 10 m, and a bridge deck at height 8 over its middle. */
const surface = new GroundSurface({
  positions: new Float32Array([0, 0, 0, 10, 10, 0, 10, 10, 10, 0, 0, 10, 3, 8, 3, 7, 8, 3, 7, 8, 7, 3, 8, 7]),
  indices: new Uint32Array([0, 1, 2, 0, 2, 3, 4, 5, 6, 4, 6, 7]),
});
const { nearestHeight: height } = surface;

it('is that of the triangle at the place, whichever way it faces', () => {
  expect(height(2, 9, 0)).toBeCloseTo(2, 4);
  expect(height(9.5, 0.5, 0)).toBeCloseTo(9.5, 4);
});

it('of several levels is the one nearest to the height asked for', () => {
  expect(height(5, 5.5, 4)).toBeCloseTo(5, 3);
  expect(height(5, 5.5, 9)).toBeCloseTo(8, 3);
});

it('is null where there is none', () => {
  expect(height(-1, 5, 0)).toBeNull();
});

it('is too far off only where none is found anywhere within the reach', () => {
  const place = fc.integer({ min: -30, max: 30 });
  const part = fc.double({ min: -1, max: 1, noNaN: true });
  const length = fc.integer({ min: 0, max: 8 });
  let far = 0;
  fc.assert(
    fc.property(
      fc.tuple(place, place, place),
      length,
      fc.tuple(length, length),
      fc.array(fc.tuple(part, part, part), { minLength: 10, maxLength: 10 }),
      ([x, y, z], reach, [up, down], parts) => {
        if (!surface.isFarFrom([x, y, z], reach, up, down)) return;
        far++;
        for (const [a, b, c] of parts)
          expect(surface.height(x + reach * a, z + reach * b, y + reach * c, up, down)).toBeNull();
      },
    ),
    { numRuns: 400 },
  );
  expect(far).toBeGreaterThan(50);
  // Beside it, above it and below it, and just not.
  for (const [beside, above, isFar] of [
    [2.1, 0, true],
    [1.9, 0, false],
    [0, 12.1, true],
    [0, 11.9, false],
    [0, -18.1, true],
    [0, -17.9, false],
  ] as const)
    expect([beside, above, surface.isFarFrom([10 + beside, 10 + above, 5], 2, 6, 10)]).toEqual([
      beside,
      above,
      isFar,
    ]);
});

describe('a level floor', () => {
  const floor = new GroundSurface(floorAt(-2));
  const around = { above: 0, aboveFacesUp: false, floor: 0 };

  it('is at its height everywhere, within the band that is asked for', () => {
    expect([height, floor.nearestHeight].map((of) => of(-1e6, 3e5, 7))).toEqual([null, -2]);
    expect([floor.height(0, 0, 1, 0, 2.9), floor.height(0, 0, 1, 0, 3)]).toEqual([null, -2]);
    expect([floor.height(0, 0, -5, 2.9, 0), floor.height(0, 0, -5, 3, 0)]).toEqual([null, -2]);
    expect([floor.isFarFrom([0, 1, 0], 1, 0, 1), floor.isFarFrom([0, 1, 0], 1, 0, 2)]).toEqual([true, false]);
  });

  it('is under what is over it, and over what is under it, with its upper side up', () => {
    floor.around(5, -1, 5, around);
    expect(around).toEqual({ above: NaN, aboveFacesUp: false, floor: -2 });
    floor.around(5, -3, 5, around);
    expect(around).toEqual({ above: -2, aboveFacesUp: true, floor: NaN });
  });

  it('lies beside triangles: the nearer of both counts', () => {
    const both = new GroundSurface({ ...surface.mesh, level: 4 });
    expect(both.height(2, 9, 0)).toBeCloseTo(2, 4);
    expect(both.height(2, 9, 3.5)).toBe(4);
    expect(both.height(-50, 5, 0)).toBe(4);
    // Between the slope at 5 m and the deck at 8 m the next level down is the slope, at 2 m of it the floor above.
    both.around(5, 6, 5.5, around);
    expect(around.floor).toBeCloseTo(5, 4);
    expect(around.above).toBeCloseTo(8, 4);
    both.around(2, 3, 9, around);
    expect([around.above, around.aboveFacesUp]).toEqual([4, true]);
  });
});

it('is none of no triangles', () => {
  const none = new GroundSurface({ positions: new Float32Array(), indices: new Uint32Array() });
  expect(none.height(0, 0, 0)).toBeNull();
  const around = { above: 0, aboveFacesUp: true, floor: 0 };
  none.around(0, 0, 0, around);
  expect(around).toEqual({ above: NaN, aboveFacesUp: false, floor: NaN });
});

it('is found on every one of many triangles, far from the middle of the world and on their edges too', () => {
  const n = 60;
  const [east, south] = [-7_300, 2_650];
  const rise = (i: number, k: number) => 0.5 * i - 0.25 * k;
  const positions = Float64Array.from({ length: 3 * n * n }, (_, at) => {
    const [i, k] = [Math.floor(at / 3 / n), Math.floor(at / 3) % n];
    return [east + 0.7 * i, rise(i, k), south + 0.7 * k][at % 3];
  });
  const indices: number[] = [];
  for (let i = 0; i + 1 < n; i++)
    for (let k = 0; k + 1 < n; k++) {
      const p = i * n + k;
      indices.push(p, p + 1, p + n, p + 1, p + n + 1, p + n);
    }
  const ground = new GroundSurface({ positions, indices: Uint32Array.from(indices) });
  for (let i = 0; i <= n - 1; i += 0.5)
    for (let k = 0; k <= n - 1; k += 0.5)
      expect(ground.height(east + 0.7 * i, south + 0.7 * k, 0)).toBeCloseTo(rise(i, k), 8);
  expect(ground.height(east - 0.01, south, 0)).toBeNull();
  expect(ground.height(east + 0.7 * n, south, 0)).toBeNull();
});
