import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, WebIO } from '@gltf-transform/core';
import { run } from './run.js';
import { RideFolder } from './testing/ride-folder.js';

let folder: RideFolder;
const path = (name: string) => folder.path(name);

beforeEach(async () => {
  folder = await RideFolder.of('M0 0 H30 V40');
});
afterEach(() => folder.end());

const shotOf = () => JSON.parse(readFileSync(path('a.shot.json'), 'utf8'));
const make = (...more: string[]) => run(folder.newShot('a.shot.json', ...more));

it('new makes a shot that goes steadily, once along the path', async () => {
  const { code, text } = await make('--fps', '25', '--frames', '101');
  expect([code, text.split('\n').length]).toEqual([0, 1]);
  await expect(run(['bake', path('a.shot.json'), '--out', path('a.csv')])).resolves.toMatchObject({
    code: 0,
  });
  const rows = readFileSync(path('a.csv'), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(','));
  expect(rows).toHaveLength(101);
  // 70 m in 100 steps of 1/25 s: 17.5 m/s throughout.
  rows.forEach((row, i) => {
    expect(Number(row[11])).toBeCloseTo(0.7 * i, 9);
    expect(Number(row[12])).toBeCloseTo(17.5, 9);
  });
  expect(rows[100].slice(4, 7).map(Number)).toEqual([30, 0, 40]);
});

it('new on waypoints with times is there on time', async () => {
  writeFileSync(path('walk.csv'), 'time,x,y,z\n0,0,0,0\n2,0,0,10\n4,0,0,10\n');
  const args = ['new', '--path', path('walk.csv'), '--model', path('cart.glb'), '--out', path('w.shot.json')];
  expect(await run([...args, '--frames', '97'])).toMatchObject({ code: 0 });
  expect(await run(['bake', path('w.shot.json'), '--out', path('w.csv')])).toMatchObject({ code: 0 });
  const rows = readFileSync(path('w.csv'), 'utf8').trim().split('\n').slice(1);
  const z = (frame: number) => Number(rows[frame - 1].split(',')[6]);
  expect(z(1)).toBeCloseTo(0, 9);
  expect(z(49)).toBeCloseTo(10, 9);
  expect(z(97)).toBeCloseTo(10, 9);
});

it('new holds a car whose wheels were found by its rear axle', async () => {
  await folder.putCar();
  expect(await make('--rig')).toMatchObject({ code: 0 });
  const [car] = shotOf().riders;
  expect([car.wheels.length, car.attachment?.anchor]).toEqual([4, 'rearAxle']);
  expect(await run(['bake', path('a.shot.json'), '--out', path('a.csv')])).toMatchObject({ code: 0 });
  const [, first] = readFileSync(path('a.csv'), 'utf8').split('\n');
  // The rear axle is where the path begins, and the path goes along X: its middle is 1.2 m further.
  expect(Number(first.split(',')[4])).toBeCloseTo(1.2, 6);
});

it('upgrade writes a file of version 1 in version 2, over itself or beside it, and leaves one of version 2', async () => {
  await make();
  const latest = readFileSync(path('a.shot.json'), 'utf8');
  const old = latest.replace('"version": 2', '"version": 1').replace('"attachment": {', '"hitch": {');
  writeFileSync(
    path('a.shot.json'),
    ['coupledTo:follows', 'rideTransform:displaced', 'restBeforeParent:stood', 'shake:unrest']
      .concat(['transformKeys:keyed', 'restAim:looks', 'follow:echo', 'parentKeys:carriers'])
      .concat(['rigidBody:forces', 'hangingParts:hanging', 'dressing:laid', 'dismissed:waived'])
      .map((pair) => pair.split(':'))
      .reduce((text, [now, then]) => text.replaceAll(`"${now}":`, `"${then}":`), old),
  );
  expect(await run(['upgrade', path('a.shot.json'), '--out', path('b.shot.json')])).toEqual({
    code: 0,
    text: `${path('b.shot.json')}: version 1 → 2`,
  });
  expect(readFileSync(path('b.shot.json'), 'utf8')).toBe(latest);
  expect(await run(['upgrade', path('a.shot.json')])).toMatchObject({ code: 0 });
  expect(readFileSync(path('a.shot.json'), 'utf8')).toBe(latest);
  expect((await run(['upgrade', path('a.shot.json')])).text).toMatch(/is version 2 already$/);
});

