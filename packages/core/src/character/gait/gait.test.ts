import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { vec3 } from 'gl-matrix';
import { checkShot } from '../../check/check-shot.js';
import { GroundSurface } from '../../geometry/ground/ground-surface.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import { defaultsOf } from '../../document/defaults.js';
import { Cycle, type Gait } from '../../document/shot-rider.js';
import type { Attachment } from '../../document/shot-attachment.js';
import { evaluateShot, type EvaluatedShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { nodeOriginOf, toModelSpace } from '../hierarchy/model-space.js';
import { LOCAL, initialPose } from '../hierarchy/node-hierarchy.js';
import { POSE } from '../../motion/pose/pose.js';
import { naturalStops, stopAsLongAs } from '../../shot/edits/walkers-stops.js';
import { compileCycle } from './cycle-value.js';
import { findGait } from './find-gait.js';
import { restingPhases } from './resting-phases.js';
import { sampleClip } from './sample-clip.js';
import { STANCE, STRIDE, testWalker } from '../../../test/walker.js';

const FEET = ['foot_l', 'foot_r'];

describe('a gait is measured', () => {
  it.each([false, true])('from feet that go back evenly while they are low; going away %s', (away) => {
    const walker = testWalker(away);
    const found = findGait(walker, walker.clips[0], '+z', '+y');
    expect(found.stride).toBeCloseTo(STRIDE, 2);
    expect(found.feet.map(({ node }) => node)).toEqual(FEET);
    const [[left], [right]] = found.feet.map(({ stances }) => stances);
    expect(left.from).toBeCloseTo(0, 1);
    expect(left.to).toBeCloseTo(STANCE, 1);
    expect(right.from).toBeCloseTo(0.5, 1);
    expect(findGait(walker, walker.clips[1], '+z', '+y')).toMatchObject({ stride: 0, feet: [], still: true });
  });

  it('by motion alone where no name tells', () => {
    const plain = testWalker();
    /** The same walk is what it does when it acts. */
    const walker = { ...plain, clips: [...plain.clips, { ...plain.clips[0], name: 'pick' }] };
    const named = { ...walker, nodes: walker.nodes.map((node, i) => ({ ...node, name: `n${i}` })) };
    const found = findGait(named, named.clips[0], '+z', '+y');
    expect(found.feet.map(({ node }) => node)).toEqual(['n4', 'n7']);
    expect(found.stride).toBeCloseTo(STRIDE, 2);
  });
});

const plain = testWalker();
/** The same walk is what it does when it acts. */
const walker = { ...plain, clips: [...plain.clips, { ...plain.clips[0], name: 'pick' }] };
const stances = (from: number) => [{ from, to: from + STANCE }];
const gait: Loose<Gait> = {
  clip: 'walk',
  idle: 'stand',
  stride: STRIDE,
  feet: [
    { node: FEET[0], stances: stances(0) },
    { node: FEET[1], stances: stances(0.5) },
  ],
};
const bend = (radius: number) =>
  Array.from({ length: 16 }, (_, i) => ({
    position: [radius * Math.sin((i * Math.PI) / 8), 0, radius * Math.cos((i * Math.PI) / 8)] as Vec3,
  }));
/** Findings of the walk; its keys stop it at once, which is another finding. */
const ofWalk = (evaluated: EvaluatedShot) => checkShot(evaluated).filter(({ kind }) => kind !== 'jolt');
/** Walks 6 m, stops for two seconds, and goes on. */
const stops = [
  { frame: 1, value: 0 },
  { frame: 97, value: 6 },
  { frame: 145, value: 6 },
  { frame: 241, value: 12 },
];

function walk(
  own: Loose<Gait> = {},
  attachment: Loose<Attachment> = {},
  points = bend(4),
  scale = 1,
  ground?: GroundSurface,
) {
  const shot = newShot({
    name: 't',
    range: { first: 1, last: 240 },
    paths: [{ id: 'p', name: 'P', basis: 'through', closed: points.length > 2, points }],
    models: [{ id: 'm', name: 'Walker', source: { file: 'm.glb' } }],
    ground: { model: ground ? 'm' : null },
    riders: [
      {
        id: 'r',
        name: 'R',
        model: 'm',
        kind: 'character',
        rest: { scale: [scale, scale, scale] },
        gait: { ...gait, ...own },
        attachment: { path: 'p', pace: { keys: stops }, ...attachment },
      },
    ],
  });
  const evaluated = evaluateShot(shot, {
    ground: ground ?? null,
    hierarchies: new Map([['m', walker]]),
    physics: null,
  });
  const [rider] = shot.riders;
  const parts = evaluated.parts(rider);
  /** A node's place in the world, from what is handed over: the rider's pose and its parts. */
  const place = (frame: number, name: string): Vec3 => {
    const values = new Float64Array(parts.size);
    parts.pose(frame, values, 0);
    const { locals } = initialPose(walker);
    for (const node of parts.nodes) {
      const i = walker.nodes.findIndex((one) => one.name === node.name);
      locals.set(values.subarray(node.at, node.at + LOCAL.size), i * LOCAL.size);
    }
    const space = toModelSpace(walker, locals, new Float64Array(16 * walker.nodes.length));
    const own = nodeOriginOf(
      space,
      walker.nodes.findIndex((one) => one.name === name),
    );
    const pose = new Float64Array(POSE.size);
    evaluated.poses[0](frame, pose, 0);
    const out = vec3.transformQuat([0, 0, 0], vec3.scale([0, 0, 0], own, scale), [
      pose[3],
      pose[4],
      pose[5],
      pose[6],
    ]) as Vec3;
    return out.map((value, k) => value + pose[k]) as Vec3;
  };
  const plants = evaluated.contact(rider).walk?.plants() ?? [];
  const gauge = (kind: string) => {
    const found = evaluated.gauges(rider).find((one) => one.kind === kind);
    if (!found) throw new Error(`no ${kind}`);
    return found.value;
  };
  return { evaluated, place, plants, gauge };
}

it('phase is the distance over the stride, that of the figure as large as it is', () => {
  for (const scale of [1, 1.5]) {
    const { gauge } = walk({ phase: 0.25 }, {}, bend(4), scale);
    expect(gauge('phase')(49)).toBeCloseTo(0.25 + 3 / (STRIDE * scale), 6);
    expect(gauge('phase')(120)).toBeCloseTo(0.25 + 6 / (STRIDE * scale), 6);
  }
});

it('on a straight way the feet of an even clip do not slide at all', () => {
  const straight = [{ position: [0, 0, 0] as Vec3 }, { position: [0, 0, 40] as Vec3 }];
  const { plants } = walk({ plant: false }, {}, straight);
  const walking = plants.filter(({ from, to }) => to < 90 && from > 2);
  expect(walking.length).toBeGreaterThan(5);
  // Its bones are turned straight from key to key, two hundred a cycle.
  expect(Math.max(...walking.map(({ slide }) => slide))).toBeLessThan(1e-4);
});

it.each([1, 1.5])(
  'in a bend they slide and say so; planted they stay within a millimetre, at size %s',
  (scale) => {
    const free = walk({ plant: false }, {}, bend(4), scale);
    const slid = Math.max(...free.plants.map(({ left }) => left));
    expect(slid).toBeGreaterThan(0.01);
    expect(ofWalk(free.evaluated).map(({ kind }) => kind)).toContain('feet-slide');
    const planted = walk({}, {}, bend(4), scale);
    expect(ofWalk(planted.evaluated)).toEqual([]);
    for (const { foot, from, to } of planted.plants.filter((one) => one.from > 1 && one.to < 240)) {
      const start = planted.place(from, foot);
      for (let frame = Math.ceil(from); frame <= to; frame++) {
        const now = planted.place(frame, foot);
        expect(Math.hypot(now[0] - start[0], now[2] - start[2])).toBeLessThan(1e-3);
      }
    }
  },
);

it('turning on the spot it steps after itself, one foot at a time, and slides nothing', () => {
  const turn = [
    { frame: 110, yaw: 0 },
    { frame: 145, yaw: 80 },
    { frame: 165, yaw: 80 },
    { frame: 200, yaw: 0 },
  ];
  const longer = [...stops.slice(0, 2), { frame: 217, value: 6 }, { frame: 240, value: 7 }];
  const free = walk({ plant: false }, { offsetKeys: turn, pace: { keys: longer } });
  const planted = walk({}, { offsetKeys: turn, pace: { keys: longer } });
  expect(Math.max(...free.plants.map(({ left }) => left))).toBeGreaterThan(0.02);
  expect(Math.max(...planted.plants.map(({ left }) => left))).toBeLessThan(1e-3);
  const { walk: shown } = planted.evaluated.contact(planted.evaluated.shot.riders[0]);
  const steps = [0, 1]
    .flatMap((foot) => shown?.steps(foot) ?? [])
    .filter(({ from }) => from > 108 && from < 205);
  // Eighty degrees there and back: each foot at least once each way.
  expect(steps.length).toBeGreaterThanOrEqual(4);
  const inOrder = [...steps].sort((a, b) => a.from - b.from);
  inOrder.forEach((step, i) => i > 0 && expect(step.from).toBeGreaterThanOrEqual(inOrder[i - 1].to - 1e-9));
});

it('comes to a stand with its feet beside each other, whatever step the stop finds it in', () => {
  for (const far of [6, 6.2, 6.4, 6.7, 7]) {
    const { place, gauge } = walk(
      {},
      {
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 97, value: far },
            { frame: 200, value: far },
          ],
        },
      },
      [{ position: [0, 0, 0] as Vec3 }, { position: [0, 0, 40] as Vec3 }],
    );
    // A second after the stop; the standing clip has both feet under the hips, 20 cm apart.
    const [left, right] = FEET.map((foot) => place(125, foot));
    expect(Math.abs(left[2] - far)).toBeLessThan(0.05);
    expect(Math.abs(right[2] - far)).toBeLessThan(0.05);
    for (const foot of [left, right]) expect(foot[1]).toBeCloseTo(0, 3);
    for (let frame = 60; frame < 180; frame++) expect(gauge('under')(frame)).toBeLessThan(3);
  }
});

