import { snapDirection, snapTo } from './snapping';

it('a tenth is written as a tenth', () => {
  expect(snapTo(0.3000001, 0.1)).toBe(0.3);
  expect(snapTo(-7.26, 0.1)).toBe(-7.3);
  expect(snapTo(3.49, 1)).toBe(3);
  expect(snapTo(3.14159, 0)).toBe(3.142);
});

it('a straight run goes in the nearest of eight directions, on the grid', () => {
  const level = [true, false, true] as const;
  expect(snapDirection([1, 2, 1], [7.2, 2, 1.4], level, 1)).toEqual([7, 2, 1]);
  expect(snapDirection([1, 2, 1], [1.3, 2, -4.6], level, 0.1)).toEqual([1, 2, -4.6]);
  expect(snapDirection([0, 0, 0], [3.2, 0, -2.8], level, 1)).toEqual([3, 0, -3]);
  expect(snapDirection([5, 1, 0], [9, 4.4, 9], [false, true, true], 1)).toEqual([5, 1, 9]);
});
