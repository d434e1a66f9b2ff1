import { CART_AXLES, HIERARCHIES, MODELS, boxMesh, cart, scene } from '../../test/carts.js';
import { even, line, runs, shotOf, slope } from '../../test/shots.js';
import { withAttachment, withRider } from '../shot/edits/change-rider.js';
import { parseShot } from '../document/parse-shot.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import type { SceneAssets } from '../shot/evaluate/scene-assets.js';
import { checkShot } from './check-shot.js';
import { runToEnd } from '../geometry/math/run-to-end.js';
import { reportCsv, reportText, summaryOf } from './report.js';
import { ShotChecker } from './shot-checker.js';

const assets: SceneAssets = { ground: slope(0, 0), hierarchies: HIERARCHIES, physics: null };
const set = scene(boxMesh([6, 1, 30], [2, 2, 0.2]));
const rider = (id: string, x: number) => ({
  id,
  name: id,
  badge: id.toUpperCase(),
  ...cart,
  chassis: CART_AXLES,
  attachment: { path: 'p', offset: { side: x }, pace: even(2, 38) },
});
const shot = shotOf(
  [line(40), { ...runs([-20, 0, 20], [20, 0, 20]), id: 'q', name: 'Crossing' }],
  [
    rider('a', 0),
    rider('b', 6),
    {
      id: 'c',
      name: 'C',
      badge: 'C3',
      kind: 'camera',
      camera: {},
      attachment: {
        path: 'q',
        offset: { rise: 3 },
        facing: { mode: 'aim', target: { rider: 'a' } },
        pace: even(0, 20),
      },
    },
  ],
  { models: MODELS, ground: { model: 'crate' } },
);

/** Value of the first rider's last key. */
const keyed = (before: Shot, value: number): Shot =>
  withAttachment(before, 'a', (attachment) => ({
    ...attachment,
    pace: {
      ...attachment.pace,
      keys: attachment.pace.keys.map((key, i) => (i === 1 ? { ...key, value } : key)),
    },
  }));

/** Edits one after the other, each of another sort. */
const EDITS: readonly [string, (shot: Shot) => Shot][] = [
  ['a key past the end', (before) => keyed(before, 60)],
  [
    'beside the other',
    (before) =>
      withAttachment(before, 'b', (attachment) => ({
        ...attachment,
        offset: { ...attachment.offset, side: 1 },
      })),
  ],
  ['another badge', (before) => withRider(before, 'a', (one) => ({ ...one, badge: 'Z9' }))],
  [
    'a path under the ground',
    (before) => ({
      ...before,
      paths: before.paths.map((path) =>
        path.id === 'p'
          ? {
              ...path,
              points: path.points.map((point) => ({
                ...point,
                position: [point.position[0], -1, point.position[2]],
              })),
            }
          : path,
      ) as Shot['paths'],
    }),
  ],
  [
    'another limit',
    (before) => ({ ...before, checks: { ...before.checks, limits: { ...before.checks.limits, under: 2 } } }),
  ],
  ['one less', (before) => ({ ...before, riders: before.riders.filter(({ id }) => id !== 'b') })],
];

it('after each edit it says what a look at all of it says', () => {
  const checker = new ShotChecker();
  let now = shot;
  runToEnd(checker.check(now, assets, set));
  for (const [, edit] of EDITS) {
    now = edit(now);
    const again = runToEnd(checker.check(now, assets, set));
    expect(again).toEqual(checkShot(evaluateShot(now, assets), set));
    expect(again.length).toBeGreaterThan(0);
  }
});

/** The shot with an added crate; all other objects are the very same. */
const withCrate = (id: string, rest: object): Shot => ({
  ...shot,
  riders: [
    ...shot.riders,
    ...parseShot({ ...shot, riders: [{ id, name: id, badge: id, model: 'crate', rest }] }).riders,
  ],
});

