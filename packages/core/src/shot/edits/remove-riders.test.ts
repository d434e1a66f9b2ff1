import { newShot } from '../../document/new-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { removeRider } from './remove-riders.js';

it('removes every mention of a deleted rider, and leaves a document that is accepted', () => {
  const shot = newShot({
    name: 't',
    riders: [
      {
        id: 'a',
        name: 'A',
        parentKeys: [
          { frame: 5, rider: 'b' },
          { frame: 9, rider: 'c' },
          { frame: 12, rider: null },
        ],
        follow: { rider: 'd' },
        restAim: { target: { rider: 'b' } },
      },
      ...['b', 'c', 'd'].map((id) => ({ id, name: id })),
    ],
  });
  const left = removeRider(removeRider(shot, NO_ASSETS, 'b', 1), NO_ASSETS, 'd', 1);
  const [rider] = left.riders;
  expect(rider.parentKeys.map((key) => key.rider)).toEqual(['c', null]);
  expect([rider.follow, rider.restAim]).toEqual([null, null]);
  expect(parseShot(JSON.parse(JSON.stringify(left)))).toEqual(left);
});