describe('clips of coming to a stand and of setting off', () => {
  const named = (name: string) => ({ ...walker.clips[0], name });
  const shownAt = (frame: number, clips: typeof walker.clips, own: Loose<Gait>) => {
    const hierarchy = { ...walker, clips };
    const { evaluated } = walk(own);
    const again = evaluateShot(evaluated.shot, {
      ground: null,
      hierarchies: new Map([['m', hierarchy]]),
      physics: null,
    });
    const pose = initialPose(hierarchy);
    again.contact(again.shot.riders[0]).gait?.posed?.posesOf(null).standing(frame, pose);
    return [...pose.locals];
  };
  const at = (seconds: number) => {
    const pose = initialPose(walker);
    sampleClip(walker.clips[0], seconds, pose);
    return [...pose.locals];
  };
  const near = (a: readonly number[], b: readonly number[]) =>
    a.forEach((value, k) => expect(value).toBeCloseTo(b[k], 2));

  it('are played where the model has them by name, or where they are chosen', () => {
    // The stop is from about frame 97 to 145; the clips take a second.
    for (const [clips, own] of [
      [[...walker.clips, named('walk_stop'), named('Start')], {}],
      [[...walker.clips, named('brake'), named('go')], { stopClip: 'brake', startClip: 'go' }],
    ] as const) {
      near(shownAt(103, [...clips], own), at(6 / 24));
      near(shownAt(139, [...clips], own), at(1 - 6 / 24));
    }
  });

  it('are not there where no name says so', () => {
    const still = shownAt(103, walker.clips, {});
    const pose = initialPose(walker);
    sampleClip(walker.clips[1], 0, pose);
    near(still, [...pose.locals]);
  });
});

