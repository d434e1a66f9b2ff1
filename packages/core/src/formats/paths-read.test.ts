import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { Document, WebIO } from '@gltf-transform/core';
import { sampleShot } from '../shot/bake/sample-shot.js';
import { newShot } from '../document/new-shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { distance3, type Vec3 } from '../geometry/math/vec.js';
import { compilePace } from '../motion/pace/compile-pace.js';
import { compilePath } from '../geometry/path/compile-path.js';
import { newAttachment } from '../motion/ride/new-attachment.js';
import { writeCsv } from './csv-write.js';
import type { Imported, ImportedRide } from './imported.js';
import { readPaths } from './paths-read.js';

const options = { scale: 1, fps: 24, firstFrame: 1, tolerance: 0.001 };
const bytes = (text: string) => new TextEncoder().encode(text);
const read = (name: string, text: string, more = {}) => readPaths(bytes(text), name, { ...options, ...more });

/** Position of an imported ride at a frame. */
function placeAt(imported: Imported, ride: ImportedRide, frame: number): Vec3 {
  const path = imported.paths.find(({ id }) => id === ride.pathId);
  if (!path) throw new Error('the ride has no path');
  const curve = compilePath(path);
  const attachment = newAttachment(path.id, { first: 1, last: 2 });
  const pace = compilePace({ ...attachment.pace, unit: 'metres', keys: ride.keys }, 24, curve);
  const out: Vec3 = [0, 0, 0];
  curve.position(pace.distance(frame), out);
  return out;
}

describe('OBJ', () => {
  it('lines of two points are chained, and closed where they come round', async () => {
    const text = 'o Kerb\nv 0 0 0\nv 0 0 4\nv 3 0 4\nl 1 2\nl 3 1\nl 2 3\no Pole\nv 9 0 0\nv 9 2 0\nl -2 -1';
    const { paths } = await read('road.obj', text, { scale: 2 });
    expect(paths.map(({ name, closed }) => [name, closed])).toEqual([
      ['Kerb', true],
      ['Pole', false],
    ]);
    expect(compilePath(paths[0]).length).toBeCloseTo(24, 12);
    expect(paths[1].points.map(({ position }) => position)).toEqual([
      [18, 0, 0],
      [18, 4, 0],
    ]);
  });

  it('runs end where more than two lines meet', async () => {
    const text = 'v 0 0 0\nv 1 0 0\nv 2 0 0\nv 1 0 1\nl 1 2\nl 2 3\nl 2 4';
    expect((await read('tee.obj', text)).paths).toHaveLength(3);
  });

  it.each([
    ['v 0 0 0\nv 1 0 0\nv 0 0 1\nf 1 2 3', /there are no lines \(l\).*It holds 1 faces/],
    ['v 0 0 0\nl 1 2', /line 2: names vertex 2, but 1 are given/],
    ['v 0 0 zero\nl 1 1', /line 1: found "0 0 zero"; expected three numbers/],
    ['v 1 1 1\nv 1 1 1\nl 1 2', /all its points in one place/],
  ])('%j is refused', async (text, message) => {
    await expect(read('bad.obj', text)).rejects.toThrow(message);
  });
});

