import { expect, it } from '@jest/globals';
import { picturePlaces } from './sheet';

const PAGE = { width: 2_339, height: 1_654 };

it.each([
  [1, 16 / 9],
  [2, 16 / 9],
  [7, 1],
  [12, 9 / 16],
  [40, 16 / 9],
])(
  '%i pictures of %f lie on the page beside each other, none over another, all over the diagram',
  (count, aspect) => {
    const places = picturePlaces(count, aspect);
    expect(places).toHaveLength(count);
    places.forEach((one, i) => {
      expect(one.width / one.height).toBeCloseTo(aspect, 9);
      expect(one.x).toBeGreaterThan(0);
      expect(one.x + one.width).toBeLessThan(PAGE.width);
      expect(one.y + one.height).toBeLessThan(0.7 * PAGE.height);
      for (const other of places.slice(i + 1)) {
        const beside = one.x + one.width <= other.x || other.x + other.width <= one.x;
        expect(beside || other.y >= one.y + one.height).toBe(true);
      }
    });
  },
);