it('nothing jumps from frame to frame, from walk to stand and back', () => {
  const { place } = walk();
  for (const name of FEET) {
    for (let frame = 80; frame < 170; frame += 0.25) {
      expect(vec3.distance(place(frame, name), place(frame + 0.25, name))).toBeLessThan(0.06);
    }
  }
});

it('stands with its standing clip, an act lasts as long as the stop, and the walk goes on where it was', () => {
  const { evaluated, gauge } = walk({ blend: 0.5, acts: [{ stop: 0, clip: 'pick', from: 0.25, to: 0.75 }] });
  const { gait: free } = evaluated.contact(evaluated.shot.riders[0]);
  expect(free?.idleSpans).toEqual([{ from: expect.closeTo(97, 0), to: expect.closeTo(145, 0) }]);
  expect(free?.idleWeight(90)).toBe(0);
  expect(free?.idleWeight(121)).toBe(1);
  expect(gauge('phase')(150)).toBeCloseTo(gauge('phase')(97) + (5 * 6) / 96 / STRIDE, 4);
  // Half-way through the stop the act is half-way through its part of its clip.
  const shown = initialPose(walker);
  free?.posed?.posesOf(null).pose(121, shown);
  const { node, values } = walker.clips[2].channels[0];
  for (let k = 0; k < 4; k++)
    expect(shown.locals[node * LOCAL.size + 3 + k]).toBeCloseTo(values[4 * 100 + k], 2);
});

