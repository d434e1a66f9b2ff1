import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { NO_SHAPES, type ModelShapes } from '../../geometry/solid/model-mesh.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import fc from 'fast-check';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Pace } from '../../document/shot-pace.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import { POSE } from '../../motion/pose/pose.js';
import { closingsOf } from './closings.js';
import { relay } from './relay.js';
import { isOpen, seamReport } from './seam-report.js';

/** A circle of 10 m radius, or a straight of 60 m, with one rider on it. */
function shotWith(pace: Loose<Pace>, parts: Loose<Rider> = {}, closed = true): Shot {
  const places = closed
    ? Array.from({ length: 24 }, (_, i) => [
        10 * Math.sin((i * Math.PI) / 12),
        0,
        10 * Math.cos((i * Math.PI) / 12),
      ])
    : [
        [0, 0, 0],
        [0, 3, 60],
      ];
  return newShot({
    name: 't',
    loop: true,
    range: { first: 1, last: 96 },
    paths: [
      { id: 'p', name: 'P', basis: 'through', closed, points: places.map((position) => ({ position })) },
    ],
    models: [{ id: 'm', name: 'M', source: { asset: 'm' } }],
    riders: [
      { id: 'r', name: 'Runner', ...parts, attachment: { path: 'p', bank: { mode: 'physical' }, pace } },
    ],
  });
}
const keys = (last: number, value: number) => [
  { frame: 1, value: 0 },
  { frame: last, value },
];
const open = (shot: Shot) => seamReport(evaluateShot(shot, NO_ASSETS), NO_SHAPES).filter(isOpen);
const gapOf = (shot: Shot, channel: string) =>
  seamReport(evaluateShot(shot, NO_ASSETS), NO_SHAPES).find((gap) => gap.channel === channel) as {
    gap: number;
    rate: number;
  };
/** The shot after the least change that closes its first open gap. */
const closed = (shot: Shot) => closingsOf(evaluateShot(shot, NO_ASSETS), open(shot)[0])[0];

it('whole laps up to the frame after the last leave no gap', () => {
  expect(
    open(shotWith({ unit: 'laps', keys: keys(97, 1), after: 'accumulate', before: 'accumulate' })),
  ).toEqual([]);
});

it('a lap that ends on the last frame itself shows its doubled frame, and closes without one', () => {
  const shot = shotWith({ unit: 'laps', keys: keys(96, 1) });
  // Held for a frame at the end, it has stopped: the gap is in the rate.
  expect(gapOf(shot, 'place').gap).toBeCloseTo(0, 9);
  expect(gapOf(shot, 'speed').gap).toBeCloseTo((2 * Math.PI * 10) / (95 / 24), 2);
  const { shot: after, detail } = closed(shot);
  expect(open(after)).toEqual([]);
  expect(detail).toContain('1 lap');
  expect(after.riders[0].attachment?.pace.keys.map(({ frame }) => frame)).toEqual([1, 97]);
});

it.each([
  ['keys', { unit: 'metres', keys: keys(97, 70) }],
  ['speeds', { mode: 'speed', speeds: [{ frame: 1, speed: 16 }] }],
  [
    'speeds by distance',
    {
      mode: 'speed',
      speeds: [
        { distance: 0, speed: 20 },
        { distance: 30, speed: 12 },
      ],
    },
  ],
  ['a drive', { mode: 'drive', drive: { top: 20, sideways: 30, departs: 'rolling' } }],
] as [string, Loose<Pace>][])('%s: the least change closes every channel', (_, pace) => {
  const shot = shotWith(pace);
  expect(open(shot).length).toBeGreaterThan(0);
  const { shot: after, change } = closed(shot);
  expect(open(after)).toEqual([]);
  expect(change).toBeLessThan(0.6);
});

