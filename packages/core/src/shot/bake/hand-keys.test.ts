import fc from 'fast-check';
import { HIERARCHIES, MODELS, cart, CART_AXLES } from '../../../test/carts.js';
import { circle, even, line, noseOf, placeOf, poseAt, shotOf, slope, turnOf } from '../../../test/shots.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { distance3, type Vec3 } from '../../geometry/math/vec.js';
import { POSE } from '../../motion/pose/pose.js';
import { freeze, thaw } from './freeze.js';
import { keyHere, keysOfRide, placementAt, putRider } from './hand-keys.js';
import { withOwnPath } from './own-path.js';
import { sampleShot } from './sample-shot.js';

const key = (frame: number, translation: Vec3, more = {}) => ({ frame, translation, ...more });
const byHand = (keys: object[], more: Loose<Rider> = {}) =>
  ({ id: 'k', name: 'K', badge: 'K1', transformKeys: { keys }, ...more }) as Loose<Rider>;
const turned = (degrees: number) => {
  const half = (degrees * Math.PI) / 360;
  return [0, Math.sin(half), 0, Math.cos(half)];
};
const posesOf = (shot: Shot, id: string, step = 1) => {
  const evaluated = evaluateShot(shot, NO_ASSETS);
  return Array.from({ length: Math.round(96 / step) + 1 }, (_, i) => poseAt(evaluated, id, 1 + i * step));
};
const furthest = (a: Float64Array[], b: Float64Array[]) =>
  Math.max(...a.map((pose, i) => distance3(placeOf(pose), placeOf(b[i]))));