it('stops come to rest where both feet are down, each by the least', () => {
  const { shot } = walk().evaluated;
  expect(restingPhases(shot.riders[0].gait ?? { feet: [] })).toEqual(
    [0.05, 0.55].map((phase) => expect.closeTo(phase, 2)),
  );
  const { gauge } = walk({}, { pace: naturalStops(shot, NO_ASSETS, 'r').riders[0].attachment?.pace });
  // 6 m are 5 cycles; the nearest rest is a twentieth of a cycle on.
  expect(gauge('phase')(120)).toBeCloseTo(5.05, 2);
  expect(() =>
    naturalStops({ ...shot, riders: [{ ...shot.riders[0], gait: null }] }, NO_ASSETS, 'r'),
  ).toThrow(/riders\[0\]\.gait/);
});

it('stops come to rest there beside the path, and under keyed offsets, too', () => {
  const offsets = [
    { offset: { side: 1.5 } },
    { offset: { side: -1.5 } },
    {
      offsetKeys: [
        { frame: 1, side: 0 },
        { frame: 60, side: 1.2, along: 0.7 },
        { frame: 240, side: -0.4, along: 0.7 },
      ],
    },
  ];
  for (const beside of offsets) {
    const { shot } = walk({}, beside).evaluated;
    const { attachment } = naturalStops(shot, NO_ASSETS, 'r').riders[0];
    const phase = walk({}, { ...beside, pace: attachment?.pace }).gauge('phase')(120);
    const off = Math.min(...[0.05, 0.55, 1.05].map((rest) => Math.abs(phase - Math.floor(phase) - rest)));
    expect(off).toBeLessThan(0.01);
  }
});

it('a stop is made to last as long as its act, with the model’s own clip of coming to a stand', () => {
  const { seconds, channels } = walker.clips[0];
  const settles = { ...walker, clips: [...walker.clips, { name: 'walk_stop', seconds: 0.5, channels }] };
  const act = { stop: 0, clip: 'pick', from: 0.25 * seconds, to: null, fit: 'stretch' as const };
  for (const [model, more] of [
    [walker, 0],
    [settles, 0.5],
  ] as const) {
    const { shot } = walk({ acts: [act] }).evaluated;
    const hierarchies = new Map([[shot.riders[0].model ?? '', model]]);
    const assets = { ground: null, hierarchies, physics: null };
    const fitted = stopAsLongAs(shot, assets, 'r', act);
    const [before, after] = [shot, fitted].map(
      (one) => evaluateShot(one, assets).timing(one.riders[0])?.stops[0],
    );
    expect(after?.from).toBeCloseTo(before?.from ?? NaN, 6);
    expect((after?.to ?? NaN) - (after?.from ?? NaN)).toBeCloseTo((0.75 * seconds + more) * shot.fps, 6);
    expect(() => stopAsLongAs(shot, assets, 'r', { ...act, stop: 7 })).toThrow('a stop of its own');
  }
});

