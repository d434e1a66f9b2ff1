import { POSE, newHitch, newShot, type Shot } from '@fleet-rail/core';
import { movePathPoints } from '../edits/path-edits';
import { placeKey } from '../edits/rider-edits';
import { withUpdate } from './evaluation';
import { Evaluator } from './evaluator';
import { poseAt } from './pose-at';
import { encodeDelta } from './shot-delta';

const range = { first: 1, last: 49 };
const lane = (id: string, x: number) => ({
  id,
  name: id,
  basis: 'polyline' as const,
  points: [
    { position: [x, 0, 0] as [number, number, number] },
    { position: [x, 0, 12] as [number, number, number] },
  ],
});
const shot = newShot({
  name: 't',
  range,
  paths: [lane('a', 0), lane('b', 5)],
  riders: [
    { id: 'ra', name: 'A', hitch: newHitch('a', range) },
    { id: 'rb', name: 'B', hitch: newHitch('b', range) },
    { id: 'load', name: 'Load', parent: 'ra' },
  ],
});

/** Through a structured clone, as between page and worker. */
const sent = (before: Shot | null, after: Shot) => structuredClone(encodeDelta(before, after));

it('gives every path and rider at first, and then only what an edit touches', () => {
  const evaluator = new Evaluator();
  const first = evaluator.evaluate(sent(null, shot));
  expect(first.paths.map(({ id }) => id)).toEqual(['a', 'b']);
  expect(first.riders.map(({ id }) => id)).toEqual(['ra', 'rb', 'load']);

  const keyed = placeKey('rb', 1, 40, 1)(shot);
  const second = evaluator.evaluate(sent(shot, keyed));
  expect(second.paths).toEqual([]);
  expect(second.riders.map(({ id }) => id)).toEqual(['rb']);

  const moved = movePathPoints('a', new Set([1]), [0, 0, 6])(keyed);
  const third = evaluator.evaluate(sent(keyed, moved));
  expect(third.paths).toMatchObject([{ id: 'a', length: expect.closeTo(18, 9) }]);
  expect(third.riders.map(({ id }) => id)).toEqual(['ra', 'load']);
});

it('what only names or colours a thing evaluates nothing; a finding still calls it by its badge', () => {
  const far = placeKey('rb', 1, 40, 99)(shot);
  const evaluator = new Evaluator();
  evaluator.evaluate(sent(null, far));
  const mark = { id: 'm', name: 'Gate', distance: 3 };
  const renamed: Shot = {
    ...far,
    name: 'Other',
    paths: far.paths.map((path) => ({ ...path, name: `${path.name}!`, marks: [mark] })),
    riders: far.riders.map((rider) => ({ ...rider, name: 'N', badge: `${rider.id}!`, color: 3 })),
  };
  const update = evaluator.evaluate(sent(far, renamed));
  expect([update.paths, update.riders]).toEqual([[], []]);
  expect(update.findings.map(({ message }) => message)).toEqual([
    expect.stringContaining('rb! is sent to 99'),
  ]);
});

it('a change of a retime samples those that it bends', () => {
  const bend = (source: number) => ({
    ...shot,
    retimes: [
      {
        name: 'R',
        off: false,
        riders: ['rb'],
        keys: [1, 49].map((frame) => ({ frame, source: frame === 1 ? 1 : source, ease: 'linear' as const })),
      },
    ],
  });
  const evaluator = new Evaluator();
  evaluator.evaluate(sent(null, bend(49)));
  const slower = evaluator.evaluate(sent(bend(49), bend(30)));
  expect(slower.riders.map(({ id }) => id)).toEqual(['rb']);
  const named = { ...bend(30), retimes: bend(30).retimes.map((retime) => ({ ...retime, name: 'Slow' })) };
  expect(evaluator.evaluate(sent(bend(30), named)).riders).toEqual([]);
});

it('an update put over what was known is the whole, without what is gone', () => {
  const evaluator = new Evaluator();
  const before = withUpdate(null, evaluator.evaluate(sent(null, shot)));
  const fewer = { ...shot, riders: shot.riders.slice(0, 1), paths: shot.paths.slice(0, 1) };
  const after = withUpdate(before, evaluator.evaluate(sent(shot, fewer)));
  expect([...after.paths.keys()]).toEqual(['a']);
  expect([...after.riders.keys()]).toEqual(['ra']);
  expect(after.riders.get('ra')).toBe(before.riders.get('ra'));
});

it('another range or rate samples every rider anew', () => {
  const evaluator = new Evaluator();
  evaluator.evaluate(sent(null, shot));
  const longer = { ...shot, range: { first: 1, last: 97 } };
  const update = evaluator.evaluate(sent(shot, longer));
  expect(update.paths).toEqual([]);
  expect(update.riders.map(({ poses }) => poses.length / POSE.size)).toEqual([97, 97, 97]);
});

it('between frames a pose is read on the way from one to the next', () => {
  const evaluation = withUpdate(null, new Evaluator().evaluate(sent(null, shot)));
  const rider = evaluation.riders.get('ra');
  const out = new Float64Array(POSE.size);
  if (rider) poseAt(evaluation, rider, 25.5, out);
  // 12 m in 48 steps: a quarter of a metre each.
  expect(out[2]).toBeCloseTo(24.5 * 0.25, 12);
});

it('parts that cues move are sampled with their rider, and follow what the cue listens to', () => {
  const cued = newShot({
    ...shot,
    cues: [
      {
        id: 'lid',
        name: 'Lid',
        on: { kind: 'distance', rider: 'ra' },
        does: { kind: 'move', rider: 'load', node: 'lid', axis: '+y' },
        keys: [
          { at: 0, value: 0, ease: 'linear' },
          { at: 12, value: 0.6 },
        ],
      },
    ],
  });
  const evaluator = new Evaluator();
  const first = evaluator.evaluate(sent(null, cued));
  const lid = first.riders.find(({ id }) => id === 'load')?.gauges[0];
  // 12 m in 48 frames: half-way at frame 25.
  expect(lid).toMatchObject({ kind: 'cue', part: 'lid' });
  expect(lid?.values[24]).toBeCloseTo(0.3, 9);
  const slower = placeKey('ra', 1, 49, 0.5)(cued);
  const second = evaluator.evaluate(sent(cued, slower));
  expect(second.riders.map(({ id }) => id)).toEqual(['ra', 'load']);
  expect(second.riders[1].gauges[0].values[24]).toBeCloseTo(0.15, 9);
});

it('a retime makes every rider anew, an edit after it one again', () => {
  const slow = newShot({
    ...shot,
    retimes: [
      {
        keys: [
          { frame: 1, source: 1, ease: 'linear' },
          { frame: 49, source: 25 },
        ],
      },
    ],
  });
  const evaluator = new Evaluator();
  evaluator.evaluate(sent(null, shot));
  const all = evaluator.evaluate(sent(shot, slow));
  expect(all.riders.map(({ id }) => id)).toEqual(['ra', 'rb', 'load']);
  // At the last frame the work is half-way.
  expect(all.riders[0].poses[48 * POSE.size + POSE.distance]).toBeCloseTo(6, 9);
  const edited = placeKey('rb', 1, 40, 1)(slow);
  expect(evaluator.evaluate(sent(slow, edited)).riders.map(({ id }) => id)).toEqual(['rb']);
});
