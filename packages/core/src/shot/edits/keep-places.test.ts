import fc from 'fast-check';
import type { Loose } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { distance3, type Vec3 } from '../../geometry/math/vec.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import { drapePath } from '../../geometry/reshape/drape.js';
import { liftPath } from '../../geometry/reshape/lift.js';
import { mirroredPosition, mirrorPath } from '../../geometry/reshape/mirror.js';
import { resamplePath } from '../../geometry/reshape/resample.js';
import { smoothPath } from '../../geometry/reshape/smooth.js';
import { thinPath } from '../../geometry/reshape/thin.js';
import { moveSomePoints, moveWholePath, movedPosition } from '../../geometry/reshape/transform-path.js';
import { placeOf, poseAt, shotOf } from '../../../test/shots.js';
import { reshapeRiddenPath, type Correspondence } from './keep-places.js';

const jitter = (i: number) => 0.4 * Math.sin(7 * i) * Math.cos(3 * i);

/** A winding way through uneven points. */
const winding = (basis: 'bezier' | 'through' | 'polyline', closed = false): Loose<ShotPath> => ({
  id: 'p',
  name: 'P',
  basis,
  closed,
  marks: [{ id: 'm', name: 'M', distance: 33 }],
  points: Array.from({ length: 24 }, (_, i) => {
    const a = (2 * Math.PI * i) / (closed ? 24 : 30);
    const reach = 20 + 4 * Math.sin(3 * a) + jitter(i);
    return {
      position: [reach * Math.cos(a), 1 + 0.5 * Math.sin(2 * a), reach * Math.sin(a)] as Vec3,
      handles: 'auto' as const,
    };
  }),
});

/** Distances along a path in every unit and mode. */
const riding = (path: Loose<ShotPath>): Shot => {
  const { length } = compilePath(shotOf([path], []).paths[0]);
  const key = (frame: number, value: number) => ({ frame, value });
  return shotOf(
    [path],
    [
      {
        id: 'metres',
        name: 'A',
        attachment: { path: 'p', pace: { keys: [key(1, 0), key(30, 21), key(60, 55.5), key(97, length)] } },
      },
      {
        id: 'laps',
        name: 'B',
        attachment: {
          path: 'p',
          offset: { along: -3 },
          pace: { unit: 'laps', keys: [key(1, 0.1), key(30, 0.3), key(60, 0.55), key(97, 0.9)] },
        },
      },
      {
        id: 'driven',
        name: 'C',
        attachment: {
          path: 'p',
          pace: {
            mode: 'drive',
            start: { frame: 1, value: 12 },
            drive: { top: 4, stops: [{ distance: 40, seconds: 1 }], zones: [{ from: 20, to: 30, speed: 2 }] },
            within: [10, 60],
          },
        },
      },
    ],
    {
      cues: [
        {
          id: 'c',
          name: 'C',
          trigger: { kind: 'distance', rider: 'metres' },
          action: { kind: 'start', rider: 'laps' },
          keys: [
            { at: 25, value: 0 },
            { at: 44, value: 1 },
          ],
        },
      ],
    },
  );
};

/** World positions of everything at a distance along the path of a shot. */
function placesOf(shot: Shot): [string, Vec3][] {
  const curve = compilePath(shot.paths[0]);
  const at = (s: number): Vec3 => {
    const place: Vec3 = [0, 0, 0];
    curve.position(s, place);
    return place;
  };
  const uncued = evaluateShot({ ...shot, cues: [] }, NO_ASSETS);
  const { drive, start, within } = shot.riders[2].attachment!.pace;
  return [
    ...['metres', 'laps'].flatMap((id) =>
      [1, 30, 60, 97].map((frame): [string, Vec3] => [`${id} ${frame}`, placeOf(poseAt(uncued, id, frame))]),
    ),
    ['mark', at(shot.paths[0].marks[0].distance)],
    ['start', at(start.value)],
    ['stop', at(drive.stops[0].distance)],
    ['zone from', at(drive.zones[0].from)],
    ['zone to', at(drive.zones[0].to)],
    ['within from', at(within![0])],
    ['within to', at(within![1])],
    ...shot.cues[0].keys.map((key, i): [string, Vec3] => [`cue ${i}`, at(key.at)]),
  ];
}

/** The least distance from a place to a path, by looking at very many places of it. */
function leastDistance(path: ShotPath, place: Vec3): number {
  const curve = compilePath(path);
  const here: Vec3 = [0, 0, 0];
  let least = Infinity;
  for (let i = 0; i <= 40_000; i++) {
    curve.position((curve.length * i) / 40_000, here);
    least = Math.min(least, distance3(here, place));
  }
  return least;
}

