import fc from 'fast-check';
import { newShot } from './new-shot.js';
import { parseShot, parseShotText, writeShotText } from './parse-shot.js';
import { ShotError } from './shot-error.js';

const minimal = { format: 'fleet-rail-shot', version: 2, name: 'Minimal' };

/** Everything the format has, each field away from its default. */
const whole = {
  ...minimal,
  name: 'Orchard loop',
  fps: 25,
  range: { first: 5, last: 100 },
  loop: true,
  paths: [
    {
      id: 'lane',
      name: 'Lane',
      basis: 'nurbs',
      closed: true,
      degree: 2,
      knots: [0, 0, 0, 1, 1, 1],
      alpha: 1,
      points: [1, 2, 3].map((x) => ({
        position: [x, x * x, 0],
        in: [-1, 0, 0],
        out: [1, 0, 0],
        handles: 'symmetric',
        weight: 2,
        roll: 10,
        off: x === 2,
      })),
      transform: { translation: [1, 2, 3], rotation: [0, 1, 0, 0], scale: [2, 2, -2] },
      marks: [{ id: 'gate', name: 'Gate', distance: 31.5 }],
    },
  ],
  models: [
    { id: 'hauler', name: 'Hauler', source: { file: 'hauler.glb' } },
    { id: 'drone', name: 'Drone', source: { asset: 'abc-1' } },
  ],
  riders: [
    {
      id: 'r1',
      name: 'Hauler',
      kind: 'vehicle',
      model: 'hauler',
      badge: 'H1',
      color: 3,
      parent: 'r2',
      rest: { translation: [0, 1, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
      attachment: {
        path: 'lane',
        anchor: 'bothAxles',
        facing: {
          mode: 'aim',
          forward: '-x',
          up: '+z',
          reference: 'path',
          target: { rider: 'r2' },
          ahead: 4,
        },
        bank: { mode: 'physical', amount: 0.5, limit: 30, window: 2 },
        offset: { along: 1, side: 2, rise: 3, yaw: 4, pitch: 5, roll: 6 },
        pace: {
          mode: 'drive',
          unit: 'laps',
          keys: [{ frame: 1, value: 0, ease: 'handles', in: [-8, 0], out: [8, 0] }],
          speeds: [{ distance: 0, speed: 8, ease: 'smooth' }],
          drive: {
            top: 9,
            accelerate: 1,
            brake: 2,
            sideways: 3,
            jerk: null,
            departs: 'rolling',
            arrives: 'rolling',
            stops: [{ distance: 20, seconds: 2 }],
            zones: [{ from: 0, to: 10, speed: 3 }],
          },
          start: { frame: 2, value: 0.5 },
          before: 'mirror',
          after: 'run',
          variation: { time: 0.1, amount: 0.2, seed: 4 },
        },
        ground: { mode: 'stick', up: 1, down: 2, rise: 0.1, tilt: false },
      },
      wheels: [{ node: 'w', centre: [0.8, 0.4, 1.2], radius: 0.4, axle: '-x', steers: true, drives: false }],
      steering: { node: 'steering_wheel', axis: '-z', ratio: 12 },
      body: { node: 'body', rollPerG: 3, pitchPerG: 1, settle: 0.2 },
      gait: { clip: 'walk', stride: 1.42, phase: 0.1, idle: 'idle', blend: 0.3, plant: false },
      cycles: [
        {
          node: 'wing',
          axis: '+z',
          amplitude: 30,
          rate: 2,
          by: 'distance',
          rest: 5,
          shape: 'noise',
          seed: 7,
        },
      ],
    },
    { id: 'r2', name: 'Drone', kind: 'camera', model: null, badge: 'C2', attachment: null },
  ],
  ground: { model: 'hauler', nodes: ['deck'] },
  retimes: [
    {
      name: 'Slow',
      riders: ['r2'],
      keys: [
        { frame: 10, source: 10, ease: 'linear' },
        { frame: 40, source: 20, ease: 'hold' },
      ],
      off: true,
    },
  ],
  cues: [
    {
      id: 'gate',
      name: 'Gate',
      trigger: { kind: 'gap', rider: 'r1', other: 'r2' },
      action: { kind: 'move', rider: 'r2', node: 'leaf', axis: '-z', stop: 3 },
      keys: [
        { at: 2, value: 1, ease: 'linear' },
        { at: 5, value: 0, ease: 'smooth' },
      ],
      off: true,
    },
  ],
};

/** The whole document with one place changed; the path's keys are joined by dots. */
function changed(path: string, value: unknown): unknown {
  const copy = structuredClone(whole) as Record<string, unknown>;
  const keys = path.split('.');
  const last = keys.pop() as string;
  let at: Record<string, unknown> = copy;
  for (const key of keys) at = at[key] as Record<string, unknown>;
  if (value === undefined) delete at[last];
  else at[last] = value;
  return copy;
}

it('fills in what is left out', () => {
  const shot = parseShot({
    ...minimal,
    paths: [{ id: 'a', name: 'A', points: [{ position: [0, 0, 0] }] }],
    riders: [{ id: 'r', name: 'R', attachment: { path: 'a', pace: { keys: [{ frame: 1, value: 0 }] } } }],
  });
  expect(shot).toMatchObject({ fps: 24, range: { first: 1, last: 240 }, loop: false, models: [] });
  expect(shot.paths[0]).toMatchObject({ basis: 'bezier', closed: false, degree: 3, knots: null, alpha: 0.5 });
  expect(shot.paths[0].points[0]).toMatchObject({ in: [0, 0, 0], weight: 1, roll: 0, off: false });
  expect(shot.riders[0].attachment?.facing).toMatchObject({
    mode: 'path',
    forward: '+z',
    up: '+y',
    reference: 'world',
  });
  expect(shot.riders[0].attachment?.pace.keys[0].ease).toBe('linear');
});

it('keeps everything that is given, and comes back the same from a file', () => {
  const shot = parseShot(whole);
  expect(shot).toMatchObject(whole);
  expect(parseShotText(writeShotText(shot))).toEqual(shot);
});

it('gives plain data, which survives a structured clone', () => {
  const shot = parseShot(whole);
  expect(structuredClone(shot)).toEqual(shot);
  expect(Object.getPrototypeOf(shot.riders[0])).toBe(Object.prototype);
});

it.each([
  ['fps', '24', 'fps', 'a number from 0.01 to 1000'],
  ['fps', NaN, 'fps', 'a number'],
  ['name', undefined, 'name', 'text of 1 to 200'],
  ['speed', 1, 'speed', 'one of: format'],
  ['version', 3, 'version', '1 or 2'],
  ['format', 'other', 'format', 'fleet-rail-shot'],
  ['range.last', 4, 'range.last', '5 (first) or more'],
  ['range.last', 200_000, 'range', 'at most 100000'],
  ['paths', {}, 'paths', 'a list of at most 200'],
  ['paths.0.basis', 'spline', 'paths[0].basis', 'one of bezier, bspline'],
  ['paths.0.points.1.position', [1, 2], 'paths[0].points[1].position', 'three numbers'],
  ['paths.0.points.1.position', [1, Infinity, 0], 'paths[0].points[1].position', 'three numbers'],
  ['paths.0.points.1.extra', 1, 'paths[0].points[1].extra', 'position'],
  ['paths.0.knots', [0, 1], 'paths[0].knots', '6 (points + degree + 1)'],
  ['paths.0.knots', [0, 0, 0, 1, 0.5, 1], 'paths[0].knots', 'rising'],
  ['paths.0.transform.rotation', [0, 0, 0, 3], 'paths[0].transform.rotation', 'unit quaternion'],
  ['paths.0.transform.scale', [1, 0, 1], 'paths[0].transform.scale', 'none of them 0'],
  ['models.1.id', 'hauler', 'models[1].id', 'an id unlike that of models[0]'],
  ['models.0.source', {}, 'models[0].source', 'exactly one of file, asset'],
  ['models.0.source', { file: '../a.glb' }, 'models[0].source.file', 'beside the shot file'],
  ['riders.0.model', 'tractor', 'riders[0].model', 'one of: hauler, drone'],
  ['riders.0.attachment.path', 'lanne', 'riders[0].attachment.path', 'one of: lane'],
  ['riders.0.attachment.facing.up', '+x', 'riders[0].attachment.facing.up', 'square to forward'],
  [
    'riders.0.attachment.facing.target',
    { rider: 'r2', point: [0, 0, 0] },
    'riders[0].attachment.facing.target',
    'exactly one',
  ],
  [
    'riders.0.attachment.pace.keys.1',
    { frame: 1, value: 3 },
    'riders[0].attachment.pace.keys[1].frame',
    'more than 1',
  ],
  [
    'riders.0.attachment.pace.speeds.0.frame',
    3,
    'riders[0].attachment.pace.speeds[0]',
    'exactly one of frame, distance',
  ],
  ['riders.1.parent', 'r1', 'riders[0].parent', 'no circle'],
  ['riders.1.color', 9, 'riders[1].color', 'a whole number from 0 to 7'],
  ['riders.0.gait.stride', 0, 'riders[0].gait.stride', 'a number'],
  ['ground.model', 'moon', 'ground.model', 'one of: hauler, drone'],
  ['ground', null, 'ground', 'an object'],
  ['riders.0.attachment.pace.drive.jerk', 0, 'riders[0].attachment.pace.drive.jerk', 'or null'],
  [
    'riders.0.attachment.pace.drive.departs',
    'soon',
    'riders[0].attachment.pace.drive.departs',
    'one of rest, rolling',
  ],
  ['riders.0.attachment.pace.variation.time', 0.6, 'riders[0].attachment.pace.variation.time', '0 to 0.5'],
  [
    'riders.0.attachment.pace.speeds.0.speed',
    0,
    'riders[0].attachment.pace.speeds[0].speed',
    'above or below 0',
  ],
  ['riders.0.attachment.takes', [{ name: 'T' }], 'riders[0].attachment.takes[0].pace', 'an object'],
  [
    'riders.0.attachment.takes',
    [{ name: 'T', pace: { speeds: [{ distance: 0, speed: 0 }] } }],
    'riders[0].attachment.takes[0].pace.speeds[0].speed',
    'above or below 0',
  ],
  ['retimes.0.riders', ['r9'], 'retimes[0].riders[0]', 'one of: r1, r2'],
  ['retimes.0.keys.1.frame', 10, 'retimes[0].keys[1].frame', 'more than 10'],
  ['retimes.0.keys.1.ease', 'handles', 'retimes[0].keys[1].ease', 'linear, hold, smooth'],
  ['cues.0.trigger.rider', null, 'cues[0].trigger.rider', 'the id of a rider, for gap'],
  ['cues.0.trigger.other', 'r9', 'cues[0].trigger.other', 'one of: r1, r2'],
  ['cues.0.action.rider', 'r9', 'cues[0].action.rider', 'one of: r1, r2'],
  ['cues.0.action.node', null, 'cues[0].action.node', 'the name of a part, to move'],
  ['cues.0.action.axis', 'up', 'cues[0].action.axis', '+x'],
  ['cues.0.keys.1.at', 2, 'cues[0].keys[1].at', 'more than 2'],
])('refuses %s = %j at %s', (where, value, path, expected) => {
  let refusal: ShotError | undefined;
  try {
    parseShot(changed(where, value));
  } catch (error) {
    refusal = error as ShotError;
  }
  expect(refusal?.name).toBe('ShotError');
  expect(refusal?.path).toBe(path);
  expect(refusal?.expected).toContain(expected);
  expect(refusal?.message).not.toContain('\n');
});

it('refuses more than the limits, by a length alone', () => {
  const many = (length: number) => Array.from({ length }, () => null);
  expect(() => parseShot(changed('paths', many(201)))).toThrow(
    'paths: found 201 entries; expected at most 200',
  );
  expect(() => parseShot(changed('paths.0.points', many(5001)))).toThrow(/points: found 5001/);
  expect(() => parseShot(changed('riders', many(1001)))).toThrow(/riders: found 1001/);
  expect(() => parseShot(changed('cues', many(501)))).toThrow(/cues: found 501/);
  expect(() => parseShot(changed('retimes', many(101)))).toThrow(/retimes: found 101/);
  expect(() => parseShot(changed('riders.0.attachment.takes', many(21)))).toThrow(/takes: found 21/);
});

it.each(['', '{', '[]', 'null', '"shot"'])('refuses the text %j with a sentence', (text) => {
  expect(() => parseShotText(text)).toThrow(/^shot: found .+; expected /);
});

it('refuses a name that is too long with the limit', () => {
  expect(() => newShot({ name: 'x'.repeat(201) })).toThrow(/text of 1 to 200/);
});

/** Every place in a document, as keys joined by dots. */
function placesIn(value: unknown, at: string[] = []): string[] {
  if (typeof value !== 'object' || value === null) return [at.join('.')];
  const inner = Object.entries(value).flatMap(([key, part]) => placesIn(part, [...at, key]));
  return at.length > 0 ? [at.join('.'), ...inner] : inner;
}

it('whatever stands at whatever place, the answer is a shot or a ShotError in one line', () => {
  const anywhere = fc.constantFrom(...placesIn(whole));
  fc.assert(
    fc.property(anywhere, fc.jsonValue({ maxDepth: 2 }), (place, value) => {
      try {
        parseShot(changed(place, value));
      } catch (error) {
        expect((error as ShotError).name).toBe('ShotError');
        expect((error as ShotError).message).toMatch(/^[^\n]+: found .+; expected .+$/);
      }
    }),
    { numRuns: 400 },
  );
});

it.each([[null], [[null]], [[[]]], [{ length: 3 }], ['list'], [[{ __proto__: null }]]])(
  'lists of the wrong things are refused: %j',
  (list) => {
    for (const place of ['paths', 'models', 'riders', 'paths.0.points', 'riders.0.wheels']) {
      expect(() => parseShot(changed(place, list))).toThrow(/found .+; expected/);
    }
  },
);

it('keys that would reach into prototypes are unknown keys', () => {
  for (const key of ['__proto__', 'constructor', 'prototype']) {
    const text = JSON.stringify(whole).replace('"loop":true', `"loop":true,"${key}":{"polluted":1}`);
    try {
      parseShot(JSON.parse(text));
    } catch (error) {
      expect((error as ShotError).name).toBe('ShotError');
    }
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  }
});

describe('documents that no program writes', () => {
  const base = { format: 'fleet-rail-shot', version: 2, name: 'Odd' };
  const nested = (depth: number, inner: unknown = 1): unknown =>
    depth === 0 ? inner : { attachment: nested(depth - 1, inner) };

  it('are refused however deep they are nested', () => {
    let deep: unknown = 1;
    for (let i = 0; i < 100_000; i++) deep = [deep];
    for (const odd of [{ riders: deep }, { riders: [nested(200)] }, { name: deep }, { odd: nested(500) }]) {
      const refused = () => parseShot({ ...base, ...odd });
      expect(refused).toThrow(ShotError);
    }
  });

  it('numbers of less than a trillionth are zero when they are read', () => {
    const path = { id: 'p', name: 'P', points: [{ position: [1e-13, -1e-50, 1] }, { position: [0, 0, 2] }] };
    const drive = { stops: [{ distance: 1e-50, seconds: 1 }] };
    const rider = { id: 'r', name: 'R', attachment: { path: 'p', pace: { mode: 'drive', drive } } };
    const shot = parseShot({ ...base, paths: [path], riders: [rider] });
    expect(shot.paths[0].points[0].position).toEqual([0, 0, 1]);
    expect(shot.riders[0].attachment?.pace.drive.stops[0].distance).toBe(0);
    expect(() =>
      parseShot({ ...base, riders: [{ id: 'r', name: 'R', rest: { scale: [1, 1e-20, 1] } }] }),
    ).toThrow('riders[0].rest.scale: found [1, 0, 1]; expected three numbers [x, y, z], none of them 0');
  });
});
