import { POSE, newAttachment, newShot, type Shot } from '@fleet-rail/core';
import { movePathPoints } from '../../edits/path-edits';
import { placeKey } from '../../edits/rider-edits';
import { withEnds, withUpdate, type Evaluation, type EvaluationUpdate } from './evaluation';
import { evaluateToEnd } from './evaluate-whole';
import { shares } from './shares';
import { Evaluator } from './evaluator';
import { poseAt } from './pose-at';
import { decodeDelta, encodeDelta } from './shot-delta';

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
    { id: 'ra', name: 'A', attachment: newAttachment('a', range) },
    { id: 'rb', name: 'B', attachment: newAttachment('b', range) },
    { id: 'load', name: 'Load', parent: 'ra' },
  ],
});

const focus = { frame: 25, rider: 'rb' };

/** Through a structured clone, as between page and worker. */
const sent = (before: Shot | null, after: Shot) => structuredClone(encodeDelta(before, after));

it('gives every path and rider at first, and then only what an edit touches', () => {
  const evaluator = new Evaluator();
  const first = evaluateToEnd(evaluator, sent(null, shot));
  expect(first.paths.map(({ id }) => id)).toEqual(['a', 'b']);
  expect(first.riders.map(({ id }) => id)).toEqual(['ra', 'rb', 'load']);

  const keyed = placeKey('rb', 1, 40, 1)(shot);
  const second = evaluateToEnd(evaluator, sent(shot, keyed));
  expect(second.paths).toEqual([]);
  expect(second.riders.map(({ id }) => id)).toEqual(['rb']);

  const moved = movePathPoints('a', new Set([1]), [0, 0, 6], 0)(keyed);
  const third = evaluateToEnd(evaluator, sent(keyed, moved));
  expect(third.paths).toMatchObject([{ id: 'a', length: expect.closeTo(18, 9) }]);
  expect(third.riders.map(({ id }) => id)).toEqual(['ra', 'load']);
});

it('what only names or colours a thing evaluates nothing', () => {
  const far = placeKey('rb', 1, 40, 99)(shot);
  const evaluator = new Evaluator();
  evaluateToEnd(evaluator, sent(null, far));
  const mark = { id: 'm', name: 'Gate', distance: 3 };
  const renamed: Shot = {
    ...far,
    name: 'Other',
    paths: far.paths.map((path) => ({ ...path, name: `${path.name}!`, marks: [mark] })),
    riders: far.riders.map((rider) => ({ ...rider, name: 'N', badge: `${rider.id}!`, color: 3 })),
  };
  const update = evaluateToEnd(evaluator, sent(far, renamed));
  expect([update.paths, update.riders]).toEqual([[], []]);
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
  evaluateToEnd(evaluator, sent(null, bend(49)));
  const slower = evaluateToEnd(evaluator, sent(bend(49), bend(30)));
  expect(slower.riders.map(({ id }) => id)).toEqual(['rb']);
  const named = { ...bend(30), retimes: bend(30).retimes.map((retime) => ({ ...retime, name: 'Slow' })) };
  expect(evaluateToEnd(evaluator, sent(bend(30), named)).riders).toEqual([]);
});

it('an update put over what was known is the whole, without what is gone', () => {
  const evaluator = new Evaluator();
  const before = withUpdate(null, evaluateToEnd(evaluator, sent(null, shot)), shot);
  const fewer = { ...shot, riders: shot.riders.slice(0, 1), paths: shot.paths.slice(0, 1) };
  const after = withUpdate(before, evaluateToEnd(evaluator, sent(shot, fewer)), fewer);
  expect([...after.paths.keys()]).toEqual(['a']);
  expect([...after.riders.keys()]).toEqual(['ra']);
  expect(after.riders.get('ra')).toBe(before.riders.get('ra'));
});

it('another range or rate samples every rider anew', () => {
  const evaluator = new Evaluator();
  evaluateToEnd(evaluator, sent(null, shot));
  const longer = { ...shot, range: { first: 1, last: 97 } };
  const update = evaluateToEnd(evaluator, sent(shot, longer));
  expect(update.paths).toEqual([]);
  expect(update.riders.map(({ poses }) => poses.length / POSE.size)).toEqual([97, 97, 97]);
});

it('between frames a pose is read on the way from one to the next', () => {
  const evaluation = withUpdate(null, evaluateToEnd(new Evaluator(), sent(null, shot)), shot);
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
        trigger: { kind: 'distance', rider: 'ra' },
        action: { kind: 'move', rider: 'load', node: 'lid', axis: '+y' },
        keys: [
          { at: 0, value: 0, ease: 'linear' },
          { at: 12, value: 0.6 },
        ],
      },
    ],
  });
  const evaluator = new Evaluator();
  const first = evaluateToEnd(evaluator, sent(null, cued));
  const lid = first.riders.find(({ id }) => id === 'load')?.gauges[0];
  // 12 m in 48 frames: half-way at frame 25.
  expect(lid).toMatchObject({ kind: 'cue', part: 'lid' });
  expect(lid?.values[24]).toBeCloseTo(0.3, 9);
  const slower = placeKey('ra', 1, 49, 0.5)(cued);
  const second = evaluateToEnd(evaluator, sent(cued, slower));
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
  evaluateToEnd(evaluator, sent(null, shot));
  const all = evaluateToEnd(evaluator, sent(shot, slow));
  expect(all.riders.map(({ id }) => id)).toEqual(['ra', 'rb', 'load']);
  // At the last frame the work is half-way.
  expect(all.riders[0].poses[48 * POSE.size + POSE.distance]).toBeCloseTo(6, 9);
  const edited = placeKey('rb', 1, 40, 1)(slow);
  expect(evaluateToEnd(evaluator, sent(slow, edited)).riders.map(({ id }) => id)).toEqual(['rb']);
});

