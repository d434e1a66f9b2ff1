import {
  PathError,
  beginAtPlace,
  compiledPathOf,
  defaultsOf,
  formUp,
  hangString,
  newHitch,
  newShot,
  topSpeedFor,
  Camera,
  type Chassis,
  type Hitch,
  type Pace,
  type Shot,
} from '@fleet-rail/core';
import { readModel } from '@fleet-rail/core/formats';
import type { ModelBuilder } from './model-builder.js';
import { makeHauler, makeTrailer } from './models/hauler.js';
import { orchardPaths } from './paths.js';

const RANGE = { first: 1, last: 1080 };

/** Where the axles and couplings of a model are, read from the model itself. */
async function chassisOf(model: ModelBuilder, file: string): Promise<Chassis | null> {
  return (await readModel(await model.glb(), file)).facts.facing.chassis;
}

/** A camera 7 m above the lane and 13 m behind whom it looks at, which it keeps a little below the middle. */
function overLane(): Hitch {
  const hitch = newHitch('lane', RANGE);
  return {
    ...hitch,
    pacedBy: { rider: 'hauler', delay: 0, rate: 1 },
    offset: { ...hitch.offset, along: -13, rise: 7 },
    facing: {
      ...hitch.facing,
      mode: 'aim',
      target: { rider: 'hauler', node: 'body', at: [0, 1.2, 1] },
      aim: { ...hitch.facing.aim, deadZone: 1.5, damping: 0.6 },
    },
  };
}

/** The hauler driven once round the lane in the shot's time: it halts at the rows to load and at the barn to unload. */
function drivenRound(paths: Shot['paths']): Hitch {
  const lane = paths.find(({ id }) => id === 'lane') as Shot['paths'][number];
  const curve = compiledPathOf(lane);
  if (curve instanceof PathError) throw curve;
  const hitch = newHitch('lane', RANGE);
  const seconds = { rows: 2, barn: 3 } as Readonly<Record<string, number>>;
  const pace: Pace = {
    ...hitch.pace,
    mode: 'drive',
    unit: 'metres',
    keys: [],
    drive: {
      ...hitch.pace.drive,
      accelerate: 2.5,
      brake: 3,
      sideways: 6,
      jerk: 5,
      departs: 'rolling',
      stops: lane.marks.map(({ id, distance }) => ({ distance, seconds: seconds[id] })),
    },
    start: { frame: RANGE.first, value: curve.length / 4 },
  };
  const top = topSpeedFor(pace, curve, 1, (RANGE.last - RANGE.first + 1) / 24);
  if (top === null) throw new Error('The hauler cannot get round the lane in the time of the shot.');
  return { ...hitch, pace: { ...pace, drive: { ...pace.drive, top } } };
}

/**
 * Quillfen Orchard: the hauler pulls two trailers once round the lane, over and under the footbridge, and the barn's gate
 * opens as it comes near; a drone
 * follows above and keeps it in its picture; a flight of five kestrels banks round its loop.
 */
export async function orchardShot(): Promise<Shot> {
  const models = ['orchard', 'hauler', 'trailer', 'kestrel', 'picker', 'drone', 'barrel', 'gate'].map(
    (id) => {
      return { id, name: id[0].toUpperCase() + id.slice(1), source: { file: `${id}.glb` } };
    },
  );
  const trailer = await chassisOf(makeTrailer(), 'trailer.glb');
  // A lap ends on the frame after the last, which is the first again.
  const once = newHitch('sky', { first: RANGE.first, last: RANGE.last + 1 });
  const sky: Hitch = {
    ...once,
    // Between two points of the loop: at one, a curve through points bends otherwise all at once.
    pace: { ...beginAtPlace(once.pace, RANGE.first, 0.05), before: 'accumulate', after: 'accumulate' },
  };
  const paths = orchardPaths();
  const shot = newShot({
    name: 'Orchard loop',
    fps: 24,
    range: RANGE,
    loop: true,
    paths,
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
        hitch: drivenRound(paths),
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
      {
        id: 'gate',
        name: 'Barn gate',
        kind: 'prop',
        model: 'gate',
        badge: 'G10',
        color: 5,
        rest: { translation: [45, 0, 0] },
      },
    ],
    cues: (['left', 'right'] as const).map((side) => ({
      id: `gate-${side}`,
      name: `Gate, ${side} leaf`,
      on: { kind: 'gap', rider: 'hauler', other: 'gate' },
      does: { kind: 'turn', rider: 'gate', node: `gate_${side}`, axis: side === 'left' ? '+y' : '-y' },
      // Wide open while the hauler is at the barn, 13 m from the gate's middle.
      keys: [
        { at: 14, value: 95, ease: 'smooth' },
        { at: 24, value: 0 },
      ],
    })),
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
