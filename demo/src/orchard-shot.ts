import { newHitch, newShot, type Hitch, type Shot } from '@fleet-rail/core';
import { orchardPaths } from './paths.js';

const RANGE = { first: 1, last: 720 };

/** Once round the lane, set back along it by `along` metres. */
function onLane(along: number): Hitch {
  const hitch = newHitch('lane', RANGE);
  return { ...hitch, offset: { ...hitch.offset, along } };
}

/** Quillfen Orchard: the hauler and its trailers go once round the lane; the kestrel circles above. */
export function orchardShot(): Shot {
  const models = ['orchard', 'hauler', 'trailer', 'kestrel', 'picker', 'drone', 'barrel'].map((id) => {
    return { id, name: id[0].toUpperCase() + id.slice(1), source: { file: `${id}.glb` } };
  });
  return newShot({
    name: 'Orchard loop',
    fps: 24,
    range: RANGE,
    loop: true,
    paths: orchardPaths(),
    models,
    riders: [
      {
        id: 'hauler',
        name: 'Hauler',
        kind: 'vehicle',
        model: 'hauler',
        badge: 'H1',
        color: 0,
        hitch: onLane(0),
      },
      {
        id: 'trailer-1',
        name: 'First trailer',
        kind: 'vehicle',
        model: 'trailer',
        badge: 'T2',
        color: 1,
        hitch: onLane(-3.1),
      },
      {
        id: 'trailer-2',
        name: 'Second trailer',
        kind: 'vehicle',
        model: 'trailer',
        badge: 'T3',
        color: 2,
        hitch: onLane(-6.4),
      },
      {
        id: 'kestrel',
        name: 'Kestrel',
        kind: 'creature',
        model: 'kestrel',
        badge: 'K4',
        color: 3,
        hitch: newHitch('sky', RANGE),
      },
    ],
    ground: { model: 'orchard' },
  });
}