describe('CSV', () => {
  it.each([
    ['x,y,z\n0,0,0\n1,2,3\n4,5,6', [4, 5, 6]],
    ['0;0;0\n1;2;3\n4;5;6', [4, 5, 6]],
    ['0\t0\n1\t3\n4\t6\n', [4, 0, 6]],
    ['z,x\n0,0\n3,1\n6,4', [4, 0, 6]],
  ])('%j is a path through its points', async (text, last) => {
    const { paths } = await read('dots.csv', text);
    expect(paths[0]).toMatchObject({ name: 'dots', basis: 'through' });
    expect(paths[0].points[2].position).toEqual(last);
  });

  it('waypoints become a path and keys: there at each point on its time, stops included', async () => {
    const text = 'time,x,y,z\n0,0,0,0\n1,0,0,10\n3,0,0,10\n4.5,5,0,14';
    const imported = await read('walk.csv', text);
    const [ride] = imported.rides;
    expect(ride.keys.map(({ frame }) => frame)).toEqual([1, 25, 73, 109]);
    expect(distance3(placeAt(imported, ride, 25), [0, 0, 10])).toBeLessThan(1e-6);
    expect(distance3(placeAt(imported, ride, 50), [0, 0, 10])).toBeLessThan(1e-6);
    expect(distance3(placeAt(imported, ride, 109), [5, 0, 14])).toBeLessThan(1e-6);
  });

  it('more points than a path can hold are fitted within the tolerance, and it says so', async () => {
    const rows = Array.from(
      { length: 20_000 },
      (_, i) => `${20 * Math.cos(i / 3000)},${i / 4000},${20 * Math.sin(i / 3000)}`,
    );
    const parts: number[] = [];
    const { paths, notes } = await readPaths(bytes(rows.join('\n')), 'dense.csv', options, (part) =>
      parts.push(part),
    );
    expect(notes[0]).toMatch(/20000 points became \d+, within 0.001 m/);
    const length = Math.hypot(20, 0.75) * (19_999 / 3000);
    expect(Math.abs(compilePath(paths[0]).length - length)).toBeLessThan(0.01);
    expect(parts.every((part, i) => part >= 0 && part <= 1 && (i === 0 || part >= parts[i - 1]))).toBe(true);
    expect(parts.length).toBeGreaterThan(3);
  });

  it('a tolerance that cannot be kept is refused with one that can, and nothing is made of another', async () => {
    // Every point is a corner, half a metre off.
    const zigzag = Array.from({ length: 6_000 }, (_, i) => `${i},0,${i % 2 ? 0.5 : 0}`).join('\n');
    const refused = await read('zigzag.csv', zigzag).catch((error: Error) => error.message);
    expect(refused).toMatch(/"zigzag" takes \d+ points within 0.001 m, and a path holds 5000/);
    const wanted = Number(/tolerance of ([\d.]+) m or more/.exec(String(refused))?.[1]);
    expect(wanted).toBeGreaterThan(0.1);
    expect(wanted).toBeLessThan(5);
    const { paths } = await readPaths(bytes(zigzag), 'zigzag.csv', { ...options, tolerance: wanted });
    expect(paths[0].points.length).toBeLessThanOrEqual(5_000);
  });

  it('a motion beyond all reach is refused, however far', async () => {
    for (const far of ['1e15', '1e308', '1e999']) {
      const rows = `frame,time,rider,part,tx,ty,tz\n1,0,r,,0,0,0\n2,0,r,,${far},0,0\n`;
      await expect(read('far.csv', rows)).rejects.toThrow(/more than 10000000 m away|expected a number/);
    }
    const late = 'x,z,frame\n0,0,1\n1,1,1e12\n';
    await expect(read('late.csv', late)).rejects.toThrow('"late" has a frame beyond ±1000000000');
  });

  it.each([
    ['', /is empty/],
    ['x,y,z', /"bad" has 0 of the 2 points it needs/],
    ['1,2,3', /1 of the 2 points/],
    ['0,0,0\n1,two,3', /line 2, column 2: found "two"; expected a number/],
    ['x,y,z\n0,0,0\n1,NaN,3', /line 3, column 2: found "NaN"/],
    ['0,0,0\n1,,3', /line 2, column 2: found nothing/],
    ['1,1,1\n1,1,1', /all its points in one place/],
    ['a,b\n1,2', /found columns a, b; expected x, y, z/],
    ['1,2,3,4', /found 4 columns without names/],
    ['time,x,y,z\n0,0,0,0\n0,1,1,1', /line 3: its time is not later/],
    ['1,2,3\n1e9,0,0', /more than 10000000 m away/],
  ])('%j is refused with what, where and what was expected', async (text, message) => {
    await expect(read('bad.csv', text)).rejects.toThrow(message);
  });

  it('a motion that was handed over comes back as a path with keys, there on every frame', async () => {
    const shot = newShot({
      name: 't',
      range: { first: 1, last: 97 },
      paths: [
        {
          id: 'p',
          name: 'P',
          basis: 'through',
          points: (
            [
              [0, 0, 0],
              [8, 1, 3],
              [10, 0, 12],
              [0, 2, 20],
            ] as Vec3[]
          ).map((position) => ({ position })),
        },
      ],
      riders: [
        {
          id: 'r',
          name: 'R',
          attachment: {
            path: 'p',
            pace: {
              unit: 'laps',
              keys: [
                { frame: 1, value: 0, ease: 'smooth' },
                { frame: 40, value: 0.5, ease: 'hold' },
                { frame: 60, value: 0.5, ease: 'smooth' },
                { frame: 97, value: 1 },
              ],
            },
          },
        },
        { id: 's', name: 'Still' },
      ],
    });
    const evaluated = evaluateShot(shot, NO_ASSETS);
    const imported = await read('motion.csv', writeCsv(evaluated));
    expect(imported.rides.map(({ name }) => name)).toEqual(['r']);
    expect(imported.notes).toEqual(['"s" stands still and was left out.']);
    const pose = sampleShot(evaluated).riders[0];
    for (let frame = 1; frame <= 97; frame++) {
      const at = (frame - 1) * (pose.length / 97);
      const expected: Vec3 = [pose[at], pose[at + 1], pose[at + 2]];
      expect(distance3(placeAt(imported, imported.rides[0], frame), expected)).toBeLessThan(0.005);
    }
    // Standing still from 40 to 60 takes no key between.
    const frames = imported.rides[0].keys.map((key) => key.frame);
    expect(frames.filter((frame) => frame > 40 && frame < 60)).toEqual([]);
    expect(frames).toEqual(expect.arrayContaining([1, 40, 60, 97]));
  });
});