describe.each(['bezier', 'through', 'polyline'] as const)('what rides a %s path', (basis) => {
  const changes: [string, (path: ShotPath) => ShotPath][] = [
    ['smoothed', (path) => smoothPath(path, 0.4)],
    ['thinned out', (path) => thinPath(path, 0.3)],
    ['spaced evenly', (path) => resamplePath(path, 40)],
    [
      'with a point moved',
      (path) =>
        moveSomePoints(path, new Set([9]), {
          pivot: [0, 0, 0],
          translation: [1, 0.5, -1],
          rotation: [0, 0, 0, 1],
          scale: 1,
        }),
    ],
  ];
  it.each(changes)('%s is at the nearest place of the new curve', (_, change) => {
    for (const closed of [false, true]) {
      const shot = riding(winding(basis, closed));
      const after = reshapeRiddenPath(shot, change(shot.paths[0]));
      const [before, now] = [shot, after].map((one) => new Map(placesOf(one)));
      for (const [what, place] of before) {
        // The two ends are the ends, whatever else is near.
        if (what === 'metres 1' || what === 'metres 97') continue;
        const moved = distance3(place, now.get(what)!);
        expect(moved).toBeLessThan(leastDistance(after.paths[0], place) + 2e-3);
      }
      const { length } = compilePath(after.paths[0]);
      const keys = after.riders[0].attachment!.pace.keys;
      expect([keys[0].value, keys[3].value]).toEqual([0, expect.closeTo(length, 9)]);
    }
  });
});

it('laid on the ground, lifted or levelled it stays where it is seen from above', () => {
  const shot = riding(winding('through'));
  const hills = (x: number, z: number) => 2 * Math.sin(x / 5) * Math.cos(z / 7);
  const changed = [
    drapePath(shot.paths[0], hills, 0.05, 0.005),
    liftPath(shot.paths[0], 4, new Set()),
    {
      ...shot.paths[0],
      points: shot.paths[0].points.map((p) => ({
        ...p,
        position: [p.position[0], 9, p.position[2]] as Vec3,
      })),
    },
  ];
  for (const path of changed) {
    const now = new Map(placesOf(reshapeRiddenPath(shot, path, 'plan')));
    for (const [what, [x, , z]] of placesOf(shot)) {
      const [u, , w] = now.get(what)!;
      expect(Math.hypot(u - x, w - z)).toBeLessThan(0.02);
    }
  }
});

it('moved, turned, scaled or mirrored as a whole, it goes along', () => {
  const shot = riding(winding('bezier'));
  const half = Math.SQRT1_2;
  const move = {
    pivot: [3, 0, 1] as Vec3,
    translation: [200, 5, -90] as Vec3,
    rotation: [0, half, 0, half] as [number, number, number, number],
    scale: 3,
  };
  const cases: [ShotPath, (place: Vec3) => Vec3][] = [
    [moveWholePath(shot.paths[0], move), (place) => movedPosition(move, place)],
    [mirrorPath(shot.paths[0], 0, 40), (place) => mirroredPosition(place, 0, 40)],
  ];
  for (const [path, by] of cases) {
    const now = new Map(placesOf(reshapeRiddenPath(shot, path, by satisfies Correspondence)));
    for (const [what, place] of placesOf(shot)) {
      // An offset along the path keeps its metres, whatever the size.
      if (what.startsWith('laps') && path.transform.scale[0] !== 1) continue;
      expect(distance3(now.get(what)!, by(place))).toBeLessThan(1e-6);
    }
  }
});

it('closed or opened at an end it is where it was, in laps as in metres', () => {
  const shot = riding(winding('through'));
  const closed = reshapeRiddenPath(shot, { ...shot.paths[0], basis: 'polyline', closed: true }, 'nearest');
  const again = reshapeRiddenPath(closed, { ...closed.paths[0], closed: false }, 'same');
  const [before, now] = [closed, again].map((one) => new Map(placesOf(one)));
  for (const [what, place] of before)
    if (what !== 'metres 97') expect(distance3(now.get(what)!, place)).toBeLessThan(1e-9);
});

it('comes back to where it was when a drag does, and keeps its order throughout', () => {
  const shot = riding(winding('through'));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -12, max: 12 }), fc.integer({ min: -12, max: 12 })), {
        maxLength: 6,
      }),
      (steps) => {
        const drag = (x: number, z: number) =>
          reshapeRiddenPath(
            shot,
            moveSomePoints(shot.paths[0], new Set([10, 11]), {
              pivot: [0, 0, 0],
              translation: [x, 0, z],
              rotation: [0, 0, 0, 1],
              scale: 1,
            }),
          );
        for (const [x, z] of steps) {
          const { keys } = drag(x, z).riders[0].attachment!.pace;
          keys.forEach((key, i) => i > 0 && expect(key.value).toBeGreaterThanOrEqual(keys[i - 1].value));
        }
        const back = drag(0, 0);
        for (const [what, place] of placesOf(shot))
          expect(distance3(new Map(placesOf(back)).get(what)!, place)).toBeLessThan(1e-6);
      },
    ),
    { numRuns: 20 },
  );
});