it('a look that is given up leaves nothing wrong behind, wherever it was', () => {
  const [, [, beside], [, renamed]] = EDITS;
  // In the way of the first, which is changed with the second: held against it the first may be when the second is not yet through.
  const before = withCrate('w', { translation: [0, 0, 20] });
  const first = withAttachment(beside(before), 'a', (attachment) => ({
    ...attachment,
    offset: { ...attachment.offset, rise: 0.01 },
  }));
  const next = renamed(first);
  const whole = checkShot(evaluateShot(next, assets), set);
  expect(whole.filter(({ kind }) => kind === 'overlap').map(({ other }) => other)).toEqual(['b', 'w', 'w']);
  let steps = 0;
  for (const look = new ShotChecker().check(first, assets, set); !look.next().done;) steps++;
  for (let given = 1; given < steps; given += 3) {
    const checker = new ShotChecker();
    runToEnd(checker.check(before, assets, set));
    const half = checker.check(first, assets, set);
    for (let i = 0; i < given; i++) half.next();
    // The next change touches none of the remaining findings.
    expect(runToEnd(checker.check(next, assets, set))).toEqual(whole);
  }
});

it('what stood before a camera and is gone hides nothing', () => {
  const walled = withCrate('w', { translation: [0, 1, 15], scale: [30, 6, 1] });
  const checker = new ShotChecker();
  const hidden = runToEnd(checker.check(walled, assets, set)).filter(({ kind }) => kind === 'hidden');
  expect(hidden).toMatchObject([{ rider: 'c', other: 'w' }]);
  expect(runToEnd(checker.check(shot, assets, set)).filter(({ kind }) => kind === 'hidden')).toEqual([]);
});

it('finds two that intersect, and calls them as they are called now', () => {
  const [finding] = checkShot(evaluateShot(EDITS[2][1](EDITS[1][1](shot)), assets), set);
  expect(finding).toMatchObject({ kind: 'overlap', rider: 'a', other: 'b' });
  expect(finding.message).toMatch(/^Z9 and B intersect/);
});

it('what is let be says why, does not count, and is told of again when it gets worse', () => {
  const dismissed = (value: number, figure: number | null): Shot => ({
    ...keyed(shot, value),
    checks: {
      ...shot.checks,
      dismissed: [
        { kind: 'past-end', rider: 'a', other: null, part: null, reason: 'It waits there.', figure },
      ],
    },
  });
  const found = (one: Shot) =>
    checkShot(evaluateShot(one, assets), set).filter(({ kind }) => kind === 'past-end');
  expect(found(keyed(shot, 44))).toMatchObject([{ dismissed: null, figure: expect.closeTo(4, 9) }]);
  expect(found(dismissed(44, 4))).toMatchObject([{ dismissed: 'It waits there.' }]);
  expect(found(dismissed(44.1, 4))).toMatchObject([{ dismissed: 'It waits there.' }]);
  expect(found(dismissed(45, 4))).toMatchObject([{ dismissed: null }]);
  expect(found(dismissed(90, null))).toMatchObject([{ dismissed: 'It waits there.' }]);
  expect(summaryOf(found(dismissed(44, 4)), 3)).toBe('no problems in 3 riders');
  expect(reportText(found(dismissed(44, 4)), shot)).toContain(
    'dismissed: past-end: A has a key at 44 metres',
  );
});

it('a report as a table has a row a finding, its texts quoted', () => {
  const findings = checkShot(evaluateShot(EDITS[1][1](shot), assets), set);
  const [head, ...rows] = reportCsv(findings, shot).trimEnd().split('\r\n');
  expect(head).toBe(
    'severity,kind,rider,other,path,part,from,to,frame,distance,figure,unit,message,dismissed',
  );
  expect(rows).toHaveLength(findings.length);
  expect(rows[0]).toMatch(/^warning,overlap,A,B,,,1,97,\d+,[\d.]+,[\d.]+,m,"A and B intersect, .*",$/);
});
