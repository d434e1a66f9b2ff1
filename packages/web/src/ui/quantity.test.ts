import { readQuantity, showNumber } from './quantity';

it.each<[string, Parameters<typeof readQuantity>[1], number]>([
  ['2.5', 'length', 2.5],
  ['2.5 m', 'length', 2.5],
  ['90 cm', 'length', 0.9],
  ['90cm', 'length', 0.9],
  ['1,5', 'length', 1.5],
  ['−3', 'length', -3],
  ['30 km/h', 'speed', 30 / 3.6],
  ['8 m/s', 'speed', 8],
  ['1.5 s', 'time', 1.5],
  ['36 f', 'time', 1.5],
  ['36 f', 'frame', 36],
  ['1.5 s', 'frame', 36],
  ['45°', 'angle', 45],
  ['.5', 'count', 0.5],
  ['1e3 mm', 'length', 1],
])('reads %j as a %s', (text, kind, value) => {
  expect(readQuantity(text, kind, 24)).toBeCloseTo(value, 12);
});

it.each<[string, Parameters<typeof readQuantity>[1]]>([
  ['fast', 'speed'],
  ['3 kg', 'length'],
  ['', 'length'],
  ['1 2', 'length'],
  ['NaN', 'count'],
])('answers %j as a %s with what was expected', (text, kind) => {
  expect(readQuantity(text, kind)).toMatch(/^Expected a number/);
});

it.each<[string, Parameters<typeof readQuantity>[1], number]>([
  ['232.8/12', 'length', 19.4],
  ['2 m + 50 cm', 'length', 2.5],
  ['+2 m', 'length', 12],
  ['+10 cm', 'length', 10.1],
  ['*1.5', 'length', 15],
  ['× 1.5', 'count', 15],
  ['/4', 'length', 2.5],
  ['20 %', 'length', 2],
  ['+20%', 'speed', 12],
  ['2 * (3 + 4) - 1', 'count', 13],
  ['36 km/h / 2', 'speed', 5],
  ['−2 * −3', 'count', 6],
  ['1 s + 12 f', 'frame', 36],
])('goes on from 10 with %j as a %s', (text, kind, value) => {
  expect(readQuantity(text, kind, 24, 10)).toBeCloseTo(value, 12);
});

it.each(['2 +', '3 / 0', '(2', '2)', '2 ** 3', '1 m kg', '%'])('refuses %j, which is no sum', (text) => {
  expect(readQuantity(text, 'length', 24, 10)).toMatch(/^Expected a number/);
});

it('shows numbers without needless zeros and with a true minus', () => {
  expect([1, 1.5, 10, 100.25, -3, -0.0001].map((value) => showNumber(value))).toEqual([
    '1',
    '1.5',
    '10',
    '100.25',
    '−3',
    '0',
  ]);
  expect(showNumber(20, 0)).toBe('20');
});
