import { newShot, type Shot } from '@fleet-rail/core';
import { renamePath } from '../../edits/path-edits';
import { decodeDelta, encodeDelta } from './shot-delta';

const shot = newShot({
  name: 't',
  paths: ['a', 'b', 'c'].map((id) => ({ id, name: id })),
  riders: ['r', 's'].map((id) => ({ id, name: id })),
});

it('what did not change travels as its id, and is the very same object on the other side', () => {
  const there = decodeDelta(null, structuredClone(encodeDelta(null, shot)));
  const renamed = renamePath('b', 'B')(shot);
  const delta = structuredClone(encodeDelta(shot, renamed));
  expect(delta.paths).toEqual([{ same: 'a' }, { of: 'b', fields: { name: 'B' } }, { same: 'c' }]);
  const after = decodeDelta(there, delta);
  expect(after).toEqual(renamed);
  expect(after.paths[0]).toBe(there.paths[0]);
  expect(after.paths[1].points).toBe(there.paths[1].points);
  expect(after.riders[1]).toBe(there.riders[1]);
});

it('order, additions and removals come across', () => {
  const there = decodeDelta(null, structuredClone(encodeDelta(null, shot)));
  const [a, b, c] = shot.paths;
  const next: Shot = { ...shot, fps: 30, paths: [c, { ...b, id: 'd' }, a], riders: [shot.riders[1]] };
  expect(decodeDelta(there, structuredClone(encodeDelta(shot, next)))).toEqual(next);
});

it('an id the other side never saw is an error, not a guess', () => {
  expect(() => decodeDelta(null, encodeDelta(shot, shot))).toThrow('does not know "a"');
});
