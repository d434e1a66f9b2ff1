import { newShot } from '../../document/new-shot.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';

function pathThrough(
  points: Vec3[],
  closed = false,
  basis: 'through' | 'polyline' = 'through',
): CompiledPath {
  const shot = newShot({
    name: 't',
    paths: [{ id: 'p', name: 'P', basis, closed, points: points.map((position) => ({ position })) }],
  });
  return compilePath(shot.paths[0]);
}

function frameAt(path: CompiledPath, s: number) {
  const out = new Float64Array(12);
  path.frame(s, out, 0);
  // Adding 0 makes −0 a plain 0.
  const [left, up, forward] = [3, 6, 9].map((at) => [...out.subarray(at, at + 3)].map((value) => value + 0));
  return { left, up, forward };
}
const dot = (a: number[], b: number[]) => a.reduce((sum, value, k) => sum + value * b[k], 0);

/** The largest turn of the left vector from one of n even places to the next, degrees. */
function largestTurn(path: CompiledPath, n = 4000): number {
  let most = 0;
  for (let i = 0; i < n; i++) {
    const a = frameAt(path, (path.length * i) / n).left;
    const b = frameAt(path, (path.length * (i + 1)) / n).left;
    most = Math.max(most, (Math.acos(Math.min(1, dot(a, b))) * 180) / Math.PI);
  }
  return most;
}

it('on the level, left of +Z is +X and up is up', () => {
  const { left, up, forward } = frameAt(
    pathThrough(
      [
        [0, 0, 0],
        [0, 0, 5],
      ],
      false,
      'polyline',
    ),
    2,
  );
  expect(left).toEqual([1, 0, 0]);
  expect(up).toEqual([0, 1, 0]);
  expect(forward).toEqual([0, 0, 1]);
});

it('is square and right-handed everywhere on a winding path', () => {
  const path = pathThrough(
    [
      [0, 0, 0],
      [4, 3, 2],
      [5, -2, 9],
      [-2, 6, 11],
      [-8, 1, 0],
    ],
    true,
  );
  for (let s = 0; s < path.length; s += 0.37) {
    const { left, up, forward } = frameAt(path, s);
    expect(dot(left, up)).toBeCloseTo(0, 12);
    expect(dot(left, forward)).toBeCloseTo(0, 12);
    expect(dot(up, up)).toBeCloseTo(1, 12);
    expect(left[1]).toBeCloseTo(0, 12);
    const cross = [1, 2, 0].map((a, k) => left[a] * up[(k + 2) % 3] - left[(k + 2) % 3] * up[a]);
    expect(dot(cross, forward)).toBeCloseTo(1, 12);
  }
});

it('goes over the top of a loop without a flip', () => {
  const loop = Array.from({ length: 24 }, (_, i): Vec3 => {
    const a = (2 * Math.PI * i) / 24;
    return [0, 10 - 10 * Math.cos(a), 10 * Math.sin(a)];
  });
  const path = pathThrough(loop, true);
  expect(largestTurn(path)).toBeLessThan(1);
  // At the top the rider hangs head down, its left still the same side.
  const top = frameAt(path, path.length / 2);
  expect(top.up[1]).toBeCloseTo(-1, 6);
  expect(top.left[0]).toBeCloseTo(1, 6);
});

it('carries its frame up a vertical stretch between level ones', () => {
  const path = pathThrough(
    [
      [0, 0, 0],
      [0, 0, 10],
      [0, 10, 10],
      [0, 10, 20],
    ],
    false,
    'polyline',
  );
  for (let s = 0.5; s < path.length; s += 0.5) expect(frameAt(path, s).left[0]).toBeCloseTo(1, 9);
});

it('turns evenly where the way out of the vertical is another than the way in', () => {
  const path = pathThrough(
    [
      [0, 0, 0],
      [0, 0, 10],
      [0, 10, 10],
      [10, 10, 10],
    ],
    false,
    'polyline',
  );
  expect(frameAt(path, 9).left[0]).toBeCloseTo(1, 9);
  expect(frameAt(path, 25).left[2]).toBeCloseTo(-1, 9);
  const halfway = frameAt(path, 15).left;
  expect(halfway[0]).toBeCloseTo(Math.SQRT1_2, 1);
  expect(halfway[2]).toBeCloseTo(-Math.SQRT1_2, 1);
});

it('a path that is vertical from the start takes its side from where it first runs level', () => {
  const path = pathThrough(
    [
      [0, 0, 0],
      [0, 10, 0],
      [0, 10, 10],
    ],
    false,
    'polyline',
  );
  expect(frameAt(path, 3).left[0]).toBeCloseTo(1, 9);
});

it('a wholly vertical path has a frame all the same', () => {
  const path = pathThrough(
    [
      [0, 0, 0],
      [0, 10, 0],
    ],
    false,
    'polyline',
  );
  const { left, up, forward } = frameAt(path, 4);
  expect(dot(left, forward)).toBeCloseTo(0, 12);
  expect(dot(up, up)).toBeCloseTo(1, 12);
});
