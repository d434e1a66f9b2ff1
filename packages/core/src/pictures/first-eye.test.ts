import { newShot } from '../document/new-shot.js';
import { parseShot } from '../document/parse-shot.js';
import { FIRST_VIEW, firstEye } from './first-eye.js';

const rotated = ([x, y, z, w]: readonly number[], [a, b, c]: readonly number[]) => {
  const t = [2 * (y * c - z * b), 2 * (z * a - x * c), 2 * (x * b - y * a)];
  return [
    a + w * t[0] + y * t[2] - z * t[1],
    b + w * t[1] + z * t[0] - x * t[2],
    c + w * t[2] + x * t[1] - y * t[0],
  ];
};

it('looks at the middle of all paths from where a shot is looked at first, upright', () => {
  const shot = parseShot({
    ...newShot({ name: 'Far' }),
    paths: [
      {
        id: 'p',
        name: 'Long',
        basis: 'polyline',
        closed: false,
        points: [{ position: [100, 0, 40] }, { position: [140, 6, 40] }],
      },
    ],
  });
  const { position, rotation } = firstEye(shot, 16 / 9);
  const ahead = rotated(rotation, [0, 0, -1]);
  const away = [120, 3, 40].map((value, k) => value - position[k]);
  const far = Math.hypot(...away);
  ahead.forEach((value, k) => expect(value).toBeCloseTo(away[k] / far, 9));
  // It is where it should be, and its right is level.
  const size = Math.hypot(...FIRST_VIEW.from);
  away.forEach((value, k) => expect(-value / far).toBeCloseTo(FIRST_VIEW.from[k] / size, 9));
  expect(rotated(rotation, [1, 0, 0])[1]).toBeCloseTo(0, 12);
});

it('there is a view where there is no path', () => {
  const { position } = firstEye(newShot({ name: 'Empty' }), 1);
  expect(position.every(Number.isFinite)).toBe(true);
});
