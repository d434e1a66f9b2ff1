import {
  NO_SHAPES,
  PathError,
  startPaceAt,
  closingsOf,
  compiledPathOf,
  defaultsOf,
  evaluateShot,
  formUp,
  hangString,
  isOpen,
  newAttachment,
  newShot,
  topSpeedFor,
  naturalStops,
  seamReport,
  Camera,
  Cycle,
  Emitter,
  Gait,
  Attachment,
  Dressing,
  READY_PROFILES,
  READY_SPRAYS,
  Rider,
  type GroundContact,
  type Pace,
  type SceneAssets,
  type Shot,
} from '@fleet-rail/core';
import { assetsOf, readModel, type ModelFacts } from '@fleet-rail/core/formats';
import type { ModelBuilder } from './model-builder.js';
import { makeCatalogue, makeDemoModels } from './models/index.js';
import { makeHauler, makeTrailer } from './models/hauler.js';
import { makePicker } from './models/picker.js';
import { orchardPaths } from './paths.js';

const RANGE = { first: 1, last: 1080 };

/** Facts read from a model itself: axles, wheels, steering, body, walks. */
async function factsOf(model: ModelBuilder, file: string): Promise<ModelFacts> {
  return (await readModel(await model.glb(), file)).facts;
}

/** A vehicle with all that was found in its model: it rolls, steers and leans. */
function rigged({ facing, rig }: ModelFacts): Pick<Rider, 'chassis' | 'wheels' | 'steering' | 'body'> {
  return {
    chassis: facing.chassis,
    wheels: [...rig.wheels],
    steering: { ...defaultsOf(Rider).steering, ...rig.steering },
    body: { ...defaultsOf(Rider).body, node: rig.body, rollPerG: 6, pitchPerG: 4 },
  };
}

/** On the ground, which is looked for near the path: over the bridge and under it alike. */
const ON_GROUND: GroundContact = { ...defaultsOf(Attachment).ground, mode: 'stick', up: 0.8, down: 0.8 };

/** A camera 7 m above the lane and 13 m behind whom it looks at, which it keeps a little below the middle. */
function overLane(): Attachment {
  const attachment = newAttachment('lane', RANGE);
  return {
    ...attachment,
    pacedBy: { rider: 'hauler', delay: 0, rate: 1 },
    offset: { ...attachment.offset, along: -13, rise: 7 },
    facing: {
      ...attachment.facing,
      mode: 'aim',
      target: { rider: 'hauler', node: 'body', at: [0, 1.2, 1] },
      aim: { ...attachment.facing.aim, deadZone: 1.5, damping: 0.6 },
    },
  };
}