it('an open path closes by going there and back', () => {
  const shot = shotWith(
    { keys: keys(97, 40).map((key) => ({ ...key, ease: 'smooth' as const })) },
    {},
    false,
  );
  expect(gapOf(shot, 'place').gap).toBeCloseTo(40, 6);
  expect(open(closed(shot).shot)).toEqual([]);
});

it('ends that are passed at different speeds can be matched', () => {
  const pace = {
    unit: 'laps' as const,
    before: 'accumulate' as const,
    after: 'accumulate' as const,
    keys: [
      { frame: 1, value: 0 },
      { frame: 50, value: 0.3 },
      { frame: 97, value: 1 },
    ],
  };
  const shot = shotWith(pace);
  expect(open(shot).map(({ channel }) => channel)).toContain('speed');
  const { shot: after, label } = closed(shot);
  expect(label).toBe('Match the ends');
  expect(gapOf(after, 'speed').gap).toBeLessThan(1e-3);
});

it('wheels, strides and cycles close by the least change of radius, stride or rate', () => {
  const shot = shotWith(
    { unit: 'laps', keys: keys(97, 1), after: 'accumulate' },
    {
      wheels: [
        { node: 'left', radius: 0.4 },
        { node: 'right', radius: 0.4 },
      ],
      gait: { clip: 'walk', stride: 1.4 },
      cycles: [{ node: 'wing', amplitude: 30, rate: 2.1 }],
    },
  );
  // 62.8 m round wheels of 2.51 m: 25.0 turns but for what the splines are off; strides 44.9; 2.1 × 4 s = 8.4 beats.
  expect(gapOf(shot, 'cycle').gap).toBeCloseTo(40, 6);
  const gaps = seamReport(evaluateShot(shot, NO_ASSETS), NO_SHAPES).filter(({ channel }) =>
    ['wheel', 'gait', 'cycle'].includes(channel),
  );
  const after = gaps.reduce((before, gap) => closingsOf(evaluateShot(before, NO_ASSETS), gap)[0].shot, shot);
  expect(seamReport(evaluateShot(after, NO_ASSETS), NO_SHAPES).every(({ gap }) => gap < 1e-6)).toBe(true);
  expect(after.riders[0].cycles[0].rate).toBeCloseTo(2, 9);
  expect(after.riders[0].wheels[0].radius).toBe(after.riders[0].wheels[1].radius);
});

it('under bent time the seam is that of what is shown', () => {
  const once = shotWith(
    { unit: 'laps', keys: keys(97, 1), after: 'accumulate' },
    { cycles: [{ node: 'wing', amplitude: 30, rate: 2 }], gait: { clip: 'walk', stride: 1 } },
  );
  const slow = [
    { frame: 1, source: 1, ease: 'linear' as const },
    { frame: 193, source: 97, ease: 'linear' as const },
  ];
  const shot = {
    ...once,
    range: { first: 1, last: 192 },
    retimes: newShot({ name: 't', retimes: [{ keys: slow }] }).retimes,
  };
  const gap = (channel: string) => gapOf(shot, channel).gap;
  // A lap, and eight beats of the four seconds that are shown in eight.
  expect([gap('place'), gap('speed'), gap('cycle')]).toEqual(
    [0, 0, 0].map((none) => expect.closeTo(none, 6)),
  );
  expect(gap('gait')).toBeCloseTo(gapOf(once, 'gait').gap, 6);
});

