import { newShot } from '@fleet-rail/core';
import { keyFrom } from './key-frames';

const shot = newShot({
  name: 't',
  range: { first: 1, last: 97 },
  riders: [
    {
      id: 'a',
      name: 'A',
      transformKeys: { keys: [1, 25, 49].map((frame) => ({ frame, translation: [frame, 0, 0] })) },
      parentKeys: [{ frame: 60, rider: 'b' }],
    },
    { id: 'b', name: 'B', badge: 'B2' },
  ],
});
const at = (frame: number, riderId: string | null = 'a') => ({ shot, riderId, evaluation: null, frame });

it('goes to the key before and to the next, and stays where there is none', () => {
  expect([keyFrom(at(10), 1), keyFrom(at(25), 1), keyFrom(at(49), 1), keyFrom(at(60), 1)]).toEqual([
    25, 49, 60, 60,
  ]);
  expect([keyFrom(at(60), -1), keyFrom(at(25), -1), keyFrom(at(1), -1)]).toEqual([49, 1, 1]);
  expect([keyFrom(at(10, 'b'), 1), keyFrom(at(10, null), -1)]).toEqual([10, 10]);
});
