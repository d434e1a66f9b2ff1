import { newShot } from './new-shot.js';
import { parseShot } from './parse-shot.js';
import { plainName } from './plain-name.js';

it.each([
  ['Lane', 'Lane'],
  ['Lane\n2\r\n3\t4', 'Lane 2 3 4'],
  ['\u001b[31mred\u001b[0m', '[31mred[0m'],
  ['safe\u202Egnp.exe', 'safegnp.exe'],
  ['\u2066a\u2069\u200Fb\u061Cc', 'abc'],
  ['Straße 中 👩‍🌾 שלום', 'Straße 中 👩‍🌾 שלום'],
])('%j becomes %j', (name, plain) => {
  expect(plainName(name)).toBe(plain);
});

it('names of a document are plain when it is read, and ids and nodes stay as they are', () => {
  const rider = {
    id: 'r',
    name: 'R\u202E',
    badge: 'R\u00071',
    wheels: [{ node: 'w\n1', centre: [0, 0, 0], radius: 1 }],
  };
  const raw = { ...newShot({ name: 'A' }), name: 'A\u0000\nB', riders: [rider] };
  const shot = parseShot(raw);
  expect([shot.name, shot.riders[0].name, shot.riders[0].badge]).toEqual(['A B', 'R', 'R1']);
  expect(shot.riders[0].wheels[0].node).toBe('w\n1');
});

it('a name of which nothing is left is refused', () => {
  expect(() => parseShot({ ...newShot({ name: 'A' }), name: '\u202E\u0007' })).toThrow(
    /^name: found .*; expected text of 1 to 200 characters$/,
  );
});
