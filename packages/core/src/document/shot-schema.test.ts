import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { newShot } from './new-shot.js';
import { parseShot } from './parse-shot.js';
import { shotFieldTables, shotSchema } from './shot-schema.js';

type Tree = Record<string, unknown>;

const accepts = new Ajv2020({ strict: true, allErrors: true }).compile(shotSchema());

/** A shot with an object in most of its optional fields. */
const full = newShot({
  name: 'All of it',
  range: { first: 1, last: 48 },
  models: [{ id: 'm', name: 'Cart', source: { file: 'cart.glb' } }],
  ground: { level: null },
  paths: [
    {
      id: 'p',
      name: 'Lane',
      points: [{ position: [0, 0, 0] }, { position: [0, 0, 9] }],
      marks: [{ id: 'k', name: 'Gate', distance: 3 }],
    },
  ],
  riders: [
    {
      id: 'r',
      name: 'Cart',
      model: 'm',
      chassis: { frontAxle: 1, rearAxle: -1 },
      attachment: {
        path: 'p',
        pace: { keys: [{ frame: 1, value: 0 }], within: [0, 5], variation: {} },
        offsetKeys: [{ frame: 1, handles: { side: { out: [4, 0.5] } } }],
        influence: [{ frame: 1, value: 1 }],
        facing: { target: { point: [1, 2, 3] } },
      },
      shake: {},
      emitter: {},
    },
    { id: 'c', name: 'Eye', camera: { framing: [0, 0.2] }, restAim: { target: { rider: 'r' } } },
  ],
  cuts: [{ frame: 1, camera: 'c' }],
  dressing: [
    {
      id: 'd',
      name: 'Kerb',
      path: 'p',
      kind: 'profile',
      profile: [
        [0, 0],
        [1, 0],
      ],
    },
  ],
} as never);

it('accepts shots as they are written', () => {
  for (const shot of [newShot({ name: 'Empty' }), full])
    expect([accepts(JSON.parse(JSON.stringify(shot))), accepts.errors]).toEqual([true, null]);
});

it.each<[string, string, unknown]>([
  ['a field it does not know', 'speed', 1],
  ['another version', 'version', 3],
  ['no name', 'name', undefined],
  ['a rate of 0', 'fps', 0],
  ['a point of two numbers', 'paths.0.points.0.position', [0, 0]],
  ['an unknown ease', 'riders.0.attachment.pace.keys.0.ease', 'bouncy'],
  ['a path as a rider’s attachment', 'riders.0.attachment', 'p'],
  ['handles of an unknown value', 'riders.0.attachment.offsetKeys.0.handles.lean', {}],
  ['a colour by name', 'riders.0.emitter.color', 'red'],
])('refuses %s, as reading does', (_, path, value) => {
  const spoilt = JSON.parse(JSON.stringify(full)) as Tree;
  const keys = path.split('.');
  const last = keys.pop() as string;
  keys.reduce((tree, key) => tree[key] as Tree, spoilt)[last] = value;
  const written = JSON.parse(JSON.stringify(spoilt)) as Tree;
  expect(accepts(written)).toBe(false);
  expect(() => parseShot(written)).toThrow();
});

it('the tables of the shot file’s page are those of the classes', () => {
  const page = readFileSync(join(process.cwd(), 'docs/shot-file.md'), 'utf8');
  expect(page.split('<!-- fields -->\n')[1]?.trim()).toBe(shotFieldTables());
});