describe('in slices', () => {
  const slices = (evaluator: Evaluator): EvaluationUpdate[] => {
    const all: EvaluationUpdate[] = [];
    do all.push(evaluator.next(0));
    while (all[all.length - 1].end === null);
    return all;
  };

  const together = (updates: readonly EvaluationUpdate[], before: Evaluation | null = null) =>
    updates.reduce((sum, update) => withUpdate(sum, update, shot), before) as Evaluation;

  it('what is looked at comes first: curves, where riders are at this frame, the chosen rider, the others', () => {
    const evaluator = new Evaluator();
    evaluator.begin(sent(null, shot), focus);
    const all = slices(evaluator);
    const order = all.flatMap(({ paths, now, riders, end }) => [
      ...paths.map(({ id }) => `path ${id}`),
      ...[...now.poses.keys()].map((id) => `now ${id}`),
      ...riders.map(({ id }) => id),
      ...(end ? ['end'] : []),
    ]);
    expect(order).toEqual(['path a', 'path b', 'now rb', 'now ra', 'now load', 'rb', 'ra', 'load', 'end']);
    // At frame 25 of 49 it is half-way along its 12 m, before its samples are known.
    const early = together(all.slice(0, 5));
    expect(early.riders.size).toBe(0);
    expect(early.now?.poses.get('rb')?.[POSE.distance]).toBeCloseTo(6, 12);
  });

  it('the pose at this frame stands for older samples until the new ones come', () => {
    const evaluator = new Evaluator();
    const before = withUpdate(null, evaluateToEnd(evaluator, sent(null, shot)), shot);
    evaluator.begin(sent(shot, movePathPoints('b', new Set([1]), [0, 0, 12], 0)(shot)), focus);
    const all = slices(evaluator);
    const told = all.findIndex(({ now }) => now.poses.has('rb'));
    const out = new Float64Array(POSE.size);
    const at = (evaluation: typeof before, frame: number) => {
      const rider = evaluation.riders.get('rb');
      if (rider) poseAt(evaluation, rider, frame, out);
      return out[2];
    };
    const early = together(all.slice(0, told + 1), before);
    expect([at(early, 25), at(early, 49)]).toEqual([expect.closeTo(12, 9), expect.closeTo(12, 9)]);
    const settled = together(all, before);
    expect([at(settled, 25), at(settled, 49)]).toEqual([expect.closeTo(12, 9), expect.closeTo(24, 9)]);
    expect(settled.now?.poses.size).toBe(0);
  });

  it('a newer shot takes over; what was finished is kept, what was not is done', () => {
    const evaluator = new Evaluator();
    evaluator.begin(sent(null, shot), focus);
    const told: EvaluationUpdate[] = [];
    do told.push(evaluator.next(0));
    while (told[told.length - 1].riders.length === 0);
    const moved = movePathPoints('a', new Set([1]), [0, 0, 6], 0)(shot);
    const rest = evaluateToEnd(evaluator, sent(shot, moved));
    expect(rest.riders.map(({ id }) => id)).toEqual(['ra', 'load']);
    const evaluation = withEnds(together([...told, rest]), [rest.end]);
    expect([...evaluation.riders.keys()]).toEqual(['ra', 'rb', 'load']);
    expect(evaluation.now).toBeNull();
  });

  it('shared among workers, riders that wait for each other stay together and none is left out', () => {
    const parts = [0, 1].map((lane) => {
      const evaluator = new Evaluator();
      evaluator.begin(sent(null, shot), focus, {
        leads: lane === 0,
        riders: shares(shot.riders, shot.cues, 2)[lane],
      });
      return evaluator.next(Infinity);
    });
    expect(parts.map(({ riders }) => riders.map(({ id }) => id))).toEqual([['ra', 'load'], ['rb']]);
    expect(parts.map(({ paths }) => paths.length)).toEqual([2, 0]);
    const [whole] = [evaluateToEnd(new Evaluator(), sent(null, shot))];
    for (const { id, poses } of parts.flatMap(({ riders }) => riders))
      expect(poses).toEqual(whole.riders.find((rider) => rider.id === id)?.poses);
  });
});

it('does an edit that asks where something is to a shot that was not evaluated, and tells why one cannot be done', () => {
  const evaluator = new Evaluator();
  evaluateToEnd(evaluator, sent(null, shot));
  const moved = movePathPoints('a', new Set([0, 1]), [0, 3, 0], 0)(shot);
  // Half-way along 12 m, and 3 m up.
  const detached = structuredClone(evaluator.edited(moved, 'detachHere', [['ra'], 25]));
  if (!('delta' in detached)) throw new Error('It was refused.');
  const after = decodeDelta(moved, detached.delta);
  expect(after.riders[0].attachment).toBeNull();
  expect(after.riders[0].rest.translation).toEqual([0, 3, 6].map((value) => expect.closeTo(value, 9)));
  // An unchanged object is the very same on the page.
  expect(after.riders[1]).toBe(moved.riders[1]);
  const held = structuredClone(evaluator.edited(shot, 'holdDistance', ['ra', 'rb', 25]));
  expect(held).toMatchObject({ told: { distance: expect.closeTo(5, 9) } });
  const refused = structuredClone(evaluator.edited(shot, 'holdDistance', ['load', 'rb', 25]));
  expect(refused).toEqual({
    refused: ['riders[2].attachment', 'no path that could hold a distance', 'a rider on a path'],
  });
});