describe('glTF', () => {
  const lineFile = async (mode: 1 | 2 | 3, indices?: number[]) => {
    const document = new Document();
    const buffer = document.createBuffer();
    const places = new Float32Array([0, 0, 0, 0, 0, 2, 3, 0, 2, 3, 0, 0]);
    const primitive = document
      .createPrimitive()
      .setMode(mode)
      .setAttribute('POSITION', document.createAccessor().setType('VEC3').setArray(places).setBuffer(buffer));
    if (indices)
      primitive.setIndices(
        document.createAccessor().setType('SCALAR').setArray(new Uint16Array(indices)).setBuffer(buffer),
      );
    const node = document
      .createNode('rail')
      .setMesh(document.createMesh().addPrimitive(primitive))
      .setScale([2, 2, 2]);
    document.createScene().addChild(document.createNode('yard').setTranslation([0, 1, 0]).addChild(node));
    return new WebIO().writeBinary(document);
  };

  it.each([
    [1, [0, 1, 3, 2, 1, 2], false, 14],
    [2, undefined, true, 20],
    [3, undefined, false, 14],
  ] as const)(
    'line primitives of mode %d are paths where they stand',
    async (mode, indices, closed, length) => {
      const { paths } = await readPaths(await lineFile(mode, indices && [...indices]), 'rail.glb', options);
      expect(paths).toHaveLength(1);
      expect(paths[0]).toMatchObject({ name: 'rail', closed });
      expect(compilePath(paths[0]).length).toBeCloseTo(length, 6);
      expect(paths[0].points[0].position[1]).toBe(1);
    },
  );

  it('a node that travels becomes a path with keys', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const node = document.createNode('cart');
    document.createScene().addChild(document.createNode('yard').setTranslation([0, 0, 5]).addChild(node));
    const accessor = (type: 'SCALAR' | 'VEC3', values: number[]) =>
      document.createAccessor().setType(type).setArray(new Float32Array(values)).setBuffer(buffer);
    const sampler = document
      .createAnimationSampler()
      .setInput(accessor('SCALAR', [0, 1, 2]))
      .setOutput(accessor('VEC3', [0, 0, 0, 4, 0, 0, 4, 0, 0]));
    const channel = document
      .createAnimationChannel()
      .setTargetNode(node)
      .setTargetPath('translation')
      .setSampler(sampler);
    document.createAnimation('go').addSampler(sampler).addChannel(channel);
    const imported = await readPaths(await new WebIO().writeBinary(document), 'cart.glb', options);
    const [ride] = imported.rides;
    expect(ride.name).toBe('cart');
    expect(distance3(placeAt(imported, ride, 13), [2, 0, 5])).toBeLessThan(0.002);
    expect(distance3(placeAt(imported, ride, 40), [4, 0, 5])).toBeLessThan(0.002);
  });

  it('of nodes that hang on each other the topmost is a motion, and a camera comes with its lens', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const lens = document.createCamera().setType('perspective').setAspectRatio(1.5);
    // 50 mm before a picture 24 mm high.
    lens.setYFov(2 * Math.atan(12 / 50));
    const [rider, wheel, still] = ['Drone', 'wheel', 'gate'].map((name) => document.createNode(name));
    rider.addChild(wheel).addChild(document.createNode('eye').setCamera(lens));
    document.createScene().addChild(rider).addChild(still);
    const accessor = (type: 'SCALAR' | 'VEC3', values: number[]) =>
      document.createAccessor().setType(type).setArray(new Float32Array(values)).setBuffer(buffer);
    const ride = document.createAnimation('ride');
    for (const [node, places] of [
      [wheel, [0, 0, 0, 0, 1, 0]],
      [rider, [0, 0, 0, 0, 0, 9]],
      [still, [3, 3, 3, 3, 3, 3]],
    ] as const) {
      const sampler = document
        .createAnimationSampler()
        .setInput(accessor('SCALAR', [0, 1]))
        .setOutput(accessor('VEC3', [...places]));
      const channel = document.createAnimationChannel().setTargetNode(node).setTargetPath('translation');
      ride.addSampler(sampler).addChannel(channel.setSampler(sampler));
    }
    const { rides } = await readPaths(await new WebIO().writeBinary(document), 'drone.glb', options);
    expect(rides.map(({ name }) => name)).toEqual(['Drone']);
    expect(rides[0].lens).toEqual({
      focal: expect.closeTo(50, 3),
      sensor: 36,
      aspect: expect.closeTo(1.5, 6),
    });
  });

  it('a file with neither is refused', async () => {
    const document = new Document();
    document.createScene().addChild(document.createNode('empty'));
    const file = await new WebIO().writeBinary(document);
    await expect(readPaths(file, 'none.glb', options)).rejects.toThrow(
      /no line primitives and no node that travels/,
    );
  });
});