describe('what is moved by hand', () => {
  it('goes evenly along a straight by linear keys, and turns the shorter way', () => {
    const keys = [
      key(1, [0, 0, 0], { ease: 'linear', rotation: turned(170) }),
      key(97, [0, 0, 24], { rotation: turned(-170) }),
    ];
    const poses = posesOf(shotOf([], [byHand(keys)]), 'k');
    poses.forEach((pose, i) => {
      expect(pose[2]).toBeCloseTo(i / 4, 9);
      expect(pose[POSE.speed]).toBeCloseTo(6, 9);
      expect(pose[POSE.distance]).toBeCloseTo(i / 4, 9);
    });
    // From 170° by 180° to 190°: 20° in all.
    const half = noseOf(poses[48]);
    expect(half[2]).toBeCloseTo(-1, 9);
    expect(Math.abs(half[0])).toBeLessThan(1e-9);
  });

  it('is at each key at its frame, never goes back between, and waits where two keys are in one place', () => {
    const places = fc.array(
      fc.tuple(
        fc.integer({ min: -9, max: 9 }),
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: -9, max: 9 }),
      ),
      {
        minLength: 2,
        maxLength: 6,
      },
    );
    fc.assert(
      fc.property(places, (list) => {
        const keys = list.map((place, i) => key(1 + 16 * i, place as Vec3));
        const poses = posesOf(shotOf([], [byHand(keys)]), 'k');
        keys.forEach(({ frame, translation }) =>
          expect(distance3(placeOf(poses[frame - 1]), translation)).toBeLessThan(1e-9),
        );
        for (let i = 1; i < poses.length; i++)
          expect(poses[i][POSE.distance]).toBeGreaterThanOrEqual(poses[i - 1][POSE.distance] - 1e-12);
      }),
      { numRuns: 60 },
    );
  });

  it('is carried, and takes part in bent time and cues', () => {
    const carrier = { id: 'c', name: 'C', badge: 'C2', attachment: { path: 'p', pace: even(0, 96) } };
    const keys = [key(1, [1, 0, 0], { ease: 'linear' }), key(97, [1, 9.6, 0])];
    const shot = shotOf([line(96)], [carrier, byHand(keys, { parent: 'c' })]);
    const pose = posesOf(shot, 'k')[48];
    expect(placeOf(pose)).toEqual([1, 4.8, 48].map((value) => expect.closeTo(value, 9)));
    const waits = {
      id: 'w',
      name: 'Wait',
      trigger: { kind: 'distance', rider: 'c' },
      action: { kind: 'start', rider: 'k' },
      keys: [
        { at: 0, value: 0, ease: 'hold' },
        { at: 48, value: 1 },
      ],
    };
    const later = posesOf(shotOf([line(96)], [carrier, byHand(keys)], { cues: [waits as never] }), 'k');
    expect(later[48][1]).toBeCloseTo(0, 9);
    expect(later[96][1]).toBeCloseTo(4.8, 9);
  });

  it('is keyed where it stands, put elsewhere by a key, and at rest for good without', () => {
    const still = shotOf([], [{ id: 'k', name: 'K', badge: 'K1', rest: { translation: [3, 0, 1] } }]);
    const once = keyHere(still, NO_ASSETS, 'k', 10);
    expect(once.riders[0].transformKeys?.keys).toEqual([
      { frame: 10, ease: 'smooth', translation: [3, 0, 1], rotation: [0, 0, 0, 1] },
    ]);
    const moved = putRider(once, NO_ASSETS, 'k', 34, { translation: [3, 0, 9], rotation: [0, 0, 0, 1] });
    expect(placementAt(evaluateShot(moved, NO_ASSETS), moved.riders[0], 22).translation[2]).toBeCloseTo(5, 9);
    const put = putRider(still, NO_ASSETS, 'k', 34, { translation: [7, 0, 7], rotation: [0, 0, 0, 1] });
    expect([put.riders[0].rest.translation, put.riders[0].transformKeys]).toEqual([[7, 0, 7], null]);
    expect(parseShot(JSON.parse(JSON.stringify(moved)))).toEqual(moved);
  });

  it('becomes a path with its pace, exactly; and a ride becomes keys within a tolerance', () => {
    const keys = [
      key(1, [0, 0, 0]),
      key(30, [4, 1, 6]),
      key(50, [4, 1, 6]),
      key(97, [-3, 0, 14], { ease: 'linear' }),
    ];
    const shot = shotOf([], [byHand(keys)]);
    const { shot: onPath, pathId } = withOwnPath(shot, NO_ASSETS, 'k', 0.01);
    expect(onPath.riders[0]).toMatchObject({ transformKeys: null, attachment: { path: pathId } });
    expect(furthest(posesOf(onPath, 'k', 0.5), posesOf(shot, 'k', 0.5))).toBeLessThan(1e-9);
    const ride = shotOf(
      [circle(20, true)],
      [
        {
          id: 'k',
          name: 'K',
          badge: 'K1',
          attachment: { path: 'p', bank: { mode: 'physical' }, pace: even(0, 100) },
        },
      ],
    );
    const hand = keysOfRide(ride, NO_ASSETS, 'k', 0.01);
    expect(hand.riders[0].attachment).toBeNull();
    expect(hand.riders[0].transformKeys?.keys.length).toBeLessThan(60);
    const [was, is] = [posesOf(ride, 'k'), posesOf(hand, 'k')];
    expect(furthest(was, is)).toBeLessThan(0.01);
    was.forEach((pose, i) => {
      const dot = turnOf(pose).reduce((sum, value, k) => sum + value * turnOf(is[i])[k], 0);
      expect(2 * Math.acos(Math.min(1, Math.abs(dot)))).toBeLessThan(0.0101);
    });
  });

  it('one of a flight gets a path of its own in the very place it has', () => {
    const lead = { id: 'l', name: 'L', badge: 'L1', attachment: { path: 'p', pace: even(0, 100) } };
    const wing = {
      id: 'k',
      name: 'K',
      badge: 'K1',
      attachment: {
        path: 'p',
        pacedBy: { rider: 'l', delay: 12, rate: 1 },
        rideTransform: { translation: [3, 2, 1], turn: 20, size: 1.2 },
      },
    };
    const shot = shotOf([circle(20, true)], [lead, wing as Loose<Rider>]);
    const { shot: freed, pathId } = withOwnPath(shot, NO_ASSETS, 'k', 0.001);
    expect(freed.riders[1].attachment).toMatchObject({ path: pathId, pacedBy: null, rideTransform: null });
    expect(furthest(posesOf(freed, 'k'), posesOf(shot, 'k'))).toBeLessThan(0.002);
    expect(() => withOwnPath(shotOf([], [byHand([key(1, [0, 0, 0])])]), NO_ASSETS, 'k', 0.01)).toThrow(
      'stands still',
    );
  });
});

