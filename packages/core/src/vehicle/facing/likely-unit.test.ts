import { likelyUnit } from './likely-unit.js';

it.each([
  ['a person in metres', [0.6, 1.8, 0.4], true, 'm'],
  ['a person in centimetres', [60, 180, 40], true, 'cm'],
  ['a giant in millimetres', [3000, 7121, 2500], true, 'mm'],
  ['a person in inches', [26, 70, 15], true, 'in'],
  ['a lorry in metres', [3, 4, 18], false, 'm'],
  ['a car in centimetres', [180, 150, 450], false, 'cm'],
  ['a car in millimetres', [1800, 1500, 4500], false, 'mm'],
  ['a cone', [0.4, 0.7, 0.4], false, 'm'],
  ['a ship', [12, 20, 55], false, 'm'],
  ['nothing', [0, 0, 0], false, 'm'],
] as const)('%s', (_, size, figure, unit) => {
  expect(likelyUnit([0, 0, 0], [...size], figure)).toBe(unit);
});
