import fc from 'fast-check';
import { even, line, onGround, placeOf, poseAt, runs, shotOf, slope, waves } from '../../../test/shots.js';
import { removeRider } from '../../shot/edits/remove-riders.js';
import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Clearance } from '../../document/shot-clearance.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { distance3, type Vec3 } from '../../geometry/math/vec.js';

/** A hill 3 m high about z = 40 on a lane of 80 m, with gentle sides. */
const hill = (_: number, z: number) => 3 * Math.exp(-(((z - 40) / 6) ** 2));
const HILL = waves(hill, 90, 0.5);

const flown = (clearance: Loose<Clearance> | null, ground: GroundSurface, others: Loose<Rider>[] = []) =>
  evaluateShot(
    shotOf(
      [runs([0, 2, 0], [0, 2, 80]), { ...runs([-40, 2, 40], [40, 2, 40]), id: 'q', name: 'Q' }],
      [
        { id: 'r', name: 'R', badge: 'R1', attachment: { path: 'p', pace: even(0, 80) }, clearance },
        ...others,
      ],
      { models: [{ id: 'g', name: 'g', source: { file: 'g.glb' } }], ground: { model: 'g' } },
    ),
    onGround(ground),
  );

it('is never lower over the ground than asked, rises without a jolt, and is on its path where nothing is needed', () => {
  const evaluated = flown({ floor: 2, ease: 0.5 }, HILL);
  const plain = flown(null, HILL);
  let [before, slopeBefore] = [NaN, NaN];
  for (let frame = 1; frame <= 97; frame += 0.25) {
    const [x, y, z] = placeOf(poseAt(evaluated, 'r', frame));
    const ground = HILL.nearestHeight(x, z, y) as number;
    expect(y - ground).toBeGreaterThan(2 - 1e-3);
    const rate = (y - before) / 0.25;
    // From a quarter of a frame to the next it is bent by no more than the cosine of half a second bends it.
    if (frame > 1.5) expect(Math.abs(rate - slopeBefore)).toBeLessThan(0.1);
    [before, slopeBefore] = [y, rate];
    // The hill is felt half a second of way, 10 m, before its sides begin and after they end.
    if (Math.abs(z - 40) > 29) expect(y).toBeCloseTo(placeOf(poseAt(plain, 'r', frame))[1], 3);
  }
  expect(placeOf(poseAt(evaluated, 'r', 49))[1]).toBeGreaterThan(5 - 1e-3);
});

it('under a bridge it keeps above the road, not above the bridge', () => {
  const evaluated = flown({ floor: 1.5, ease: 0.5 }, slope(0, 0));
  expect(placeOf(poseAt(evaluated, 'r', 49))[1]).toBeCloseTo(2, 9);
});

it.each([
  ['beside', 1, [1, 0, 0]],
  ['through', 0, [0, 1, 0]],
] as const)(
  'is led past a standing thing %s, square to its way, by as much as keeps the distance',
  (_, x, side) => {
    const post: Loose<Rider> = { id: 's', name: 'S', badge: 'S2', rest: { translation: [-x, 2, 40] } };
    const evaluated = flown({ from: [{ rider: 's', distance: 4 }], ease: 1 }, slope(0, 0), [post]);
    let least = Infinity;
    for (let frame = 1; frame <= 97; frame += 0.25)
      least = Math.min(least, distance3(placeOf(poseAt(evaluated, 'r', frame)), [-x, 2, 40]));
    expect(least).toBeGreaterThan(4 - 1e-6);
    expect(least).toBeLessThan(4.1);
    const [px, py] = placeOf(poseAt(evaluated, 'r', 49));
    expect([px, py - 2].map((value) => value > 2.9)).toEqual([side[0] === 1, side[1] === 1]);
    expect(placeOf(poseAt(evaluated, 'r', 10))).toEqual(placeOf(poseAt(flown(null, slope(0, 0)), 'r', 10)));
  },
);

