import { GroundSurface } from './ground-surface.js';

/** A slope y = x over 10 × 10 m, and a bridge deck at height 8 over its middle. */
const { nearestHeight: height } = new GroundSurface({
  positions: new Float32Array([0, 0, 0, 10, 10, 0, 10, 10, 10, 0, 0, 10, 3, 8, 3, 7, 8, 3, 7, 8, 7, 3, 8, 7]),
  indices: new Uint32Array([0, 1, 2, 0, 2, 3, 4, 5, 6, 4, 6, 7]),
});

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