it('a file of another kind is refused by its ending', async () => {
  await expect(read('notes.txt', 'x')).rejects.toThrow(/expected one of .svg, .obj, .csv, .glb, .gltf/);
});

it('the root of a recorded figure is a path, whatever the order of its channels', async () => {
  const file = (channels: string, rows: string[]) =>
    `HIERARCHY\nROOT Hips\n{\n  OFFSET 0 0 0\n  CHANNELS 6 ${channels}\n  JOINT Foot\n  {\n    OFFSET 0 -0.92 0\n    CHANNELS 0\n    End Site\n    {\n      OFFSET 0 0 0.2\n    }\n  }\n}\nMOTION\nFrames: 2\nFrame Time: 1\n${rows.join('\n')}\n`;
  const orders = [
    ['Xposition Yposition Zposition Zrotation Xrotation Yrotation', ['0 0.92 0 0 90 0', '0 0.92 5 0 90 0']],
    ['Zrotation Xrotation Yrotation Zposition Xposition Yposition', ['0 90 0 0 0 0.92', '0 90 0 5 0 0.92']],
  ] as const;
  for (const [channels, rows] of orders) {
    const imported = await read('walk.bvh', file(channels, [...rows]));
    // In metres, although a rotation of 90 is in the column of another file's height.
    expect(compilePath(imported.paths[0]).length).toBeCloseTo(5, 6);
    expect(imported.rides[0].keys.map(({ frame }) => frame)).toEqual([1, 25]);
  }
});

describe('tables as they come', () => {
  const table = (text: string) =>
    readPaths(new TextEncoder().encode(text), 'a.csv', { scale: 1, fps: 24, firstFrame: 1, tolerance: 0.01 });

  it.each([
    ['semicolons and decimal commas', 'x;y;z\n0,5;0;0\n3,5;0;4\n'],
    ['tabs', 'x\ty\tz\n0.5\t0\t0\n3.5\t0\t4\n'],
    ['lines that say what it is', '# made in a field\n# metres\nx,y,z\n0.5,0,0\n3.5,0,4\n'],
    ['a mark before it', '\uFEFFx,y,z\r\n0.5,0,0\r\n3.5,0,4\r\n'],
  ])('%s', async (_, text) => {
    const { paths } = await table(text);
    expect(paths[0].points.map(({ position }) => position)).toEqual([
      [0.5, 0, 0],
      [3.5, 0, 4],
    ]);
  });

  it('UTF-16 is read by its mark', async () => {
    const text = 'x,z\n1,2\n3,4\n';
    const bytes = Uint8Array.from([0xff, 0xfe, ...[...text].flatMap((c) => [c.charCodeAt(0), 0])]);
    const { paths } = await readPaths(bytes, 'a.csv', { scale: 1, fps: 24, firstFrame: 1, tolerance: 0.01 });
    expect(paths[0].points[1].position).toEqual([3, 0, 4]);
  });

  it.each([
    ['seconds', 'seconds,x,z\n0,0,0\n2,0,10\n', 49],
    ['frame', 'frame,x,z\n1,0,0\n49,0,10\n', 49],
    ['timecode', 'timecode,x,z\n00:00:00:00,0,0\n00:01:02:12,0,10\n', 1 + 62 * 24 + 12],
  ])('timed by %s', async (clock, text, last) => {
    const { rides, notes } = await table(text);
    expect(rides[0].keys.map(({ frame, value }) => [frame, value])).toEqual([
      [1, 0],
      [last, 10],
    ]);
    expect(notes).toEqual([
      `Its 2 rows are timed by ${clock}, frames 1 to ${last}: they become a path through them with a key at each.`,
    ]);
  });

  it('a timecode that is none is told with its line', async () => {
    await expect(table('timecode,x,z\nten,0,0\n')).rejects.toThrow(
      'a.csv: line 2, column 1: found "ten"; expected a timecode as 00:00:10:12.',
    );
  });
});
