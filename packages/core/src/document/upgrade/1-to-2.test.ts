import { parseShot } from '../parse-shot.js';
import type { ShotError } from '../shot-error.js';

const transform = { translation: [1, 2, 3], rotation: [0, 0, 0, 1], scale: [1, 1, 1] };
/** A document of version 1 that has every field of another name, each with a value that is no default. */
const written = () => ({
  format: 'fleet-rail-shot',
  version: 1,
  name: 'Old',
  paths: [
    { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 40] }] },
  ],
  riders: [
    {
      id: 'a',
      name: 'A',
      hitch: { path: 'p', displaced: { translation: [0, 1, 0], turn: 30, size: 2 } },
      stood: transform,
      unrest: { place: 0.02 },
      carriers: [{ frame: 5, rider: 'c' }],
      forces: { pull: 0.5, size: 0.4 },
      hanging: [{ node: 'lamp', middle: [0, -1, 0] }],
    },
    { id: 'b', name: 'B', hitch: { path: 'p', follows: { rider: 'a', gap: 2 } } },
    {
      id: 'c',
      name: 'C',
      keyed: { keys: [{ frame: 3, translation: [4, 5, 6] }] },
      looks: { target: { point: [7, 8, 9] } },
    },
    { id: 'd', name: 'D', echo: { rider: 'c', delay: 12 } },
  ],
  cues: [
    {
      id: 'q',
      name: 'Q',
      on: { kind: 'distance', rider: 'a' },
      does: { kind: 'hitch', rider: 'b' },
      also: [
        { kind: 'show', rider: 'b' },
        { kind: 'hitch', rider: 'a' },
      ],
      keys: [{ at: 1, value: 1 }],
    },
  ],
  laid: [{ id: 'l', name: 'Posts', path: 'p', every: 3 }],
  checks: { waived: [{ kind: 'kink', rider: 'a', reason: 'It is meant.' }] },
});

it('keeps every value of version 1 under its name of version 2', () => {
  const shot = parseShot(written());
  expect(shot.version).toBe(2);
  const [a, b, c, d] = shot.riders;
  expect(a).toMatchObject({
    attachment: {
      path: 'p',
      coupledTo: null,
      rideTransform: { translation: [0, 1, 0], turn: 30, size: 2 },
    },
    restBeforeParent: transform,
    shake: { place: 0.02 },
    parentKeys: [{ frame: 5, rider: 'c' }],
    rigidBody: { pull: 0.5, size: 0.4 },
    hangingParts: [{ node: 'lamp', middle: [0, -1, 0] }],
  });
  expect(b.attachment?.coupledTo).toEqual({ rider: 'a', gap: 2 });
  expect(c).toMatchObject({
    transformKeys: { keys: [{ frame: 3, translation: [4, 5, 6] }] },
    restAim: { target: { point: [7, 8, 9] } },
  });
  expect(d.follow).toMatchObject({ rider: 'c', delay: 12 });
  expect(shot.cues[0]).toMatchObject({
    trigger: { kind: 'distance', rider: 'a' },
    action: { kind: 'attachment', rider: 'b' },
    moreActions: [
      { kind: 'show', rider: 'b' },
      { kind: 'attachment', rider: 'a' },
    ],
  });
  expect(shot.dressing).toMatchObject([{ id: 'l', name: 'Posts', every: 3 }]);
  expect(shot.checks.dismissed).toMatchObject([{ kind: 'kink', rider: 'a', reason: 'It is meant.' }]);
});

it('reads what it has upgraded as the same document again', () => {
  const shot = parseShot(written());
  expect(parseShot(JSON.parse(JSON.stringify(shot)))).toEqual(shot);
});

it('leaves the document it was given as it was', () => {
  const raw = written();
  parseShot(raw);
  expect(raw).toEqual(written());
});

type Change = (raw: ReturnType<typeof written>) => unknown;
const refusals: [string, Change, string, string][] = [
  [
    'a path that is not there',
    ({ riders }) => (riders[1].hitch!.path = 'q'),
    'riders[1].hitch.path',
    'one of: p',
  ],
  [
    'an unknown field, with the names of version 1',
    ({ riders }) => Object.assign(riders[0], { wings: 2 }),
    'riders[0].wings',
    'hitch, chassis',
  ],
  [
    'an unknown kind of action, with the kinds of version 1',
    ({ cues }) => (cues[0].also[1].kind = 'fly'),
    'cues[0].also[1].kind',
    'facing, hitch, path',
  ],
  [
    'a carrier that is not there',
    ({ riders }) => (riders[0].carriers![0].rider = 'x'),
    'riders[0].carriers[0].rider',
    'one of: a',
  ],
  [
    'a value out of bounds',
    ({ checks }) => Object.assign(checks.waived[0], { figure: 'much' }),
    'checks.waived[0].figure',
    'a number, or null',
  ],
  [
    'a list that is too long',
    (raw) => (raw.laid = Array.from({ length: 201 }, () => raw.laid[0])),
    'laid',
    'at most 200',
  ],
  [
    'a field of version 2',
    ({ riders }) => Object.assign(riders[3], { follow: null }),
    'riders[3].follow',
    '"echo" in version 1',
  ],
];
it.each(refusals)('refuses %s as the file has it', (_, change, path, expected) => {
  const raw = written();
  change(raw);
  let refusal: ShotError | null = null;
  try {
    parseShot(raw);
  } catch (error) {
    refusal = error as ShotError;
  }
  expect(refusal?.path).toBe(path);
  expect(refusal?.expected).toContain(expected);
});

it('lists ids as they are, though they read like fields', () => {
  const raw = written();
  raw.riders[2].id = 'follow';
  expect(() => parseShot(raw)).toThrow(
    /carriers\[0\]\.rider: found no rider "c"; expected one of: a, b, follow, d$/,
  );
});

it('refuses names of version 1 in a document of version 2', () => {
  expect(() => parseShot({ ...written(), version: 2 })).toThrow(/found an unknown key/);
});
