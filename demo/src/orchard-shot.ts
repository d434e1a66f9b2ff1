import {
  defaultsOf,
  formUp,
  hangString,
  newHitch,
  newShot,
  Camera,
  type Chassis,
  type Hitch,
  type Shot,
} from '@fleet-rail/core';
import { readModel } from '@fleet-rail/core/formats';
import type { ModelBuilder } from './model-builder.js';
import { makeHauler, makeTrailer } from './models/hauler.js';
import { orchardPaths } from './paths.js';

const RANGE = { first: 1, last: 720 };

/** Where the axles and couplings of a model are, read from the model itself. */
async function chassisOf(model: ModelBuilder, file: string): Promise<Chassis | null> {
  return (await readModel(await model.glb(), file)).facts.facing.chassis;
}

/** A camera 7 m above the lane and 13 m behind whom it looks at, which it keeps a little below the middle. */
function overLane(): Hitch {
  const hitch = newHitch('lane', RANGE);
  return {
    ...hitch,
    offset: { ...hitch.offset, along: -13, rise: 7 },
    facing: {
      ...hitch.facing,
      mode: 'aim',
      target: { rider: 'hauler', node: 'body', at: [0, 1.2, 1] },
      aim: { ...hitch.facing.aim, deadZone: 1.5, damping: 0.6 },
    },
  };
}

/**
 * Quillfen Orchard: the hauler pulls two trailers once round the lane, over and under the footbridge; a drone
 * follows above and keeps it in its picture; a flight of five kestrels banks round its loop.
 */
export async function orchardShot(): Promise<Shot> {
  const models = ['orchard', 'hauler', 'trailer', 'kestrel', 'picker', 'drone', 'barrel'].map((id) => {
    return { id, name: id[0].toUpperCase() + id.slice(1), source: { file: `${id}.glb` } };
  });
  const trailer = await chassisOf(makeTrailer(), 'trailer.glb');
  const sky = newHitch('sky', RANGE);
  const shot = newShot({
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
        chassis: await chassisOf(makeHauler(), 'hauler.glb'),
        hitch: newHitch('lane', RANGE),
      },
      {
        id: 'trailer-1',
        name: 'First trailer',
        kind: 'vehicle',
        model: 'trailer',
        badge: 'T2',
        color: 1,
        chassis: trailer,
      },
      {
        id: 'trailer-2',
        name: 'Second trailer',
        kind: 'vehicle',
        model: 'trailer',
        badge: 'T3',
        color: 2,
        chassis: trailer,
      },
      {
        id: 'kestrel',
        name: 'Kestrel',
        kind: 'creature',
        model: 'kestrel',
        badge: 'K4',
        color: 3,
        hitch: { ...sky, bank: { ...sky.bank, mode: 'physical', amount: 2, limit: 70, window: 8 } },
      },
      {
        id: 'drone',
        name: 'Drone',
        kind: 'camera',
        model: 'drone',
        badge: 'C5',
        color: 4,
        camera: { ...defaultsOf(Camera), framing: [0, -0.2] },
        hitch: overLane(),
      },
    ],
    ground: { model: 'orchard' },
    cuts: [{ frame: 1, camera: 'drone' }],
  });
  const first = hangString(shot, 'hauler', { unit: 'trailer-1', count: 1, gap: 0.05 }).shot;
  const both = hangString(first, 'hauler', { unit: 'trailer-2', count: 1, gap: 0.05 }).shot;
  return formUp(both, 'kestrel', {
    count: 4,
    arrangement: 'wedge',
    spacing: 2.4,
    delay: 0,
    step: [0, 0, 0],
    turn: 0,
    seed: 11,
    // In one time and at one speed, so that the loop closes.
    vary: { place: 0.8, time: 0, speed: 0, amplitude: 0.3 },
  }).shot;
}
