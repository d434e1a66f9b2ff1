import {
  RigidBody,
  compiledPathOf,
  defaultsOf,
  newShot,
  relay,
  PathError,
  type Shot,
  type ShotPath,
  type Vec3,
} from '@fleet-rail/core';
import { orchardPaths } from './paths.js';

/** How long one barrel is on its way, frames, and how many are on each chute. */
const [FRAMES, BARRELS] = [96, 4];
/** Distance of the loose chute from the other, metres to the side. */
const ASIDE = -2.1;

/**
 * Barrels that come down two chutes for ever, each ride of four seconds as a relay of four, a loop of one second: on the one they
 * are timed and roll by the distance, on the other they roll loose, pulled along by forces.
 */
export function barrelsShot(): Shot {
  const chute = orchardPaths().find(({ id }) => id === 'chute') as ShotPath;
  const loose: ShotPath = {
    ...chute,
    id: 'loose',
    name: 'Loose chute',
    points: chute.points.map((point) => {
      const [x, y, z] = point.position;
      return { ...point, position: [x + ASIDE, y, z] as Vec3 };
    }),
  };
  const curve = compiledPathOf(chute);
  if (curve instanceof PathError) throw curve;
  const third = FRAMES / 3;
  const barrel = (id: string, path: string) => ({
    id,
    name: 'Barrel',
    kind: 'prop' as const,
    model: 'barrel',
    badge: 'B1',
    color: 5,
    // Its hoops are a little wider than its staves: it rolls on those.
    wheels: [{ node: 'barrel', radius: 0.353, axle: '+x' as const }],
    attachment: {
      path,
      // The path lies over the boards nearly as high as a barrel's middle does.
      offset: { rise: 0.027 },
      // From rest ever faster: s = ½ a t² as the handles of one stretch.
      pace: {
        keys: [
          { frame: 1, value: 0, ease: 'handles' as const, out: [third, 0] as [number, number] },
          {
            frame: 1 + FRAMES,
            value: curve.length,
            in: [-third, (-2 * curve.length) / 3] as [number, number],
          },
        ],
      },
    },
  });
  const shot = newShot({
    name: 'Barrels for ever',
    fps: 24,
    range: { first: 1, last: FRAMES },
    paths: [chute, loose],
    models: ['barrel', 'orchard'].map((id) => ({ id, name: id, source: { file: `${id}.glb` } })),
    riders: [
      barrel('barrel', 'chute'),
      {
        ...barrel('loose', 'loose'),
        name: 'Loose barrel',
        badge: 'L5',
        color: 1,
        wheels: [],
        rigidBody: { ...defaultsOf(RigidBody), shape: 'hull', size: 0.353, mass: 30, pull: 0.7, bounce: 0.1 },
      },
    ],
    ground: { model: 'orchard' },
  });
  return relay(relay(shot, 'barrel', BARRELS, null).shot, 'loose', BARRELS, null).shot;
}
