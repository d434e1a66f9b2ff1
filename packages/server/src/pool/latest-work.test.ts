import { newShot } from '@fleet-rail/core/shots';
import { latestWork } from './latest-work.js';

const path = { id: 'p', name: 'P', points: [{ position: [0, 0, 0] }, { position: [0, 0, 9] }] };
const wish = { file: 'png', every: 2 };

it('gives a renderer the shot of a waiting job in the latest version, and all else as it was', () => {
  const riders = [{ id: 'r', name: 'R', hitch: { path: 'p', follows: null } }];
  const shot = { format: 'fleet-rail-shot', version: 1, name: 'Waiting', paths: [path], riders };
  expect(JSON.parse(latestWork(JSON.stringify({ shot, wish })))).toEqual({
    shot: JSON.parse(
      JSON.stringify(
        newShot({
          name: 'Waiting',
          paths: [path],
          riders: [{ id: 'r', name: 'R', attachment: { path: 'p' } }],
        }),
      ),
    ),
    wish,
  });
});

it('hands the work of a job of the latest version on as it is stored', () => {
  const work = JSON.stringify({ shot: newShot({ name: 'New' }), wish });
  expect(latestWork(work)).toBe(work);
});
