import { newShot } from '../../document/new-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Dressing } from '../../document/shot-dressing.js';
import type { Shot } from '../../document/shot.js';
import { PIECE } from '../../effects/dressing/place-pieces.js';
import { placedDressings } from '../../effects/dressing/placed-dressings.js';
import { reshapeRiddenPath } from './keep-places.js';
import {
  beginRiddenPathAt,
  joinRiddenPaths,
  reverseRiddenPath,
  splitRiddenPath,
} from './change-ridden-path.js';

const line = (id: string, z: number) => ({
  id,
  name: id,
  basis: 'polyline',
  points: [0, 10, 20].map((x) => ({ position: [x, 0, z] })),
});
const ring = {
  id: 'ring',
  name: 'Ring',
  basis: 'polyline',
  closed: true,
  points: [
    [0, 0, 0],
    [10, 0, 0],
    [10, 0, 10],
    [0, 0, 10],
  ].map((position) => ({ position })),
};
const shotOf = (paths: object[], ...laid: Partial<Dressing>[]): Shot =>
  parseShot({
    ...newShot({ name: 't' }),
    paths,
    dressing: laid.map((one, i) => ({ id: `l${i}`, name: `Posts ${i}`, path: 'a', every: 2, ...one })),
  });

/** Positions of all pieces of a shot, in no order. */
const places = (shot: Shot) =>
  new Set(
    placedDressings(shot, null).flatMap(({ pieces }) =>
      Array.from({ length: pieces?.count ?? 0 }, (_, i) =>
        [0, 1, 2].map((k) => ((pieces?.places[PIECE.numbers * i + k] ?? NaN) + 0).toFixed(6)).join(),
      ),
    ),
  );

it('a path that is reversed keeps its posts where they are, on the same side', () => {
  const shot = shotOf([line('a', 0)], { from: 4, to: 12, offset: { side: 1.5, rise: 0.2 } });
  expect(places(shot).size).toBe(5);
  expect(places(reverseRiddenPath(shot, 'a'))).toEqual(places(shot));
  const whole = shotOf([line('a', 0)], {});
  expect(reverseRiddenPath(whole, 'a').dressing[0]).toMatchObject({ from: 0, to: null });
});

it('a closed path that begins elsewhere keeps them too', () => {
  const shot = shotOf([ring], { path: 'ring', from: 25, to: 35 });
  const begun = beginRiddenPathAt(shot, 'ring', 2);
  expect(begun.dressing[0]).toMatchObject({ from: 5, to: 15 });
  expect(places(begun)).toEqual(places(shot));
});

it('cut in two, what lay over the cut lies on both parts', () => {
  const shot = shotOf([line('a', 0)], {}, { from: 0, to: 6 }, { from: 16, to: null });
  const { shot: after, secondId } = splitRiddenPath(shot, 'a', 10);
  expect(after.dressing.map(({ path, from, to }) => [path, from, to])).toEqual([
    ['a', 0, null],
    [secondId, 0, null],
    ['a', 0, 6],
    [secondId, 6, null],
  ]);
  expect(places(after)).toEqual(places(shot));
  expect(parseShot(after)).toEqual(after);
});

it('joined, what lay on the second lies on beyond the first', () => {
  const shot = shotOf(
    [line('a', 0), { ...line('b', 0), points: [30, 40].map((x) => ({ position: [x, 0, 0] })) }],
    {},
    { path: 'b' },
  );
  const after = joinRiddenPaths(shot, 'a', 'b', { first: 'end', second: 'start' });
  expect(after.dressing.map(({ path }) => path)).toEqual(['a', 'a']);
  expect(places(after)).toEqual(places(shot));
});

it('a point that is moved takes the ends along to the nearest places', () => {
  const shot = shotOf([line('a', 0)], { from: 10, to: null });
  const points = shot.paths[0].points.map((point, i) =>
    i === 0 ? { ...point, position: [-5, 0, 0] as [number, number, number] } : point,
  );
  const after = reshapeRiddenPath(shot, { ...shot.paths[0], points });
  expect(after.dressing[0].from).toBeCloseTo(15, 6);
});
