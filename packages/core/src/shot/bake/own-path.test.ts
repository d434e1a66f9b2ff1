import { circle, even, placeOf, poseAt, shotOf } from '../../../test/shots.js';
import type { Loose } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { parseShot } from '../../document/parse-shot.js';
import { reshapeRiddenPath } from '../edits/keep-places.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { withoutDust } from '../../document/dust.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { POSE } from '../../motion/pose/pose.js';
import { withOwnPath } from './own-path.js';

const WITHIN = 0.01;
const FRAMES = Array.from({ length: 97 }, (_, i) => i + 1);

/** A Bézier path through places on a curve, drawn by its places alone. */
const through = (count: number, at: (t: number) => Vec3): Loose<ShotPath> => ({
  id: 'p',
  name: 'P',
  basis: 'through',
  points: Array.from({ length: count }, (_, i) => ({ position: at(i / (count - 1)) })),
});
/** Along, up and round a vertical loop of 8 m, and on. */
const looping = through(60, (t) => {
  const turn = 2 * Math.PI * Math.min(1, Math.max(0, (t - 0.3) / 0.4));
  return [20 * t * t, 8 - 8 * Math.cos(turn), 60 * t + 8 * Math.sin(turn)];
});
const wave = through(20, (t) => [12 * Math.sin(5 * t), 2 * Math.sin(3 * t), 70 * t]);
const smooth = {
  keys: [
    { frame: 1, value: 2, ease: 'smooth' as const },
    { frame: 97, value: 60 },
  ],
};
const lead = (parts: Loose<Rider['attachment']> = {}): Loose<Rider> => ({
  id: 'l',
  name: 'L',
  badge: 'L1',
  attachment: { path: 'p', pace: smooth, ...parts } as never,
});
const follower: Loose<Rider> = {
  id: 'k',
  name: 'K',
  badge: 'K1',
  follow: { rider: 'l', behind: 3, side: 1, rise: 0.5, delay: 0 },
};

/** How far a rider is from where it was, metres, and turned from how it was, degrees, at the worst frame. */
function apart(before: Shot, after: Shot, id: string): { metres: number; degrees: number } {
  let [metres, degrees] = [0, 0];
  const [was, is] = [before, after].map((shot) => evaluateShot(shot, NO_ASSETS));
  for (const frame of FRAMES) {
    const [a, b] = [was, is].map((shot) => poseAt(shot, id, frame));
    const [p, q] = [placeOf(a), placeOf(b)];
    metres = Math.max(metres, Math.hypot(...p.map((value, k) => value - q[k])));
    let dot = 0;
    for (let k = 0; k < 4; k++) dot += a[POSE.rotation + k] * b[POSE.rotation + k];
    degrees = Math.max(degrees, (2 * Math.acos(Math.min(1, Math.abs(dot))) * 180) / Math.PI);
  }
  return { metres, degrees };
}

/** One that follows along a curve whose bends change evenly. */
const gentle = shotOf(
  [{ ...wave, basis: 'bspline' }],
  [lead(), { ...follower, follow: { ...follower.follow, side: 0 } } as Loose<Rider>],
);

describe('a path of its own', () => {
  const cases: [string, Shot, string][] = [
    ['one that follows on a wave', shotOf([wave], [lead(), follower]), 'k'],
    ['one that follows through a vertical loop', shotOf([looping], [lead(), follower]), 'k'],
    [
      'one of a flight, banked by its speed, beside its path and turned',
      shotOf(
        [circle(20)],
        [
          lead({ pace: even(0, 80) }),
          {
            id: 'k',
            name: 'K',
            badge: 'K1',
            attachment: {
              path: 'p',
              pacedBy: { rider: 'l', delay: 6, rate: 1 },
              bank: { mode: 'physical' },
              offset: { side: 2, yaw: 20, roll: 5 },
            },
          },
        ],
      ),
      'k',
    ],
    [
      'one that is moved and turned by hand',
      shotOf(
        [],
        [
          {
            id: 'k',
            name: 'K',
            badge: 'K1',
            transformKeys: {
              keys: [
                { frame: 1, translation: [0, 0, 0], rotation: [0, 0, 0, 1] },
                { frame: 50, translation: [5, 1, 12], rotation: [0, 0.6, 0, 0.8] },
                { frame: 97, translation: [0, 3, 30], rotation: [0.6, 0, 0, 0.8] },
              ],
            },
          },
        ],
      ),
      'k',
    ],
  ];

  it.each(cases)('keeps the place of %s, and its heading and up, at every frame', (_, shot, id) => {
    const own = withOwnPath(shot, NO_ASSETS, id, WITHIN).shot;
    const { metres, degrees } = apart(shot, own, id);
    expect(metres).toBeLessThan(WITHIN + 1e-9);
    expect(degrees).toBeLessThan(0.5);
    // Numbers of less than a trillionth are read as nought.
    const clean = (_: string, value: unknown) => (typeof value === 'number' ? withoutDust(value) : value);
    const sent = JSON.stringify(own, clean);
    expect(parseShot(JSON.parse(sent))).toEqual(JSON.parse(sent));
  });

  it('of a gentle ride takes few points and keys', () => {
    const { shot: own, pathId } = withOwnPath(gentle, NO_ASSETS, 'k', 0.005);
    const attachment = own.riders[1].attachment!;
    expect(own.paths.find(({ id }) => id === pathId)!.points.length).toBeLessThan(15);
    expect(attachment.pace.keys.length).toBeLessThan(15);
    expect(attachment.offsetKeys.length).toBeLessThan(15);
  });

  it('goes without jolts: its speed is the one it had', () => {
    const [, shot] = cases[0];
    const own = withOwnPath(shot, NO_ASSETS, 'k', WITHIN).shot;
    const [was, is] = [shot, own].map((one) => evaluateShot(one, NO_ASSETS));
    for (const frame of FRAMES.slice(1, -1)) {
      // Differences of its places, by frames on both sides.
      const speed = (of: typeof was) => {
        const [a, b] = [frame - 1, frame + 1].map((at) => placeOf(poseAt(of, 'k', at)));
        return (Math.hypot(...a.map((value, k) => value - b[k])) * 24) / 2;
      };
      expect(Math.abs(speed(is) - speed(was))).toBeLessThan(0.15);
    }
  });

  it('bent at any point by a tenth of its length, it is ridden no more than a third faster or slower', () => {
    const { shot: own, pathId } = withOwnPath(gentle, NO_ASSETS, 'k', 0.005);
    const path = own.paths.find(({ id }) => id === pathId)!;
    const tenth = (compiledPathOf(path) as CompiledPath).length / 10;
    const speeds = (shot: Shot) => {
      const evaluated = evaluateShot(shot, NO_ASSETS);
      return FRAMES.map((frame) => poseAt(evaluated, 'k', frame)[POSE.speed]);
    };
    const before = speeds(own);
    path.points.forEach((_, i) => {
      const points = path.points.map((point, k) => {
        const [x, y, z] = point.position;
        return k === i ? { ...point, position: [x + tenth, y, z] as Vec3 } : point;
      });
      speeds(reshapeRiddenPath(own, { ...path, points })).forEach((speed, k) => {
        expect(Math.abs(speed - before[k])).toBeLessThanOrEqual(before[k] / 3 + 1e-9);
      });
    });
  });
});