it('over a hill with something standing on it both hold', () => {
  const post: Loose<Rider> = { id: 's', name: 'S', badge: 'S2', rest: { translation: [-1, 5.5, 38] } };
  const evaluated = flown({ floor: 2, from: [{ rider: 's', distance: 3 }], ease: 1 }, HILL, [post]);
  for (let frame = 1; frame <= 97; frame++) {
    const place = placeOf(poseAt(evaluated, 'r', frame));
    expect(distance3(place, [-1, 5.5, 38])).toBeGreaterThan(3 - 1e-3);
    expect(place[1] - (HILL.nearestHeight(place[0], place[2], place[1]) as number)).toBeGreaterThan(2 - 1e-3);
  }
});

it('two that cross keep their distance at every frame and between', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 6, noNaN: true }),
      fc.double({ min: -4, max: 4, noNaN: true }),
      fc.double({ min: 0.25, max: 2, noNaN: true }),
      (distance, shift, ease) => {
        const other: Loose<Rider> = {
          id: 's',
          name: 'S',
          badge: 'S2',
          attachment: { path: 'q', pace: even(4 + shift, 76 + shift) },
        };
        const evaluated = flown({ from: [{ rider: 's', distance }], ease }, slope(0, 0), [other]);
        for (let frame = 1; frame <= 97; frame += 0.5) {
          const [own, its] = ['r', 's'].map((id): Vec3 => placeOf(poseAt(evaluated, id, frame)));
          expect(distance3(own, its)).toBeGreaterThan(distance * (1 - 1e-6));
        }
      },
    ),
    { numRuns: 40 },
  );
});

it('in a loop it meets itself at the seam, wherever that lies in an encounter', () => {
  const ring = (id: string, radius: number) => ({
    id,
    name: id,
    basis: 'through' as const,
    closed: true,
    points: Array.from({ length: 12 }, (_, i) => ({
      position: [radius * Math.cos((i * Math.PI) / 6), 2, radius * Math.sin((i * Math.PI) / 6)] as Vec3,
    })),
  });
  const laps = (path: string, start: number, rate: number): Loose<Rider['attachment']> => ({
    path,
    pace: {
      unit: 'laps',
      ...even(start, start + rate, 1, 98),
      before: 'accumulate',
      after: 'accumulate',
    },
  });
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(1, 2), (start, rate) => {
      const shot = shotOf(
        [ring('a', 12), ring('b', 14)],
        [
          {
            id: 'r',
            name: 'R',
            attachment: laps('a', 0.02, rate),
            clearance: { from: [{ rider: 's', distance: 4 }] },
          },
          { id: 's', name: 'S', attachment: laps('b', start, 1) },
        ],
        { loop: true },
      );
      const evaluated = evaluateShot(shot, onGround(slope(0, 0)));
      const [begin, end] = [1, 98].map((frame) => placeOf(poseAt(evaluated, 'r', frame)));
      expect(distance3(begin, end)).toBeLessThan(1e-6);
    }),
    { numRuns: 40 },
  );
});

it('one that keeps clear of what waits for it is refused', () => {
  const round = () =>
    flown({ from: [{ rider: 's', distance: 4 }] }, slope(0, 0), [
      {
        id: 's',
        name: 'S',
        badge: 'S2',
        attachment: { path: 'q', facing: { mode: 'aim', target: { rider: 'r' } } },
      },
    ]);
  expect(round).toThrow(/R → S → R.*keep clear of each other/);
});

it('what is gone is kept clear of no more', () => {
  const post: Loose<Rider> = { id: 's', name: 'S', badge: 'S2', rest: { translation: [-1, 2, 40] } };
  const { shot, assets } = flown({ floor: 1, from: [{ rider: 's', distance: 4 }] }, slope(0, 0), [post]);
  const left = removeRider(shot, assets, 's', 1);
  expect(left.riders).toMatchObject([{ id: 'r', clearance: { floor: 1, from: [] } }]);
  expect(newShot({ ...left })).toEqual(left);
});

it('keeps the lane where it is asked for nothing', () => {
  const shot = shotOf(
    [line(40)],
    [{ id: 'r', name: 'R', attachment: { path: 'p', pace: even(0, 40) }, clearance: {} }],
  );
  expect(placeOf(poseAt(evaluateShot(shot, onGround(slope(0, 0))), 'r', 49))).toEqual([0, 0, 20]);
});