describe('what is frozen', () => {
  const assets = { ground: slope(0.1, 0.05), hierarchies: HIERARCHIES, physics: null };
  const wheeled = (): Shot =>
    shotOf(
      [circle(20, true)],
      [
        {
          id: 'r',
          name: 'R',
          badge: 'R1',
          ...cart,
          chassis: CART_AXLES,
          attachment: {
            path: 'p',
            anchor: 'rearAxle',
            ground: { mode: 'stick', up: 9, down: 9 },
            pace: even(3, 70),
          },
        },
      ],
      { models: MODELS, ground: { model: 'crate' } },
    );

  it('plays as it was baked, parts and all, whatever becomes of its path; and thaws to what it was', () => {
    const live = wheeled();
    const frozen = freeze(live, assets, ['r'], 0.001);
    expect(parseShot(JSON.parse(JSON.stringify(frozen)))).toEqual(frozen);
    const points = frozen.paths[0].points.map((point) => ({
      ...point,
      position: point.position.map((value) => 2 * value) as Vec3,
    }));
    const bent = { ...frozen, paths: [{ ...frozen.paths[0], points }] };
    const samples = [live, frozen, bent].map((shot) => sampleShot(evaluateShot(shot, assets)));
    for (const other of samples.slice(1)) {
      for (let i = 0; i < 97; i++) {
        const at = i * POSE.size;
        const [a, b] = [samples[0].riders[0], other.riders[0]];
        expect(Math.hypot(a[at] - b[at], a[at + 1] - b[at + 1], a[at + 2] - b[at + 2])).toBeLessThan(0.0011);
      }
      expect(other.parts[0].nodes.map(({ name }) => name)).toEqual(
        samples[0].parts[0].nodes.map(({ name }) => name),
      );
      other.parts[0].values.forEach((value, i) =>
        expect(Math.abs(Math.abs(value) - Math.abs(samples[0].parts[0].values[i]))).toBeLessThan(0.002),
      );
    }
    expect(thaw(frozen, ['r'])).toEqual(live);
  });

  it('plays in bent time as its ride does', () => {
    const retimes = [
      {
        id: 'x',
        name: 'Slow',
        riders: [],
        keys: [
          { frame: 1, source: 1 },
          { frame: 97, source: 49 },
        ],
      },
    ];
    const live = { ...wheeled(), retimes: retimes as never };
    const frozen = freeze(live, assets, ['r'], 0.001);
    const [a, b] = [live, frozen].map((shot) => evaluateShot(shot, assets));
    for (let frame = 1; frame <= 97; frame += 0.5)
      expect(distance3(placeOf(poseAt(a, 'r', frame)), placeOf(poseAt(b, 'r', frame)))).toBeLessThan(0.002);
  });
});

it('what stands turns to what passes, and keeps its place', () => {
  const walker = { id: 'r', name: 'R', badge: 'R1', attachment: { path: 'p', pace: even(0, 40) } };
  const tripod = {
    id: 't',
    name: 'T',
    badge: 'T2',
    kind: 'camera' as const,
    camera: {},
    rest: { translation: [12, 1.5, 20] as Vec3 },
    restAim: { target: { rider: 'r' } },
  };
  const shot = shotOf([line(40)], [walker, tripod]);
  const evaluated = evaluateShot(shot, NO_ASSETS);
  for (let frame = 1; frame <= 97; frame += 8) {
    const pose = poseAt(evaluated, 't', frame);
    expect(placeOf(pose)).toEqual([12, 1.5, 20]);
    const to = placeOf(poseAt(evaluated, 'r', frame)).map((value, k) => value - placeOf(pose)[k]);
    const far = Math.hypot(...to);
    noseOf(pose).forEach((value, k) => expect(value).toBeCloseTo(to[k] / far, 9));
  }
});