/** The hauler driven once round the lane in the shot's time: it halts at the rows to load and at the barn to unload. */
function drivenRound(paths: Shot['paths']): Attachment {
  const lane = paths.find(({ id }) => id === 'lane') as Shot['paths'][number];
  const curve = compiledPathOf(lane);
  if (curve instanceof PathError) throw curve;
  const attachment = newAttachment('lane', RANGE);
  const seconds = { rows: 2, barn: 3 } as Readonly<Record<string, number>>;
  const pace: Pace = {
    ...attachment.pace,
    mode: 'drive',
    unit: 'metres',
    keys: [],
    drive: {
      ...attachment.pace.drive,
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
  return { ...attachment, ground: ON_GROUND, pace: { ...pace, drive: { ...pace.drive, top } } };
}

/** The picker once round the row in the shot's time; it stops to fill a basket. Its stride is the nearest that is whole in the loop. */
function pickingRound(paths: Shot['paths'], { gaits }: ModelFacts): Pick<Rider, 'gait' | 'attachment'> {
  const row = paths.find(({ id }) => id === 'row') as Shot['paths'][number];
  const curve = compiledPathOf(row);
  const walk = gaits.find(({ clip }) => clip === 'walk');
  if (curve instanceof PathError || !walk) throw curve;
  const attachment = newAttachment('row', RANGE);
  const pace: Pace = {
    ...attachment.pace,
    mode: 'drive',
    unit: 'metres',
    keys: [],
    drive: {
      ...attachment.pace.drive,
      accelerate: 0.9,
      brake: 0.9,
      sideways: 1.5,
      jerk: 4,
      departs: 'rolling',
      stops: [{ distance: 14, seconds: 10 }],
    },
    // Between two points of the row, where its bend does not change abruptly.
    start: { frame: RANGE.first, value: 4 },
  };
  const top = topSpeedFor(pace, curve, 1, (RANGE.last - RANGE.first + 1) / 24);
  if (top === null) throw new Error('The picker cannot get round the row in the time of the shot.');
  return {
    gait: {
      ...defaultsOf(Gait),
      clip: walk.clip,
      stride: curve.length / Math.round(curve.length / walk.stride),
      feet: [...walk.feet],
      idle: 'idle',
      blend: 0.5,
      acts: [{ stop: 0, clip: 'pick', from: 0, to: null, fit: 'stretch' }],
    },
    attachment: {
      ...attachment,
      ground: { ...ON_GROUND, tilt: false },
      pace: { ...pace, drive: { ...pace.drive, top } },
    },
  };
}

/** Wing beats, the hands a little after the arms; each is one cycle for both sides. */
function wingBeats(): Cycle[] {
  const beat = (part: string, amplitude: number, phase: number): Cycle => ({
    ...defaultsOf(Cycle),
    node: `${part}_left`,
    mirror: `${part}_right`,
    axis: '+z',
    amplitude,
    rate: 2.4,
    rest: 8,
    phase,
    whole: true,
  });
  return [beat('wing', 32, 0), beat('hand', 24, -0.14)];
}

/** Rotors, the opposite ones round the same way. */
function rotorSpin(): Cycle[] {
  return ['front_left', 'front_right', 'rear_left', 'rear_right'].map((place) => ({
    ...defaultsOf(Cycle),
    node: `rotor_${place}`,
    axis: place === 'front_left' || place === 'rear_right' ? '+y' : '-y',
    shape: 'steady',
    amplitude: 0,
    rate: 8,
    whole: true,
  }));
}

/** The demo's models by the ids that the shot gives them. */
export async function documentsOf(models: Shot['models']) {
  const makers = { ...makeDemoModels(), ...makeCatalogue() };
  const read = models.map(async ({ id, source }) => {
    const made = makers[id as keyof typeof makers];
    return [id, (await readModel(await made.glb(), source.file ?? id)).document] as const;
  });
  return new Map(await Promise.all(read));
}

/** Dust from the hauler's wheels while it drives. */
const DUST: Emitter = {
  ...defaultsOf(Emitter),
  ...READY_SPRAYS.find(({ name }) => name === 'Dust')?.parts,
  from: 'wheels',
  rate: 40,
};

/** A fence of posts and two rails on the outer side of the lane's western bend, and lamps along it. */
function alongLane(paths: Shot['paths']): Dressing[] {
  const lane = compiledPathOf(paths.find(({ id }) => id === 'lane') as Shot['paths'][number]);
  if (lane instanceof PathError) throw lane;
  const fence = {
    ...defaultsOf(Dressing),
    path: 'lane',
    from: Math.round(0.32 * lane.length),
    to: Math.round(0.55 * lane.length),
  };
  const plank = READY_PROFILES.find(({ name }) => name === 'Plank fence');
  const rail = (id: string, name: string, rise: number): Dressing => ({
    ...fence,
    id,
    name,
    kind: 'profile',
    ring: true,
    color: '#8a6f4e',
    profile: plank?.profile.map(([x, y]): [number, number] => [x, y]) ?? [],
    offset: { side: -3.1, rise },
  });
  return [
    {
      ...fence,
      id: 'fence-posts',
      name: 'Fence posts',
      model: 'post',
      every: 2.4,
      fit: true,
      stand: 'ground',
      offset: { side: -3.2, rise: 0 },
    },
    rail('fence-low', 'Lower rail', 0.4),
    rail('fence-high', 'Upper rail', 0.85),
    {
      ...fence,
      id: 'lamps',
      name: 'Lamps',
      model: 'lamp',
      from: fence.from + 2,
      every: 16,
      stand: 'ground',
      offset: { side: 3.4, rise: 0 },
    },
  ];
}

/** The same shot with wheels that turn whole times in the loop, each size by the least. */
function wholeTurns(shot: Shot, assets: SceneAssets): Shot {
  for (let round = 0; round < 40; round++) {
    const evaluated = evaluateShot(shot, assets);
    const gap = seamReport(evaluated, NO_SHAPES).find((one) => one.channel === 'wheel' && isOpen(one));
    const [closing] = gap ? closingsOf(evaluated, gap) : [];
    if (!closing) return shot;
    shot = closing.shot;
  }
  return shot;
}

/**
 * Quillfen Orchard: the hauler pulls two trailers once round the lane, over and under the footbridge, and the barn's gate
 * opens as it comes near; a picker walks between the rows, stops to fill a basket, and walks on; a drone follows above and keeps
 * the hauler in its picture; a flight of five kestrels banks round its loop.
 */
export async function orchardShot(): Promise<Shot> {
  const models = [
    'orchard',
    'hauler',
    'trailer',
    'kestrel',
    'picker',
    'drone',
    'barrel',
    'gate',
    'post',
    'lamp',
  ].map((id) => {
    return { id, name: id[0].toUpperCase() + id.slice(1), source: { file: `${id}.glb` } };
  });
  const trailer = rigged(await factsOf(makeTrailer(), 'trailer.glb'));
  const picker = await factsOf(makePicker(), 'picker.glb');
  // A lap ends on the frame after the last, which is the first again.
  const once = newAttachment('sky', { first: RANGE.first, last: RANGE.last + 1 });
  const sky: Attachment = {
    ...once,
    // Between two points of the loop: at a point, a curve through points changes its bend abruptly.
    pace: { ...startPaceAt(once.pace, RANGE.first, 0.05), before: 'accumulate', after: 'accumulate' },
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
        ...rigged(await factsOf(makeHauler(), 'hauler.glb')),
        attachment: drivenRound(paths),
        emitter: DUST,
      },
      {
        id: 'trailer-1',
        name: 'First trailer',
        kind: 'vehicle',
        model: 'trailer',
        badge: 'T2',
        color: 1,
        ...trailer,
      },
      {
        id: 'trailer-2',
        name: 'Second trailer',
        kind: 'vehicle',
        model: 'trailer',
        badge: 'T3',
        color: 2,
        ...trailer,
      },
      {
        id: 'kestrel',
        name: 'Kestrel',
        kind: 'creature',
        model: 'kestrel',
        badge: 'K4',
        color: 3,
        cycles: wingBeats(),
        attachment: { ...sky, bank: { ...sky.bank, mode: 'physical', amount: 2, limit: 70, window: 8 } },
      },
      {
        id: 'drone',
        name: 'Drone',
        kind: 'camera',
        model: 'drone',
        badge: 'C5',
        color: 4,
        camera: { ...defaultsOf(Camera), framing: [0, -0.2] },
        cycles: rotorSpin(),
        attachment: overLane(),
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
      {
        id: 'picker',
        name: 'Picker',
        kind: 'character',
        model: 'picker',
        badge: 'P11',
        color: 6,
        ...pickingRound(paths, picker),
      },
    ],
    cues: (['left', 'right'] as const).map((side) => ({
      id: `gate-${side}`,
      name: `Gate, ${side} leaf`,
      trigger: { kind: 'gap', rider: 'hauler', other: 'gate' },
      action: { kind: 'turn', rider: 'gate', node: `gate_${side}`, axis: side === 'left' ? '+y' : '-y' },
      // Wide open while the hauler is at the barn, 13 m from the gate's middle.
      keys: [
        { at: 14, value: 95, ease: 'smooth' },
        { at: 24, value: 0 },
      ],
    })),
    dressing: alongLane(paths),
    ground: { model: 'orchard', nodes: ['grass', 'lane', 'ramp', 'footbridge'] },
    cuts: [{ frame: 1, camera: 'drone' }],
    checks: {
      dismissed: [{ kind: 'hidden', rider: 'drone', reason: 'The hauler goes under the bridge there' }],
    },
  });
  const onGround = (riders: Shot['riders']): Shot['riders'] =>
    riders.map((rider) =>
      rider.attachment?.coupledTo
        ? { ...rider, attachment: { ...rider.attachment, ground: ON_GROUND } }
        : rider,
    );
  const first = hangString(shot, 'hauler', { unit: 'trailer-1', count: 1, gap: 0.05 }).shot;
  const both = hangString(first, 'hauler', { unit: 'trailer-2', count: 1, gap: 0.05 }).shot;
  // As it is played: on its ground, with its models.
  const assets = await assetsOf(both, await documentsOf(both.models));
  const stopped = naturalStops({ ...both, riders: onGround(both.riders) }, assets, 'picker');
  return formUp(wholeTurns(stopped, assets), assets, 'kestrel', {
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
