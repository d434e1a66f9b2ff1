import { compilePath, newAttachment, newShot, parseShot, type Shot, type Vec3 } from '@fleet-rail/core';
import { groundHeightOf } from '../scene-assets/ground-height';
import type { Operation } from './operation';
import { previewOperation, scopeOf, withPreview } from './preview';

const range = { first: 1, last: 49 };
const places = (...list: Vec3[]) => list.map((position) => ({ position }));
const shot = newShot({
  name: 't',
  range,
  paths: [
    { id: 'a', name: 'A', basis: 'through', points: places([0, 0, 0], [4, 0, 6], [0, 0, 12], [0, 2, 20]) },
    { id: 'b', name: 'B', basis: 'polyline', points: places([0, 0, 30], [0, 0, 40]) },
    { id: 'c', name: 'A lane', basis: 'polyline', points: places([9, 0, 0], [9, 0, 40]) },
    {
      id: 'round',
      name: 'Round',
      basis: 'bspline',
      closed: true,
      points: places([0, 0, 0], [9, 0, 0], [9, 0, 9]),
    },
  ],
  riders: ['a', 'b', 'c'].map((id) => ({ id: `on-${id}`, name: id, attachment: newAttachment(id, range) })),
});

/** Through structured clones, as between page and worker. */
function done(operation: Operation): Shot {
  const scope = structuredClone(scopeOf(shot, operation));
  const preview = structuredClone(previewOperation(scope, structuredClone(operation), groundHeightOf(null)));
  return withPreview(shot, operation, preview);
}

const all: Operation[] = [
  { kind: 'smooth', path: 'a', strength: 0.4 },
  { kind: 'thin', path: 'a', tolerance: 0.1 },
  { kind: 'resample', path: 'a', count: 9 },
  { kind: 'basis', path: 'a', basis: 'nurbs', tolerance: 0.1 },
  { kind: 'move', path: 'a', points: [], by: [1, 2, 3], turnDeg: 30, tiltDeg: 10, scale: 2 },
  { kind: 'move', path: 'a', points: [1, 2], by: [1, 2, 3], turnDeg: 0, tiltDeg: 0, scale: 1 },
  { kind: 'lift', path: 'a', points: [], height: 2 },
  { kind: 'level', path: 'a', height: 1 },
  { kind: 'drape', path: 'a', height: 0.5, tolerance: 0.01 },
  { kind: 'mirror', path: 'a', axis: 0, at: 3, copy: false },
  { kind: 'mirror', path: 'a', axis: 2, at: 3, copy: true },
  { kind: 'offset', path: 'a', side: -1, tolerance: 0.01, copy: true },
  { kind: 'reverse', path: 'a', turnRiders: false },
  { kind: 'reverse', path: 'a', turnRiders: true },
  { kind: 'first', path: 'round', index: 1, startRiders: false },
  { kind: 'open', path: 'round', at: 3 },
  { kind: 'unlink', path: 'round' },
  { kind: 'close', path: 'a', bridge: true, tension: 1 },
  { kind: 'close', path: 'a', bridge: false, tension: 1 },
  { kind: 'split', path: 'a', at: 8 },
  { kind: 'join', path: 'a', other: 'b', ends: { first: 'end', second: 'start' }, tension: 1 },
  { kind: 'transform', path: 'a' },
];

it.each(all)('$kind gives a document that the server accepts, and leaves the rest alone', (operation) => {
  const after = done(operation);
  expect(parseShot(JSON.parse(JSON.stringify(after)))).toEqual(after);
  expect(after.paths.find(({ id }) => id === 'c')).toBe(shot.paths[2]);
  expect(after.riders.find(({ id }) => id === 'on-c')).toBe(shot.riders[2]);
  expect(after.riders.map(({ id }) => id)).toEqual(shot.riders.map(({ id }) => id));
});

it('a copy takes a name and an id that are free', () => {
  const after = done({ kind: 'offset', path: 'a', side: 1, tolerance: 0.01, copy: true });
  expect(after.paths.map(({ name }) => name)).toEqual(['A', 'B', 'A lane', 'Round', 'A lane 2']);
  expect(new Set(after.paths.map(({ id }) => id)).size).toBe(5);
});

it('a join takes the riders of both paths along', () => {
  const after = done({
    kind: 'join',
    path: 'a',
    other: 'b',
    ends: { first: 'end', second: 'start' },
    tension: 1,
  });
  expect(after.riders.map((rider) => rider.attachment?.path)).toEqual(['a', 'a', 'c']);
});

it('tells points, length and how far a near result is from the path', () => {
  const thin = previewOperation(shot, { kind: 'thin', path: 'a', tolerance: 0.05 }, groundHeightOf(null));
  expect(thin.pointsBefore).toBe(4);
  expect(thin.pointsAfter).toBe(thin.positions.length);
  expect(thin.deviation).toBeLessThan(0.055);
  expect(thin.length).toBeCloseTo(compilePath(thin.paths[0]).length, 9);
  const lifted = previewOperation(
    shot,
    { kind: 'lift', path: 'a', points: [], height: 3 },
    groundHeightOf(null),
  );
  expect(lifted.deviation).toBeNull();
  expect(lifted.lines[0][1]).toBeCloseTo(3, 5);
});

it('turned to the left about its middle, +Z becomes +X; tilted, its far end is up', () => {
  const line = newShot({
    name: 't',
    paths: [{ id: 'l', name: 'L', basis: 'polyline', points: places([0, 0, -5], [0, 0, 5]) }],
  });
  const turned = previewOperation(
    line,
    { kind: 'move', path: 'l', points: [], by: [0, 0, 0], turnDeg: 90, tiltDeg: 0, scale: 1 },
    groundHeightOf(null),
  );
  turned.positions[1].forEach((value, k) => expect(value).toBeCloseTo([5, 0, 0][k], 9));
  const tilted = previewOperation(
    line,
    { kind: 'move', path: 'l', points: [], by: [0, 0, 0], turnDeg: 0, tiltDeg: 90, scale: 1 },
    groundHeightOf(null),
  );
  tilted.positions[1].forEach((value, k) => expect(value).toBeCloseTo([0, 5, 0][k], 9));
});
