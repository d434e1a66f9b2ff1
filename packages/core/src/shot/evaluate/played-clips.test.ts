import { even, line, poseAt, shotOf } from '../../../test/shots.js';
import { checkShot } from '../../check/check-shot.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { parseShot } from '../../document/parse-shot.js';
import { changeRate } from '../edits/change-time.js';
import { sampleShot } from '../bake/sample-shot.js';
import { writeCsv } from '../../formats/csv-write.js';
import { LOCAL, type Clip, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { evaluateShot } from './evaluate-shot.js';

const node = (name: string, parent: number, rotation: Quat = [0, 0, 0, 1]) => ({
  name,
  parent,
  translation: [0, 0, 0] as Vec3,
  rotation,
  scale: [1, 1, 1] as Vec3,
  weights: [],
});
/** Lifts a node evenly from one height to another over a second, or some. */
const lift = (name: string, of: number, from: number, to: number, seconds = 1): Clip => ({
  name,
  seconds,
  channels: [
    {
      node: of,
      path: 'translation',
      interpolation: 'LINEAR',
      times: Float64Array.of(0, seconds),
      values: Float64Array.of(0, from, 0, 0, to, 0),
    },
  ],
});
/** The right wing is made as the left one turned about: its own axis runs the other way. */
const model: NodeHierarchy = {
  nodes: [node('root', -1), node('flag', 0), node('wing_l', 0), node('wing_r', 0, [0, 1, 0, 0])],
  clips: [lift('up', 1, 0, 1), lift('high', 1, 5, 5), lift('slow', 1, 0, 1, 4)],
  box: null,
};
const assets = { ground: null, hierarchies: new Map([['m', model]]), physics: null };
const mast: Loose<Rider> = { id: 'm', name: 'Mast', badge: 'M1', model: 'm' };
const models = [{ id: 'm', name: 'Mast', source: { file: 'm.glb' } }];
const shot = (rider: Loose<Rider>, more: object = {}, others: Loose<Rider>[] = []): Shot =>
  shotOf([line(100)], [{ ...mast, ...rider }, ...others], {
    range: { first: 1, last: 97 },
    models,
    ...more,
  } as never);
/** How high the flag is at a frame. */
const flag = (of: Shot, frame: number): number => {
  const evaluated = evaluateShot(of, assets);
  const moved = evaluated.parts(of.riders[0]);
  const out = new Float64Array(moved.size);
  moved.pose(frame, out, 0);
  const part = moved.nodes.find(({ name }) => name === 'flag');
  return part ? out[part.at + 1] : NaN;
};
const block = (clip: string, frame: number, until: number, more: object = {}) => ({
  clip,
  frame,
  until,
  blend: 0,
  ...more,
});
/** From 0 to 1, level at both ends. */
const smooth = (t: number) => t * t * (3 - 2 * t);

describe('a block plays a clip', () => {
  const plays = (...clips: object[]) => shot({ clips: clips as never });
  it.each([
    ['by its own time, and again', block('up', 25, 73), 25 + 30, 0.25],
    ['twice as fast', block('up', 25, 73, { rate: 2 }), 25 + 3, 0.25],
    ['backward', block('up', 25, 73, { rate: -1 }), 25 + 6, 0.75],
    ['a part of it', block('up', 25, 73, { from: 0.5, to: 0.75 }), 25 + 9, 0.625],
    ['once, and holds', block('up', 25, 73, { end: 'hold' }), 70, 1],
    ['not before', block('up', 25, 73), 24.99, 0],
    ['nor after', block('high', 25, 73), 73, 0],
  ])('%s', (_, one, frame, height) => expect(flag(plays(one), frame)).toBeCloseTo(height, 9));

  it('by the metres travelled: once in ten, wherever the pace takes it', () => {
    const riding = (keys: object[]) =>
      shot({
        clips: [block('up', 13, 97, { by: 'distance', rate: 0.1 })],
        attachment: { path: 'p', pace: { keys: keys as never } },
      });
    // A clip that carries its part away is taken back evenly, so it is what repeats in place: nothing.
    const there = riding([
      { frame: 1, value: 0 },
      { frame: 97, value: 96 },
    ]);
    expect(flag(there, 50)).toBeCloseTo(0, 9);
    const back: NodeHierarchy = {
      ...model,
      clips: [
        {
          ...model.clips[0],
          channels: [
            {
              ...model.clips[0].channels[0],
              times: Float64Array.of(0, 0.5, 1),
              values: Float64Array.of(0, 0, 0, 0, 1, 0, 0, 0, 0),
            },
          ],
        },
      ],
    };
    const evaluated = evaluateShot(there, { ...assets, hierarchies: new Map([['m', back]]) });
    const moved = evaluated.parts(there.riders[0]);
    const out = new Float64Array(moved.size);
    // 12 m were gone where the block begins; 14.5 m after that is 0.45 of the second round.
    moved.pose(1 + 26.5, out, 0);
    expect(out[moved.nodes[0].at + 1]).toBeCloseTo(0.9, 9);
  });

  it('comes and goes over its blend, and blends into the next where they overlap', () => {
    const alone = plays(block('high', 25, 73, { blend: 0.5 }));
    expect(flag(alone, 25 + 3)).toBeCloseTo(5 * smooth(0.25), 9);
    expect(flag(alone, 73 - 3)).toBeCloseTo(5 * smooth(0.25), 9);
    const two = plays(block('high', 1, 49), block('up', 37, 97, { end: 'hold' }));
    expect(flag(two, 37)).toBeCloseTo(5, 9);
    const over = smooth(0.5);
    expect(flag(two, 43)).toBeCloseTo(5 * (1 - over) + 0.25 * over, 9);
    expect(flag(two, 49)).toBeCloseTo(0.5, 9);
  });

  it('goes on over the end of a loop', () => {
    const loop = shot({ clips: [block('slow', 73, 73 + 96, { end: 'hold' })] }, { loop: true });
    expect(flag(loop, 97)).toBeCloseTo(0.25, 9);
    expect(flag(loop, 1)).toBeCloseTo(25 / 96, 9);
    expect(flag(loop, 98)).toBeCloseTo(flag(loop, 1), 9);
  });

  it('stays at its seconds when the rate changes, with all that is moved by hand', () => {
    const before = shot({
      clips: [block('up', 25, 73)],
      transformKeys: { keys: [{ frame: 49, translation: [1, 2, 3] }] },
      parentKeys: [{ frame: 25, rider: null }],
    });
    const after = changeRate(before, 48, 'seconds').riders[0];
    expect([after.clips[0].frame, after.clips[0].until]).toEqual([49, 145]);
    expect([after.transformKeys?.keys[0].frame, after.parentKeys[0].frame]).toEqual([97, 49]);
  });

  it('what a model does not have is told of, and what cannot be is refused', () => {
    const odd = plays(block('gone', 1, 20));
    expect(checkShot(evaluateShot(odd, assets)).map(({ message }) => message)).toEqual([
      expect.stringContaining('has no clip "gone"'),
    ]);
    const refused =
      (...clips: object[]) =>
      () =>
        parseShot({ ...odd, riders: [{ ...mast, clips }] });
    expect(refused(block('up', 20, 20))).toThrow('riders[0].clips[0].until');
    expect(refused(block('up', 20, 30), block('up', 10, 15))).toThrow('riders[0].clips[1].frame');
    expect(refused(block('up', 1, 9, { from: 2, to: 1 }))).toThrow('riders[0].clips[0].to');
  });
});

it('a pair of wings is one cycle: the other goes as in a mirror, however it was made', () => {
  const wings = shot({
    cycles: [{ node: 'wing_l', mirror: 'wing_r', axis: '+z', amplitude: 30, rate: 1, shape: 'sine' }],
  });
  const moved = evaluateShot(wings, assets).parts(wings.riders[0]);
  const out = new Float64Array(moved.size);
  moved.pose(7, out, 0);
  const [left, right] = ['wing_l', 'wing_r'].map((name) => {
    const { at } = moved.nodes.find((one) => one.name === name)!;
    return [...out.subarray(at + LOCAL.rotation, at + LOCAL.rotation + 4)] as Quat;
  });
  // A wing's tip is out along its own x: to the left, and of the right wing, which is turned about, to the right.
  const tip = ([x, y, z, w]: Quat): Vec3 => [
    1 - 2 * (y * y + z * z),
    2 * (x * y + w * z),
    2 * (x * z - w * y),
  ];
  expect(tip(left)).toEqual([Math.cos(Math.PI / 6), 0.5, 0].map((v) => expect.closeTo(v, 9)));
  expect(tip(right)).toEqual([-Math.cos(Math.PI / 6), 0.5, 0].map((v) => expect.closeTo(v, 9)));
});

describe('a cue', () => {
  const step = (at: number, off?: number) => [
    { at: at - 1, value: 0, ease: 'hold' },
    { at, value: 1, ease: 'hold' },
    ...(off === undefined ? [] : [{ at: off, value: 0, ease: 'hold' }]),
  ];
  const cued = (
    does: object,
    keys: object[],
    rider: Loose<Rider> = {},
    more: object = {},
    others: Loose<Rider>[] = [],
  ) =>
    shot(
      rider,
      {
        cues: [{ id: 'c', name: 'Cue', trigger: { kind: 'frame' }, action: { rider: 'm', ...does }, keys }],
        ...more,
      },
      others,
    );

  it('plays a clip once, or for as long as it holds', () => {
    const once = cued({ kind: 'play', clip: 'up', plays: 'once', blend: 0 }, step(25, 27));
    expect([24, 31, 48.9, 60].map((frame) => flag(once, frame))).toEqual(
      [0, 0.25, 23.9 / 24, 0].map((v) => expect.closeTo(v, 9)),
    );
    const held = cued({ kind: 'play', clip: 'up', plays: 'while' }, step(25, 73));
    expect([24, 31, 55, 73].map((frame) => flag(held, frame))).toEqual(
      [0, 0.25, 0.25, 0].map((v) => expect.closeTo(v, 9)),
    );
  });

  it('shows and hides: a hidden rider has no rows, and no size in a GLB', () => {
    const hidden = cued({ kind: 'show' }, step(25, 49));
    const seen = sampleShot(evaluateShot(hidden, assets)).shown[0]!;
    expect(seen.flatMap((is, i) => (is ? [i + 1] : []))).toEqual([...Array(24).keys()].map((i) => 25 + i));
    const rows = writeCsv(evaluateShot(hidden, assets)).trim().split('\n').slice(1);
    expect(rows.map((row) => Number(row.split(',')[0]))).toEqual([...Array(24).keys()].map((i) => 25 + i));
  });

  it('lets a rider leave its path, by how far it has come itself', () => {
    const on = { kind: 'distance', rider: 'm' };
    const keys = [
      { at: 10, value: 0, ease: 'linear' },
      { at: 20, value: 1, ease: 'linear' },
    ];
    const rider: Loose<Rider> = {
      attachment: { path: 'p', pace: even(0, 96, 1, 97) },
      rest: { translation: [0, 8, 0] },
    };
    const boards = shot(rider, {
      cues: [{ id: 'c', name: 'C', trigger: on, action: { kind: 'attachment', rider: 'm' }, keys }],
    });
    const heights = [5, 12.5, 15, 20].map((s) => poseAt(evaluateShot(boards, assets), 'm', s + 1)[1]);
    expect(heights).toEqual([8, 6, 4, 0].map((v) => expect.closeTo(v, 9)));
    // By its distance from another it would have to be somewhere before it is: there it waits for itself.
    const circle = {
      ...boards,
      cues: [{ ...boards.cues[0], trigger: { ...boards.cues[0].trigger, kind: 'gap', other: 'm' } }],
    };
    expect(() => parseShot(JSON.parse(JSON.stringify(circle)))).toThrow('no circle');
  });

  it('turns a camera to what it aims at', () => {
    const eye: Loose<Rider> = {
      id: 'e',
      name: 'Eye',
      badge: 'E2',
      camera: {},
      restAim: { target: { point: [50, 0, 0] } },
    };
    const turned = cued({ kind: 'facing', rider: 'e' }, step(25), {}, {}, [eye]);
    const yaw = (frame: number) => {
      const pose = poseAt(evaluateShot(turned, assets), 'e', frame);
      return (2 * Math.atan2(pose[4], pose[6]) * 180) / Math.PI;
    };
    expect([yaw(24), yaw(25)]).toEqual([expect.closeTo(0, 6), expect.closeTo(90, 6)]);
  });

  it('cuts to a camera, at the first frame after its moment', () => {
    const eye: Loose<Rider> = { id: 'e', name: 'Eye', badge: 'E2', camera: {} };
    const cut = cued(
      { kind: 'camera', rider: 'e' },
      [
        { at: 24, value: 0, ease: 'linear' },
        { at: 25.5, value: 1, ease: 'linear' },
      ],
      {},
      { cuts: [{ frame: 40, camera: 'e' }] },
      [eye],
    );
    expect(
      evaluateShot(cut, assets)
        .cuts()
        .map(({ frame }) => frame),
    ).toEqual([26, 40]);
    expect(() =>
      parseShot({ ...cut, cues: [{ ...cut.cues[0], action: { kind: 'camera', rider: 'm' } }] }),
    ).toThrow('a rider with a camera');
  });

  it.each([
    ['never plays', { kind: 'play', clip: 'up' }],
    ['changes nothing', { kind: 'show' }],
  ])('that %s in the shot is told of', (words, does) => {
    expect(
      checkShot(evaluateShot(cued(does, step(900)), assets)).map(({ kind, message }) => [kind, message]),
    ).toEqual([['cue-never', expect.stringContaining(words)]]);
  });
});
