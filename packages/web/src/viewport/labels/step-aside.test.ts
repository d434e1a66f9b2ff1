import { expect, it } from '@jest/globals';
import { BADGE, stepAside } from './step-aside';

const rider = (i: number, x: number, y: number) => ({ key: `rider ${i}`, x, y });

it('badges that have room stay, and what is no badge is not asked to move', () => {
  const labels = [rider(1, 0, 0), rider(2, 100, 0), rider(3, 0, 30), { key: 'point 1', x: 300, y: 0 }];
  expect(stepAside(labels)).toEqual(labels);
});

it('a crowd in one place comes to lie apart, the first of it where it was', () => {
  const crowd = Array.from({ length: 20 }, (_, i) => rider(i, 200 + (i % 3), 150));
  const placed = stepAside(crowd).map(({ x, y, aside }) => aside ?? { x, y });
  expect(placed[0]).toMatchObject({ x: 200, y: 150 });
  placed.forEach((one, i) =>
    placed.slice(i + 1).forEach((other) => {
      const apart = Math.abs(one.x - other.x) >= BADGE.width || Math.abs(one.y - other.y) >= BADGE.height;
      expect(apart).toBe(true);
    }),
  );
});

it('of a crowd that there is no room for, some are left out, and never the first', () => {
  const crowd = Array.from({ length: 200 }, (_, i) => rider(i, 200 + (i % 7), 150 + (i % 5)));
  const placed = stepAside(crowd);
  expect(placed.length).toBeLessThan(60);
  expect(placed[0]).toEqual(crowd[0]);
  placed.forEach((_, i) => {
    const [a, ...others] = placed.slice(i).map(({ x, y, aside }) => aside ?? { x, y });
    for (const b of others)
      expect(Math.abs(a.x - b.x) >= BADGE.width || Math.abs(a.y - b.y) >= BADGE.height).toBe(true);
  });
});

it('the second of two goes no further than one row', () => {
  const [, second] = stepAside([rider(1, 50, 50), rider(2, 55, 52)]);
  expect(second.aside).toEqual({ x: 55, y: 52 + BADGE.height });
});

it('a badge makes room for a tag beside its place, and does not where they are apart', () => {
  // From 9 to 53 pixels to the right of its place, and 8 up and down.
  const tag = { key: 'point 1', x: 100, y: 100 };
  const [, under] = stepAside([tag, rider(1, 130, 90)]);
  expect(under.aside).toBeDefined();
  const { x, y } = under.aside ?? under;
  // Its badge is 34 × 22 about a middle 17 below.
  const apart = Math.abs(x - 131) >= 22 + 17 || Math.abs(y + 17 - 100) >= 8 + 11;
  expect(apart).toBe(true);
  expect(stepAside([tag, rider(1, 60, 100)])[1].aside).toBeUndefined();
});

it('nor under the grip of an end of what is laid, which hangs below its place', () => {
  // 22 high from 10 pixels down, and about 60 wide.
  const [, under] = stepAside([{ key: 'laid from', x: 100, y: 100 }, rider(1, 90, 100)]);
  const { x, y } = under.aside ?? under;
  expect(Math.abs(x - 100) >= 30 + 17 || Math.abs(y + 17 - 121) >= 11 + 11).toBe(true);
});

it('a badge of many letters takes more room', () => {
  const [, second] = stepAside([
    { ...rider(1, 0, 0), letters: 8 },
    { ...rider(2, 60, 0), letters: 8 },
  ]);
  expect(second.aside).toBeDefined();
  expect(stepAside([rider(1, 0, 0), rider(2, 60, 0)])[1].aside).toBeUndefined();
});
