import { straightWay } from '../../../test/straight-way.js';
import { wheelTravel } from './wheel-travel.js';

it.each([false, true])('rolls as far as its way, before its start and after it (steers: %s)', (steers) => {
  const travel = wheelTravel(straightWay(-300, 300), [1.2, 0.7, -0.4], steers);
  for (const distance of [0, 0.03, 7.77, 300, -0.03, -7.77, -299.5, 12, -12]) {
    expect(Math.abs(travel.rolled(distance) - distance)).toBeLessThan(1e-11 * 600);
    expect(travel.speed(distance)).toBeCloseTo(1, 9);
    expect(travel.steer(distance)).toBeCloseTo(0, 9);
  }
});

it('rolls the same in whatever order it is asked', () => {
  const [there, back] = [0, 1].map(() => wheelTravel(straightWay(-40, 60), [1, 0.5, 0], true));
  const places = Array.from({ length: 101 }, (_, i) => i - 40);
  const seen = places.map((place) => there.rolled(place));
  for (const [i, place] of [...places.entries()].reverse()) expect(back.rolled(place)).toBe(seen[i]);
});

it('is looked at no further than it has come, however long its way', () => {
  const way = straightWay(-20_000, 20_000);
  const travel = wheelTravel(way, [0, 0.8, 0], false);
  expect(travel.rolled(-30)).toBeCloseTo(-30, 9);
  expect(travel.rolled(50)).toBeCloseTo(50, 9);
  // Stretches of eight metres, six looks each.
  expect(way.looks).toBeLessThan(6 * (30 / 8 + 50 / 8 + 3));
});