it('bake writes a GLB with the model in it', async () => {
  await make();
  expect(await run(['bake', path('a.shot.json'), '--out', path('a.glb')])).toMatchObject({ code: 0 });
  const root = (await new WebIO().readBinary(new Uint8Array(readFileSync(path('a.glb'))))).getRoot();
  expect(root.listNodes().map((node) => node.getName())).toContain('cart');
  expect(root.listAnimations()[0].listChannels()).toHaveLength(2);
});

it('info tells lengths and what follows what', async () => {
  await make();
  const { code, text } = await run(['info', path('a.shot.json')]);
  expect(code).toBe(0);
  expect(text).toMatch(/path lane: polyline, open, 3 points, 70 m\nrider r1: R1 cart, follows lane/);
});

it('puts the model beside a shot that is made elsewhere, and never over another file', async () => {
  const other = mkdtempSync(join(tmpdir(), 'ride-'));
  const out = join(other, 'b.shot.json');
  const args = ['new', '--path', path('lane.svg'), '--model', path('cart.glb'), '--out', out];
  expect(await run(args)).toMatchObject({ code: 0 });
  expect(existsSync(join(other, 'cart.glb'))).toBe(true);
  writeFileSync(join(other, 'cart.glb'), 'another');
  expect((await run(args)).text).toMatch(/another file of this name/);
  expect(readFileSync(join(other, 'cart.glb'), 'utf8')).toBe('another');
  rmSync(other, { recursive: true });
});

it.each<[string, (...names: string[]) => string[], RegExp]>([
  ['no command', () => [], /found no command; expected one of new, bake, info/],
  ['an unknown command', () => ['fly'], /found "fly"; expected one of/],
  ['a missing option', () => ['new', '--path', path('lane.svg')], /--model: found nothing; expected a value/],
  ['an unknown option', () => ['info', '--loud'], /Unknown option '--loud'; options here: none/],
  [
    'a missing file',
    () => ['info', path('no.shot.json')],
    /no\.shot\.json: cannot be read: there is no such file or folder/,
  ],
  [
    'a file that is no shot',
    () => ['info', path('lane.svg')],
    /found text that is not JSON .*; expected a \.shot\.json/,
  ],
  [
    'a file that is no model',
    () => ['new', '--path', path('lane.svg'), '--model', path('lane.svg'), '--out', path('c.json')],
    /neither GLB nor glTF/,
  ],
  [
    'no frames',
    () => [
      'new',
      '--path',
      path('lane.svg'),
      '--model',
      path('cart.glb'),
      '--out',
      path('c.json'),
      '--frames',
      '0',
    ],
    /--frames: found 0; expected a whole number from 1/,
  ],
  [
    'a word for a number',
    () => [
      'new',
      '--path',
      path('lane.svg'),
      '--model',
      path('cart.glb'),
      '--out',
      path('c.json'),
      '--fps',
      'fast',
    ],
    /--fps: found "fast"; expected a number/,
  ],
  [
    'an unknown ending',
    () => ['bake', path('lane.svg'), '--out', 'a.mov'],
    /--out: found "a\.mov"; expected a name ending in/,
  ],
])('says what is wrong with %s in one line and writes nothing', async (_, args, message) => {
  const before = readdirSync(folder.folder);
  const { code, text } = await run(args());
  expect(code).toBe(1);
  expect(text).toMatch(message);
  expect(text).not.toContain('\n');
  expect(readdirSync(folder.folder)).toEqual(before);
});

