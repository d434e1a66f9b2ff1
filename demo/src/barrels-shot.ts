import { compiledPathOf, newShot, relay, PathError, type Shot } from '@fleet-rail/core';
import { orchardPaths } from './paths.js';

/** How long one barrel is on its way, frames, and how many are. */
const [FRAMES, BARRELS] = [96, 4];

/** Barrels that come down the chute for ever: one ride of four seconds as a relay of four, a loop of one second. */
export function barrelsShot(): Shot {
  const chute = orchardPaths().find(({ id }) => id === 'chute') as Shot['paths'][number];
  const curve = compiledPathOf(chute);
  if (curve instanceof PathError) throw curve;
  const third = FRAMES / 3;
  const shot = newShot({
    name: 'Barrels for ever',
    fps: 24,
    range: { first: 1, last: FRAMES },
    paths: [chute],
    models: ['barrel', 'orchard'].map((id) => ({ id, name: id, source: { file: `${id}.glb` } })),
    riders: [
      {
        id: 'barrel',
        name: 'Barrel',
        kind: 'prop',
        model: 'barrel',
        badge: 'B1',
        color: 5,
        // Its hoops are a little wider than its staves: it rolls on those.
        wheels: [{ node: 'barrel', radius: 0.353, axle: '+x' }],
        hitch: {
          path: 'chute',
          offset: { rise: 0.353 },
          // From rest ever faster: s = ½ a t² as the handles of one stretch.
          pace: {
            keys: [
              { frame: 1, value: 0, ease: 'handles', out: [third, 0] },
              { frame: 1 + FRAMES, value: curve.length, in: [-third, (-2 * curve.length) / 3] },
            ],
          },
        },
      },
    ],
    ground: { model: 'orchard' },
  });
  return relay(shot, 'barrel', BARRELS).shot;
}
