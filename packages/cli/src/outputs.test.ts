import { execFileSync } from 'node:child_process';
import {
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { run } from './run.js';
import { RideFolder } from './testing/ride-folder.js';

let folder: RideFolder;
const path = (name: string) => folder.path(name);

beforeEach(async () => {
  folder = await RideFolder.of('M0 0 H30 A20 20 0 0 1 50 20 V40');
  expect(await make('a')).toMatchObject({ code: 0 });
});
afterEach(() => folder.end());

const make = (name: string, ...more: string[]) => run(folder.newShot(`${name}.shot.json`, ...more));
const bake = (out: string, ...more: string[]) =>
  run(['bake', path('a.shot.json'), '--out', path(out), ...more]);

/** A command is refused with a sentence, and the file is unchanged. */
async function refused(file: string, command: Promise<{ code: number; text: string }>, sentence: string) {
  const before = readFileSync(path(file));
  expect(await command).toEqual({ code: 1, text: expect.stringContaining(sentence) });
  expect(readFileSync(path(file)).equals(before)).toBe(true);
}

describe('what is read is not written over, not even when it is said', () => {
  it.each([[[]], [['--force']]])('with %j', async (more: string[]) => {
    const svg = readFileSync(path('lane.svg'));
    await refused(
      'lane.svg',
      run([
        'new',
        '--path',
        path('lane.svg'),
        '--model',
        path('cart.glb'),
        '--out',
        path('lane.svg'),
        ...more,
      ]),
      'lane.svg: is the file of the path; expected another name',
    );
    await refused(
      'cart.glb',
      bake('cart.glb', ...more),
      'cart.glb: is the file of the model "cart"; expected another name',
    );
    linkSync(path('cart.glb'), path('twin.glb'));
    await refused('cart.glb', bake('twin.glb', ...more), 'twin.glb: is the file of the model "cart"');
    linkSync(path('a.shot.json'), path('a.csv'));
    await refused('a.shot.json', bake('a.csv', ...more), 'a.csv: is the shot file itself');
    expect(readFileSync(path('lane.svg'))).toEqual(svg);
  });

  it('nor a file that a model needs', async () => {
    const gltf = { asset: { version: '2.0' }, buffers: [{ uri: 'data.csv', byteLength: 4 }] };
    writeFileSync(path('cart.gltf'), JSON.stringify(gltf));
    writeFileSync(path('data.csv'), 'abcd');
    const shot = JSON.parse(readFileSync(path('a.shot.json'), 'utf8')) as {
      models: { source: { file: string } }[];
    };
    shot.models[0].source.file = 'cart.gltf';
    writeFileSync(path('a.shot.json'), JSON.stringify(shot));
    await refused('data.csv', bake('data.csv', '--force'), 'data.csv: is a file that cart.gltf needs');
  });
});

it('anything but a regular file is not written to', async () => {
  symlinkSync(path('cart.glb'), path('link.glb'));
  await refused(
    'cart.glb',
    bake('link.glb', '--force'),
    'link.glb: found a link; expected a new name or a regular file',
  );
  symlinkSync(path('nowhere'), path('loose.csv'));
  expect(await bake('loose.csv')).toMatchObject({ code: 1, text: expect.stringContaining('found a link') });
  mkdirSync(path('folder.csv'));
  expect(await bake('folder.csv')).toMatchObject({
    code: 1,
    text: expect.stringContaining('found a folder'),
  });
  execFileSync('mkfifo', [path('pipe.csv')]);
  expect(await bake('pipe.csv', '--force')).toMatchObject({
    code: 1,
    text: expect.stringContaining('found a device or a pipe'),
  });
});

it('a file that is there is replaced when it is said, or where it was written for the same shot', async () => {
  writeFileSync(path('mine.csv'), 'by hand');
  await refused(
    'mine.csv',
    bake('mine.csv'),
    'mine.csv: already exists; expected a new name, or --force to replace it',
  );
  expect(await bake('mine.csv', '--force')).toMatchObject({ code: 0 });
  expect(await bake('mine.csv')).toMatchObject({ code: 0 });
  // Changed by someone since.
  writeFileSync(path('mine.csv'), `${readFileSync(path('mine.csv'), 'utf8')}more`);
  await refused('mine.csv', bake('mine.csv'), 'already exists');
  // Of another shot.
  expect(await bake('mine.csv', '--force')).toMatchObject({ code: 0 });
  expect(await make('b')).toMatchObject({ code: 0 });
  await refused('mine.csv', run(['bake', path('b.shot.json'), '--out', path('mine.csv')]), 'already exists');
  expect(await make('a')).toMatchObject({ code: 0 });
  utimesSync(path('a.shot.json'), new Date(), new Date(2000, 0, 1));
  await refused('a.shot.json', make('a'), 'a.shot.json: already exists');
});

it('files beside an output are looked at before any of them is written', async () => {
  writeFileSync(path('a-riders.csv'), 'by hand');
  const { code, text } = await bake('a.csv', '--tables');
  expect([code, text]).toEqual([1, expect.stringMatching(/a-\w+\.csv: already exists/)]);
  expect(existsSync(path('a.csv'))).toBe(false);
});

it('errors of the file system are sentences', async () => {
  symlinkSync(path('circle'), path('circle'));
  const cases: [string[], string][] = [
    [['bake', path('circle'), '--out', path('a.csv')], 'circle: cannot be read: its links form a loop'],
    [
      ['bake', path('cart.glb/a.shot.json'), '--out', path('a.csv')],
      'cannot be read: part of its path is not a folder',
    ],
    [['bake', folder.folder, '--out', path('a.csv')], 'cannot be read: it is a folder'],
    [
      ['bake', path('a.shot.json'), '--out', path('cart.glb/a.csv')],
      'cannot be written: part of its path is not a folder',
    ],
    [
      ['bake', path('a.shot.json'), '--out', path('no/such/a.csv')],
      'cannot be written: there is no such file or folder',
    ],
    [
      ['bake', path('a.shot.json'), '--out', path(`${'x'.repeat(300)}.csv`)],
      'cannot be written: its name is too long',
    ],
    [
      ['bake', path('a.shot.json'), '--out', path('circle/a.csv')],
      'cannot be written: its links form a loop',
    ],
    [
      ['render', path('a.shot.json'), '--out', `${path('cart.glb')}/`],
      'cannot be made: part of its path is not a folder',
    ],
    [
      ['bake', path('a.shot.json'), '--out', '/proc/a.csv'],
      'cannot be written: there is no such file or folder',
    ],
  ];
  for (const [args, sentence] of cases) {
    const { code, text } = await run(args);
    expect([code, text]).toEqual([1, expect.stringContaining(sentence)]);
    expect(text).not.toMatch(/something went wrong|\n/);
  }
});

it('a URI that is written wrongly is missed like any other', async () => {
  const gltf = { asset: { version: '2.0' }, buffers: [{ uri: '%zz.bin', byteLength: 4 }] };
  writeFileSync(path('bad.gltf'), JSON.stringify(gltf));
  const { code, text } = await run([
    'new',
    '--path',
    path('lane.svg'),
    '--model',
    path('bad.gltf'),
    '--out',
    path('c.shot.json'),
  ]);
  expect([code, text]).toEqual([1, expect.stringMatching(/^ride: bad\.gltf: [^\n]*%zz\.bin/)]);
});

it('a tolerance has a lower bound, and what it comes to is said before it is written', async () => {
  const lane = (...more: string[]) =>
    run(['path', path('a.shot.json'), '--path', 'lane', '--out', path('lane.obj'), ...more]);
  for (const within of ['0', '1e-9', '9e-7'])
    expect(await lane('--within', within)).toEqual({
      code: 1,
      text: `ride: --within: found ${Number(within)}; expected metres from 0.000001`,
    });
  expect(await lane('--within', '1e-6')).toEqual({
    code: 0,
    text: expect.stringMatching(/lane\.obj: lane, \d+\.\d{3} m, \d+ points, [\d.]+ [kM]B$/),
  });
});

it('what is printed has no characters that a terminal obeys', async () => {
  const shot = JSON.parse(readFileSync(path('a.shot.json'), 'utf8')) as {
    name: string;
    models: { name: string }[];
  };
  shot.name = 'Red\u001b[31m\u202Eshot';
  shot.models[0].name = 'c\nart';
  writeFileSync(path('a.shot.json'), JSON.stringify(shot));
  const { text } = await run(['info', path('a.shot.json')]);
  expect(text.split('\n')[0]).toContain('Red[31mshot: 1 path');
});