it('a bake whose model is gone names the file, and leaves no half file', async () => {
  await make();
  copyFileSync(path('a.shot.json'), path('b.shot.json'));
  rmSync(path('cart.glb'));
  const { code, text } = await run(['bake', path('b.shot.json'), '--out', path('b.glb')]);
  expect([code, existsSync(path('b.glb'))]).toEqual([1, false]);
  expect(text).toMatch(/cart\.glb: cannot be read/);
});

describe('check', () => {
  const check = (...more: string[]) => run(['check', path('a.shot.json'), ...more]);
  const change = (
    edit: (shot: { riders: Record<string, never>[]; checks: { dismissed: object[] } }) => void,
  ) => {
    const shot = JSON.parse(readFileSync(path('a.shot.json'), 'utf8'));
    edit(shot);
    writeFileSync(path('a.shot.json'), JSON.stringify(shot));
  };
  beforeEach(() => make());

  it('says what it found as text, and ends with 0 where none of it is a fault', async () => {
    const { code, text } = await check();
    expect(code).toBe(0);
    // From 30 m on the lane turns a corner.
    expect(text).toMatch(/^.*: 1 warning in 1 rider\nwarning: kink: \w+ turns 90° at once at 30\.00 m/);
  });

  it('as JSON every finding has all of its fields', async () => {
    const { code, text } = await check('--json');
    expect(code).toBe(0);
    expect(JSON.parse(text)).toEqual([
      {
        kind: 'kink',
        severity: 'warning',
        rider: expect.any(String),
        other: null,
        path: 'lane',
        part: null,
        from: expect.any(Number),
        to: expect.any(Number),
        frame: expect.any(Number),
        distance: expect.closeTo(30, 9),
        figure: expect.closeTo(90, 9),
        unit: '°',
        message: expect.any(String),
        fix: 'round-corner',
        dismissed: null,
        remedy: 'round-corner',
        waived: null,
      },
    ]);
  });

  it('ends with 2 where there is a fault, and with 0 once that is dismissed', async () => {
    rmSync(path('cart.glb'));
    const missing = await check('--json');
    expect(missing.code).toBe(2);
    expect(JSON.parse(missing.text)[0]).toMatchObject({ kind: 'missing-model', severity: 'fault' });
    change(({ checks }) => checks.dismissed.push({ kind: 'missing-model', reason: 'It comes on Monday.' }));
    const known = await check();
    expect(known.code).toBe(0);
    expect(known.text).toMatch(/dismissed: missing-model: .*\(It comes on Monday\.\)/);
  });

  it('ends with 1 and one line where it cannot look', async () => {
    await expect(run(['check', path('none.shot.json')])).resolves.toMatchObject({
      code: 1,
      text: expect.stringMatching(/^ride: [^\n]*none\.shot\.json: cannot be read/),
    });
    await expect(check('--worst')).resolves.toMatchObject({
      code: 1,
      text: expect.stringContaining('--json'),
    });
    change(({ riders }) => (riders[0].kind = 'boat' as never));
    await expect(check()).resolves.toMatchObject({
      code: 1,
      text: expect.stringContaining('riders[0].kind'),
    });
  });
});