it('feet are set on a slope, as high over it as over the clip’s own floor', () => {
  const slope = 0.15;
  const size = 60;
  const corners = [
    [-size, -size],
    [-size, size],
    [size, size],
    [size, -size],
  ];
  const mesh = {
    positions: Float64Array.from(corners.flatMap(([x, z]) => [x, slope * z, z])),
    indices: Uint32Array.from([0, 1, 2, 0, 2, 3]),
  };
  const points = [{ position: [0, 0, 0] as Vec3 }, { position: [0, slope * 40, 40] as Vec3 }];
  const { plants, place } = walk(
    {},
    { ground: { mode: 'stick', tilt: false } },
    points,
    1,
    new GroundSurface(mesh),
  );
  const foot = plants.find(({ from, to }) => from > 20 && to < 90);
  if (!foot) throw new Error('no plant');
  const [, y, z] = place((foot.from + foot.to) / 2, foot.foot);
  // The clip's ankle is on its floor.
  expect(y - slope * z).toBeCloseTo(0, 3);
});

it('steps that are too quick are told of, with how quick', () => {
  const fast = stops.map(({ frame, value }) => ({ frame, value: 2 * value }));
  const { evaluated } = walk({}, { pace: { keys: fast } });
  // 12 m in 96 frames: 3 m/s over 1.2 m a cycle of two steps.
  expect(ofWalk(evaluated).map(({ message }) => message)).toEqual([
    expect.stringMatching(/R1 takes 5\.0 steps\/s .* its limit is 2\.6/),
  ]);
});

describe('cycles', () => {
  const ride = { first: 1, last: 96, fps: 24, loop: true, distance: (frame: number) => (frame - 1) / 8 };
  const cycle = (parts: Partial<Cycle>) => ({
    ...defaultsOf(Cycle),
    node: 'wing',
    amplitude: 30,
    rate: 2,
    ...parts,
  });

  it('go by time or by distance, about their rest', () => {
    const flap = compileCycle(cycle({ rest: 10 }), ride);
    expect([1, 4, 7].map(flap.value)).toEqual([10, 40, 10].map((value) => expect.closeTo(value, 9)));
    expect(compileCycle(cycle({ by: 'distance', rate: 1 }), ride).value(3)).toBeCloseTo(30, 9);
    expect(compileCycle(cycle({ shape: 'steady', rate: 3 }), ride).value(9)).toBeCloseTo(360, 9);
    const pulse = compileCycle(cycle({ shape: 'pulse' }), ride);
    expect([4, 8.5].map(pulse.value)).toEqual([expect.closeTo(30, 9), 0]);
  });

  it('are whole in a loop where they are to be, noise as well', () => {
    for (const shape of ['sine', 'pulse', 'noise'] as const) {
      const { value } = compileCycle(cycle({ rate: 2.1, whole: true, shape, seed: 5 }), ride);
      for (const frame of [1, 2.5, 17]) expect(value(frame + 96)).toBeCloseTo(value(frame), 9);
    }
    expect(compileCycle(cycle({ rate: 2.1 }), ride).phase(97)).toBeCloseTo(8.4, 9);
  });

  it('swell and fade, and copies begin elsewhere by their seed', () => {
    const { value } = compileCycle(cycle({ rampIn: 1, rampOut: 1, rate: 6 }), ride);
    expect([value(1), value(96)]).toEqual([0, expect.closeTo(0, 9)]);
    expect(Math.max(...Array.from({ length: 24 }, (_, i) => value(37 + i)))).toBeCloseTo(30, 6);
    const begins = [1, 2, 3].map((seed) => compileCycle(cycle({ seed }), ride).phase(1));
    expect(new Set(begins).size).toBe(3);
    const noisy = compileCycle(cycle({ shape: 'noise', seed: 3 }), { ...ride, loop: false });
    const values = Array.from({ length: 200 }, (_, i) => Math.abs(noisy.value(i / 2)));
    expect(Math.max(...values)).toBeGreaterThan(8);
    expect(Math.max(...values)).toBeLessThanOrEqual(30);
  });
});
