import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Random } from '../random.js';

const DATE = '2026-01-01T00:00:00.000Z';
const SHOT = { id: 'a', name: 'A', revision: 1, createdAt: DATE, updatedAt: DATE, deletedAt: null };
const DOCUMENT = { format: 'fleet-rail-shot', version: 2, name: 'A' };
const packed = (bytes: Uint8Array): [Uint8Array, { level: 1 }] => [bytes, { level: 1 }];

/** A backup that is valid except for one named fault. */
function backup(index: object, files: Zippable = {}): Uint8Array {
  const whole = {
    format: 'fleet-rail-library',
    version: 1,
    shots: [SHOT],
    checkpoints: [],
    models: [],
    ...index,
  };
  return zipSync({
    'library.json': strToU8(JSON.stringify(whole)),
    'shots/a.json': strToU8(JSON.stringify(DOCUMENT)),
    ...files,
  });
}

/** A value of a kind that the field does not have. */
const strange = (random: Random): unknown =>
  random.of([
    null,
    -1,
    0.5,
    2 ** 53,
    1e300,
    '',
    'yesterday',
    '../x',
    'a\u0000b',
    [],
    {},
    true,
    'x'.repeat(2000),
  ]);

/** By name what makes a backup that has to be refused whole. */
const HOSTILE: Readonly<Record<string, (random: Random) => Uint8Array>> = {
  'that unpacks to one huge file': (random) =>
    backup({}, { 'shots/a.json': packed(new Uint8Array(random.whole(65, 130) * 2 ** 20)) }),
  'that unpacks to a thousand times its size': (random) =>
    backup({}, Object.fromEntries(random.list(2, 3, (i) => [`x${i}`, packed(new Uint8Array(40 * 2 ** 20))]))),
  'with a field of its index that is none': (random) => {
    const field = random.of(['id', 'name', 'revision', 'createdAt', 'updatedAt']);
    let value = strange(random);
    while (field === 'name' && value === 'yesterday') value = null;
    const isFine =
      (field === 'name' && typeof value === 'string' && value.length >= 1 && value.length <= 1000) ||
      (field === 'id' && value === 'yesterday');
    return backup({ shots: [{ ...SHOT, [field]: isFine ? null : value }] });
  },
  'with a list of its index that is none': (random) =>
    backup({ [random.of(['shots', 'checkpoints', 'models'])]: random.of([null, {}, 'a', 7, [null], ['a']]) }),
  'with a checkpoint of no shot': () => backup({ checkpoints: [{ ...SHOT, shotId: 'gone' }] }),
  'with an index that is no JSON': (random) =>
    backup({}, { 'library.json': strToU8(random.of(['', '{', '[]', 'null', '{"format":1}', '\u0000'])) }),
  'without an index': () => zipSync({ 'shots/a.json': strToU8('{}') }),
  'that is cut': (random) => {
    const whole = backup({});
    return whole.subarray(0, random.whole(0, whole.length - 23));
  },
  'with a table that is noise': (random) => {
    const bytes = Buffer.from(backup({}));
    const table = bytes.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    for (let i = 0; i < 4; i++) bytes[table + i] = random.whole(128, 255);
    return bytes;
  },
  'that is no zip': (random) => Buffer.from(random.list(0, 4000, () => random.whole(0, 255))),
};

export const KINDS_OF_ZIP = Object.keys(HOSTILE);

/** A backup that has to be refused; every kind comes in turn. */
export function hostileZip(seed: number, random: Random): { name: string; bytes: Uint8Array } {
  const name = KINDS_OF_ZIP[seed % KINDS_OF_ZIP.length];
  return { name, bytes: HOSTILE[name](random) };
}