it('in a relay each is at the frame after the last exactly where the next one was at the first', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 7 }),
      fc.constantFrom<Loose<Pace>>(
        { keys: keys(150, 55) },
        { keys: keys(150, 55).map((key) => ({ ...key, ease: 'smooth' as const })) },
        { mode: 'drive', start: { frame: 1 }, drive: { stops: [{ distance: 20, seconds: 1 }] } },
      ),
      fc.boolean(),
      fc.option(fc.integer({ min: 5, max: 90 })),
      (count, pace, round, loopFrames) => {
        const { shot, ids, frames } = relay(shotWith(pace, {}, round), 'r', count, loopFrames);
        expect(ids).toHaveLength(count);
        if (loopFrames !== null) expect(shot.range.last).toBe(loopFrames);
        expect(frames).toBe(count * shot.range.last);
        const { poses } = evaluateShot(shot, NO_ASSETS);
        const [end, start] = [new Float64Array(POSE.size), new Float64Array(POSE.size)];
        for (let j = 0; j + 1 < count; j++) {
          poses[j](shot.range.last + 1, end, 0);
          poses[j + 1](shot.range.first, start, 0);
          for (let k = 0; k < POSE.size; k++) expect(Math.abs(end[k] - start[k])).toBeLessThan(1e-9);
        }
        expect(
          seamReport(evaluateShot(shot, NO_ASSETS), NO_SHAPES)
            .filter(({ handsOver }) => !handsOver)
            .every(({ gap }) => gap < 1e-9),
        ).toBe(true);
      },
    ),
    { numRuns: 30 },
  );
});

describe('a wheel that looks the same after a part of a turn', () => {
  const hierarchy: NodeHierarchy = {
    nodes: [
      {
        name: 'wheel',
        parent: -1,
        translation: [0, 0, 0],
        rotation: [0, 0, 0, 1],
        scale: [1, 1, 1],
        weights: [],
      },
    ],
    clips: [],
    box: null,
  };
  /** A wheel about X with a number of spokes, or sides. */
  const spoked = (spokes: number): ModelShapes => {
    const positions = Array.from({ length: spokes }, (_, i) => (2 * Math.PI * i) / spokes).flatMap(
      (angle) => [0.1, 0.41 * Math.cos(angle), 0.41 * Math.sin(angle)],
    );
    const part = {
      node: 0,
      positions: Float64Array.from(positions),
      indices: Uint32Array.from([0, 1, 2]),
      isPictured: false,
    };
    return new Map([['m', { mesh: [part] }]]);
  };
  const shot = shotWith(
    { unit: 'laps', keys: keys(97, 1), after: 'accumulate', before: 'accumulate' },
    {
      model: 'm',
      wheels: [{ node: 'wheel', centre: [0, 0, 0], radius: 0.41, axle: '+x', steers: false, drives: true }],
    },
  );
  // Round a circle of 10 m a wheel of 0.41 m turns 24.39 times: 140° beyond whole turns, 4° before two spokes of five.
  const beyond = 360 * (compilePath(shot.paths[0]).length / (2 * Math.PI * 0.41) - 24);
  const missed = (shapes: ModelShapes) =>
    seamReport(evaluateShot(shot, { ...NO_ASSETS, hierarchies: new Map([['m', hierarchy]]) }), shapes).find(
      ({ channel }) => channel === 'wheel',
    )?.gap;

  it('misses whole turns where its shape is not known', () => {
    expect(missed(NO_SHAPES)).toBeCloseTo(beyond, 6);
  });

  it('misses the nearest of its spokes, or nothing where it is round and plain', () => {
    expect(missed(spoked(5))).toBeCloseTo(144 - beyond, 6);
    expect(missed(spoked(24))).toBe(0);
  });

  it('is closed by the least change of its radius that brings it to a spoke', () => {
    const assets = { ...NO_ASSETS, hierarchies: new Map([['m', hierarchy]]) };
    const evaluated = evaluateShot(shot, assets);
    const gap = seamReport(evaluated, spoked(5)).find(({ channel }) => channel === 'wheel');
    const [closing] = gap ? closingsOf(evaluated, gap) : [];
    // 122 fifths of a turn.
    const radius = (compilePath(shot.paths[0]).length * 5) / 122 / (2 * Math.PI);
    expect(closing.shot.riders[0].wheels[0].radius).toBeCloseTo(radius, 6);
    expect(closing.detail).toMatch(/122 × 1\/5 turn$/);
  });
});
