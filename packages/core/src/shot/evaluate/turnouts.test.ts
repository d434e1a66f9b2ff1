import { circle, even, line, noseOf, placeOf, poseAt, runs, shotOf } from '../../../test/shots.js';
import { checkShot } from '../../check/check-shot.js';
import { withoutTurnouts } from '../edits/without-turnouts.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { parseShot } from '../../document/parse-shot.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import { linkedPath } from '../../geometry/path/linked-path.js';
import { LOCAL, type NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { newShot } from '../../document/new-shot.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { evaluateShot } from './evaluate-shot.js';
import { NO_ASSETS } from './scene-assets.js';

const curveOf = (path: object): CompiledPath =>
  compilePath(newShot({ name: 't', paths: [path as never] }).paths[0]);

// 60 m along +Z; 20 m along it another leaves to +X, and reaches it from beyond, so that it is ridden in reverse.
const main = line(60);
const siding = { ...runs([30, 0, 20], [0, 0, 20]), id: 'q', name: 'Siding' };
const go = (at: number, path = 'q', on: object = { kind: 'distance', rider: 'r' }) => ({
  id: `to-${path}-${at}`,
  name: `To ${path}`,
  trigger: on,
  action: { kind: 'path', rider: 'r', path },
  keys: [
    { at: at - 1e-3, value: 0, ease: 'hold' },
    { at, value: 1, ease: 'hold' },
  ],
});
const wagon: Loose<Rider> = {
  id: 'r',
  name: 'Wagon',
  badge: 'W1',
  attachment: { path: 'p', pace: even(0, 48, 1, 97) },
};
const shot = (cues: object[], riders: Loose<Rider>[] = [wagon], paths: object[] = [main, siding]): Shot =>
  shotOf(paths as never, riders, { cues: cues as never });
const placeAt = (of: Shot, frame: number, id = 'r') =>
  placeOf(poseAt(evaluateShot(of, NO_ASSETS), id, frame));
const near = (values: readonly number[], digits = 6) => values.map((value) => expect.closeTo(value, digits));

describe('a rider turns out to another path', () => {
  it('at the place where it is, as far on as it goes, whichever way that path runs', () => {
    const turned = shot([go(20)]);
    expect(placeAt(turned, 31)).toEqual(near([0, 0, 15]));
    expect(placeAt(turned, 61)).toEqual(near([10, 0, 20]));
    expect(placeAt(turned, 97)).toEqual(near([28, 0, 20]));
    expect(noseOf(poseAt(evaluateShot(turned, NO_ASSETS), 'r', 61))).toEqual(near([1, 0, 0]));
    expect(poseAt(evaluateShot(turned, NO_ASSETS), 'r', 61)[7]).toBeCloseTo(30, 6);
  });

  it('by a frame, and back again by another cue', () => {
    const back = {
      ...line(60),
      id: 'b',
      name: 'Back',
      points: [{ position: [10, 0, 0] }, { position: [10, 0, 60] }],
    };
    const twice = shot([go(41, 'q', { kind: 'frame' }), go(30, 'b')], [wagon], [main, siding, back]);
    // 20 m along, 10 m aside, and 18 m along again.
    expect(placeAt(twice, 97)).toEqual(near([10, 0, 38]));
  });

  it.each([
    // 14 m are gone after 28 frames, and half a second later 20.
    ['how far it has come', { kind: 'distance', rider: 'r' }, 14],
    // It goes 12 m/s from its first frame on, and 40 frames later it has come 20 m as well.
    ['how fast it goes', { kind: 'speed', rider: 'r' }, 12],
  ])('by a cue that another brings about, which listens to %s itself', (_, on, comes) => {
    const signal = {
      ...go(comes, 'q', on),
      id: 'signal',
      name: 'Signal',
      action: { kind: 'facing', rider: 'r' },
    };
    const after = on.kind === 'speed' ? 40 / 24 : 0.5;
    const answer = {
      ...go(after, 'q', { kind: 'cue', cue: 'signal' }),
      keys: [
        { at: 0, value: 0, ease: 'linear' },
        { at: after, value: 1, ease: 'hold' },
      ],
    };
    const turned = shot([signal, answer]);
    expect(placeAt(turned, 31)).toEqual(near([0, 0, 15]));
    expect(placeAt(turned, 61)).toEqual(near([10, 0, 20]));
    expect(evaluateShot(turned, NO_ASSETS).moment(turned.cues[1])).toBeCloseTo(41, 5);
  });

  it('round a closed path as often as it comes round', () => {
    const ring = { ...circle(10, true), id: 'q', name: 'Ring' };
    const start = curveOf(ring);
    const first: [number, number, number] = [0, 0, 0];
    const tangent: [number, number, number] = [0, 0, 0];
    start.position(0, first);
    start.tangent(0, tangent);
    // A straight that meets the ring at its first point, in its own direction.
    const at = (s: number) => first.map((value, k) => value + s * tangent[k]) as [number, number, number];
    const tangential = { ...runs(at(-20), at(40)), id: 'p' };
    const long = { ...wagon, attachment: { path: 'p', pace: even(0, 200, 1, 97) } };
    const turned = shot([go(20)], [long], [tangential, ring]);
    const wanted: [number, number, number] = [0, 0, 0];
    for (const frame of [30, 60, 97]) {
      start.position((200 / 96) * (frame - 1) - 20, wanted);
      expect(placeAt(turned, frame)).toEqual(near(wanted, 5));
    }
  });

  it('and a string follows it over the same place', () => {
    const string = shot(
      [go(20)],
      [
        { ...wagon, attachment: { path: 'p', pace: even(10, 48, 1, 97) } },
        {
          id: 's',
          name: 'Second',
          badge: 'S2',
          attachment: { path: 'p', coupledTo: { rider: 'r', gap: 5 } },
        },
      ],
    );
    // The leader is 8 m up the siding; the second, 5 m behind it, is 3 m up it as well.
    const frame = 1 + (18 / 38) * 96;
    expect(placeAt(string, frame)).toEqual(near([8, 0, 20]));
    expect(placeAt(string, frame, 's')).toEqual(near([3, 0, 20]));
    expect(placeAt(string, frame - (5 / 38) * 96, 's')).toEqual(near([0, 0, 18]));
  });

  it('its wheels roll on, by what they have rolled', () => {
    const model: NodeHierarchy = {
      nodes: [
        {
          name: 'wheel',
          parent: -1,
          translation: [0, 0.5, 0],
          rotation: [0, 0, 0, 1],
          scale: [1, 1, 1],
          weights: [],
        },
      ],
      clips: [],
      box: null,
    };
    const rolling = shotOf(
      [main, siding] as never,
      [{ ...wagon, model: 'm', wheels: [{ node: 'wheel', centre: [0, 0.5, 0], radius: 0.5 }] }],
      { cues: [go(20)], models: [{ id: 'm', name: 'M', source: { file: 'm.glb' } }] } as never,
    );
    const evaluated = evaluateShot(rolling, {
      ground: null,
      hierarchies: new Map([['m', model]]),
      physics: null,
    });
    const [turns] = evaluated.gauges(rolling.riders[0]);
    expect(turns.kind).toBe('turns');
    expect(turns.value(81)).toBeCloseTo(40 / Math.PI, 6);
    expect(evaluated.parts(rolling.riders[0]).size).toBe(LOCAL.size);
  });

  it('is refused where it listens to who waits for it, and goes with its path; one that never comes is told of', () => {
    const other: Loose<Rider> = {
      id: 'o',
      name: 'Other',
      badge: 'O2',
      attachment: { path: 'p', pacedBy: { rider: 'r' } },
    };
    const circle = shot([], [wagon, other]);
    const cues = [go(5, 'q', { kind: 'distance', rider: 'o' })];
    expect(() => parseShot({ ...circle, cues })).toThrow('no circle');
    expect(() => parseShot({ ...circle, cues: [go(5, 'x')] })).toThrow('cues[0].action.path');
    expect(withoutTurnouts(shot([go(20)]), 'q').cues).toEqual([]);
    const late = checkShot(evaluateShot(shot([go(500)]), NO_ASSETS));
    expect(late.map(({ kind, message }) => [kind, message])).toEqual([
      ['cue-never', expect.stringContaining('never switches')],
    ]);
  });
});

it('stretches of a path one after the other are the path itself, its bends and its roll too', () => {
  const ring = {
    ...circle(10, true),
    points: circle(10, true).points?.map((point, i) => ({ ...point, roll: 3 * Math.min(i, 8 - i) })),
  };
  const path = curveOf(ring);
  const whole = linkedPath([{ path, from: 3, to: 3 + 2.5 * path.length }]);
  expect(whole.length).toBeCloseTo(2.5 * path.length, 6);
  const [a, b] = [new Float64Array(12), new Float64Array(12)];
  for (let s = 0.01; s < whole.length; s += 1.7) {
    whole.frame(s, a, 0);
    path.frame(3 + s, b, 0);
    b.forEach((value, k) => expect(a[k]).toBeCloseTo(value, 6));
    expect(whole.curvature(s)).toBeCloseTo(path.curvature(3 + s), 6);
  }
  const back = linkedPath([{ path, from: 20, to: 2 }]);
  back.frame(5, a, 0);
  path.frame(15, b, 0);
  for (let k = 0; k < 3; k++) expect(a[k]).toBeCloseTo(b[k], 6);
  for (let k = 9; k < 12; k++) expect(a[k]).toBeCloseTo(-b[k], 6);
  expect(back.curvature(5)).toBeCloseTo(-path.curvature(15), 6);
});