describe('what is built, sprayed and moved by forces', () => {
  const shotWith = async (fields: object, rider: object = {}) => {
    await make('--frames', '25');
    const shot = JSON.parse(readFileSync(path('a.shot.json'), 'utf8'));
    Object.assign(shot, fields);
    Object.assign(shot.riders[0], rider);
    writeFileSync(path('a.shot.json'), JSON.stringify(shot));
  };

  it('lay gives out what is laid alone', async () => {
    const laid = (id: string, name: string, every: number) => ({
      id,
      name,
      path: 'lane',
      model: 'model',
      every,
    });
    await shotWith({ dressing: [laid('ties', 'Ties', 10), laid('posts', 'Posts', 35)] });
    const out = ['--out', path('ties.glb')];
    await expect(run(['lay', path('a.shot.json'), ...out, '--only', 'Ties'])).resolves.toEqual({
      code: 0,
      text: `${path('ties.glb')}: 8 pieces, 0 profiles`,
    });
    const root = (await new WebIO().readBinary(new Uint8Array(readFileSync(path('ties.glb'))))).getRoot();
    const ties =
      root
        .listNodes()
        .find((node) => node.getName() === 'Ties')
        ?.listChildren() ?? [];
    // 30 m ahead along X, then 40 m along Z.
    expect(ties.map((tie) => tie.getTranslation().map(Math.round))).toEqual([
      ...[0, 10, 20, 30].map((x) => [x, 0, 0]),
      ...[10, 20, 30, 40].map((z) => [30, 0, z]),
    ]);
    expect(root.listScenes()[0].listChildren()).toHaveLength(1);
    await expect(run(['lay', path('a.shot.json'), ...out, '--only', 'Poles'])).resolves.toEqual({
      code: 1,
      text: 'ride: --only: found "Poles"; expected one of: Ties, Posts',
    });
  });

  it('bake says how many particles there are', async () => {
    await shotWith({}, { emitter: { rate: 24, life: 2 } });
    const { text } = await run(['bake', path('a.shot.json'), '--out', path('a.csv')]);
    // One a frame.
    expect(text).toMatch(/1 rider, 25 frames, 25 particles$/);
    const rows = readFileSync(path('a.csv'), 'utf8').split('\n');
    expect(rows.filter((row) => row.startsWith('25,') && row.includes('particle'))).toHaveLength(25);
  });

  it('bake lets forces move what they move: it falls', async () => {
    await shotWith({}, { attachment: null, rest: { translation: [0, 20, 0] }, rigidBody: { pull: 0 } });
    await expect(run(['bake', path('a.shot.json'), '--out', path('a.csv')])).resolves.toMatchObject({
      code: 0,
    });
    const last = readFileSync(path('a.csv'), 'utf8').trim().split('\n')[25].split(',');
    // A second.
    expect(20 - Number(last[5])).toBeCloseTo(9.80665 / 2, 2);
  });
});

describe('files as they come, and as others need them', () => {
  it('new takes the path that is picked, as long as is asked, as the kind that is meant', async () => {
    writeFileSync(
      path('lane.svg'),
      '<svg xmlns="http://www.w3.org/2000/svg"><path id="first" d="M0 0H10"/><path id="second" d="M0 0 H30 V40"/></svg>',
    );
    for (const pick of ['second', '2']) {
      const made = await make('--pick', pick, '--length', '140', '--kind', 'prop');
      expect(made).toMatchObject({ code: 0 });
      expect(shotOf().paths.map(({ id }: { id: string }) => id)).toEqual(['second']);
      expect(shotOf().riders[0].kind).toBe('prop');
      expect((await run(['info', path('a.shot.json')])).text).toMatch(/path second: .*, 140(\.0+\d*)? m/);
      rmSync(path('a.shot.json'));
    }
    expect((await make('--pick', 'third')).text).toMatch(
      /--pick: found "third"; expected a number from 1 to 2, or one of first, second/,
    );
    expect((await make('--kind', 'boat')).text).toMatch(/--kind: found "boat"; expected one of vehicle/);
  });

  it('a path that is given out comes back as the same curve', async () => {
    writeFileSync(
      path('lane.svg'),
      '<svg xmlns="http://www.w3.org/2000/svg"><path id="lane" d="M0 0 C20 0 30 10 30 40 S 5 60 0 90"/></svg>',
    );
    await make();
    const lengthOf = async (shot: string) =>
      Number(/, ([\d.]+) m/.exec((await run(['info', path(shot)])).text.split('\n')[1])?.[1]);
    const length = await lengthOf('a.shot.json');
    for (const kind of ['svg', 'obj', 'csv', 'glb']) {
      const out = path(`out.${kind}`);
      const given = await run([
        'path',
        path('a.shot.json'),
        '--path',
        'lane',
        '--out',
        out,
        '--within',
        '0.001',
      ]);
      expect(given).toMatchObject({ code: 0 });
      const again = ['new', '--path', out, '--model', path('cart.glb'), '--out', path('b.shot.json')];
      expect(await run(again)).toMatchObject({ code: 0 });
      expect(Math.abs((await lengthOf('b.shot.json')) - length)).toBeLessThan(kind === 'svg' ? 1e-9 : 0.01);
    }
    const unknown = await run(['path', path('a.shot.json'), '--path', 'no', '--out', path('o.svg')]);
    expect(unknown).toMatchObject({ code: 1, text: 'ride: --path: found "no"; expected one of lane' });
  });

  it('a model that comes in several files is put beside the shot as one', async () => {
    const document = new Document();
    const buffer = document.createBuffer('places').setURI('places.bin');
    const position = document
      .createAccessor()
      .setType('VEC3')
      .setArray(Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]))
      .setBuffer(buffer);
    const mesh = document
      .createMesh('wing')
      .addPrimitive(document.createPrimitive().setAttribute('POSITION', position));
    document.createScene().addChild(document.createNode('wing').setMesh(mesh));
    const { json, resources } = await new WebIO().writeJSON(document);
    writeFileSync(path('wing.gltf'), JSON.stringify(json));
    const args = [
      'new',
      '--path',
      path('lane.svg'),
      '--model',
      path('wing.gltf'),
      '--out',
      path('a.shot.json'),
    ];
    const missing = await run(args);
    expect(missing.text).toMatch(
      /wing\.gltf: needs other files \("places\.bin"\); expected them to be given together/,
    );
    for (const [name, bytes] of Object.entries(resources)) writeFileSync(path(name), bytes);
    expect(await run(args)).toMatchObject({ code: 0 });
    expect(shotOf().models[0].source).toEqual({ file: 'wing.glb' });
    expect(await run(['bake', path('a.shot.json'), '--out', path('a.glb')])).toMatchObject({ code: 0 });
    const baked = await new WebIO().readBinary(readFileSync(path('a.glb')));
    expect(baked.getRoot().listMeshes()).toHaveLength(1);
  });

  it('bake gives out only some riders and frames, as USD too, with the key that closes a loop', async () => {
    await make('--frames', '48');
    const bake = (out: string, ...more: string[]) =>
      run(['bake', path('a.shot.json'), '--out', path(out), ...more]);
    expect((await bake('a.usda', '--closing-key')).text).toMatch(/a\.usda: 1 rider, 49 frames/);
    const layer = readFileSync(path('a.usda'), 'utf8');
    expect(layer).toMatch(/^#usda 1\.0\n/);
    expect(layer).toMatch(/endTimeCode = 49\n/);
    expect(await bake('a.usdz')).toMatchObject({ code: 0 });
    await bake('a.csv', '--from', '11', '--to', '13', '--riders', 'R1');
    const rows = readFileSync(path('a.csv'), 'utf8').trim().split('\n').slice(1);
    expect(rows.map((row) => row.split(',')[0])).toEqual(['11', '12', '13']);
    await bake('c.csv', '--facts', '--tables');
    expect(readFileSync(path('c.csv'), 'utf8')).toMatch(/^# fps 24\n# frames 1 to 48/);
    expect(readFileSync(path('c-riders.csv'), 'utf8')).toMatch(/^rider,name,badge,kind,model,sx,sy,sz\n/);
    expect((await bake('b.glb', '--tables')).text).toMatch(
      /--tables: found a \.glb to write; expected a \.csv/,
    );
    expect((await bake('b.csv', '--riders', 'X9')).text).toMatch(
      /--riders: found "X9"; expected badges among R1/,
    );
    expect((await bake('b.csv', '--from', '99')).text).toMatch(
      /--from: found 99; expected a whole frame from 1 to 48/,
    );
    expect((await bake('b.glb', '--clips', 'some')).text).toMatch(
      /--clips: found "some"; expected keep or drop/,
    );
  });
});
