import {
  PathError,
  compiledPathOf,
  defaultsOf,
  evaluateShot,
  formUp,
  freeze,
  switchCarrier,
  newAttachment,
  newShot,
  standCopies,
  withAttachment,
  withRider,
  Camera,
  Cue,
  CueAction,
  CueTrigger,
  RestAim,
  type Attachment,
  Rider,
  ClipBlock,
  type CueKey,
  type SceneAssets,
  type Shot,
  Dismissal,
  Wheel,
  type Vec3,
} from '@fleet-rail/core';
import { assetsOf } from '@fleet-rail/core/formats';
import { documentsOf } from './orchard-shot.js';

const RANGE = { first: 1, last: 1440 };
/** Distances at which the picker gets on and off: at the rows, metres along the lane. */
const ROWS = 106;
/** How long the hauler waits there, and how long getting on and off takes, seconds. */
const WAITS = 8;
const STEP = 0.9;
/** On the load, behind the cab. */
const SEAT: Vec3 = [0, 1.83, -0.2];

/** A step to a value. */
const go = (at: number): CueKey[] => [
  { at: at - 0.01, value: 0, ease: 'hold' },
  { at, value: 1, ease: 'hold' },
];

const cue = (
  name: string,
  on: Partial<CueTrigger>,
  does: Partial<CueAction> & { rider: string },
  keys: CueKey[],
): Cue => ({
  ...defaultsOf(Cue),
  id: name.toLowerCase().replaceAll(' ', '-'),
  name,
  trigger: { ...defaultsOf(CueTrigger), ...on },
  action: { ...defaultsOf(CueAction), ...does },
  keys,
});

/**
 * Things moved by hand and things that answer each other, one of each kind: the picker waits for the hauler, walks to
 * it when it has stopped, rides a lap on its load and gets off; a kestrel is moved by hand and three follow it; a
 * tripod aims, and is cut to; the drone is frozen.
 */
export async function liftShot(orchard: Shot): Promise<Shot> {
  const assets = await assetsOf(orchard, await documentsOf(orchard.models));
  const lane = orchard.paths.find(({ id }) => id === 'lane') as Shot['paths'][number];
  const curve = compiledPathOf(lane);
  if (curve instanceof PathError) throw curve;
  const kept = ['hauler', 'trailer-1', 'drone', 'gate', 'picker', 'kestrel'];
  const aside = newShot({
    name: 'aside',
    paths: [
      {
        id: 'aside',
        name: 'To the lane',
        basis: 'through',
        points: (
          [
            [-25.5, 0, 0.9],
            [-28.2, 0, 0.7],
            [-29.4, 0, -0.3],
            [-29.2, 0, -1.5],
            [-25, 0, -1.2],
            [-20, 0, -1.3],
          ] as Vec3[]
        ).map((position) => ({ position })),
      },
    ],
  }).paths[0];
  const walk = compiledPathOf(aside);
  if (walk instanceof PathError) throw walk;
  const gets = walk.pointDistances[2];
  let shot: Shot = newShot({
    ...orchard,
    name: 'Orchard, a lift',
    range: RANGE,
    loop: false,
    paths: [lane, aside, ...chutes()],
    formations: [],
    cues: [],
    riders: orchard.riders
      .filter(({ id }) => kept.includes(id))
      .map((rider) =>
        rider.id === 'kestrel' || rider.id === 'picker' ? { ...rider, attachment: null } : rider,
      ),
  });
  shot = withAttachment(shot, 'hauler', (attachment) => ({
    ...attachment,
    pace: {
      ...attachment.pace,
      after: 'accumulate',
      drive: {
        ...attachment.pace.drive,
        top: 7.5,
        arrives: 'rolling',
        stops: [{ distance: ROWS, seconds: WAITS }],
      },
      start: { frame: RANGE.first, value: ROWS - 44 },
    },
  }));
  const onFoot =
    orchard.riders.find(({ id }) => id === 'picker')?.attachment ?? newAttachment('aside', RANGE);
  shot = withRider(shot, 'picker', (rider) => ({ ...rider, attachment: walkAside(onFoot, gets) }));
  shot = withRider(shot, 'picker', (rider) => ({
    ...rider,
    gait: rider.gait && { ...rider.gait, acts: [] },
  }));
  shot = withRoller(withTripod(withKestrel(withBarrel(shot))));
  shot = { ...shot, cues: answers(curve.length) };
  const stops = evaluateShot(shot, assets).timing(shot.riders[0])?.stops ?? [];
  const on = stops[0].from + 5.6 * shot.fps;
  // It gets on while the hauler waits, and off when that is back where it was.
  const back = backAtRows(shot, assets, curve.length) + 1.5 * shot.fps;
  shot = handed(shot, assets, Math.round(on), Math.round(back));
  const barrels = standCopies(shot, assets.ground, 'barrel', {
    count: 2,
    places: 'row',
    step: [0.9, 0, 0],
    radius: 0,
    path: null,
    side: 0,
    seed: 1,
    onGround: true,
  }).shot;
  const flight = formUp(barrels, assets, 'kestrel', {
    count: 3,
    arrangement: 'wedge',
    spacing: 2.2,
    delay: 0,
    step: [0, 0, 0],
    turn: 0,
    seed: 4,
    vary: { place: 0.4, time: 0, speed: 0, amplitude: 0.2 },
  }).shot;
  const frozen = freeze(flight, assets, ['drone'], 0.01);
  // The tripod is looked through at the rows alone, and the hauler goes under the bridge.
  const dismissed = {
    ...defaultsOf(Dismissal),
    kind: 'hidden' as const,
    rider: 'tripod',
    reason: 'Seen at the rows alone',
  };
  const goesOn = {
    ...defaultsOf(Dismissal),
    kind: 'not-over' as const,
    rider: 'picker',
    reason: 'It walks on when the shot is over',
  };
  return {
    ...frozen,
    checks: { ...frozen.checks, dismissed: [...frozen.checks.dismissed, dismissed, goesOn] },
  };
}

/** The picker on its own way, that stops at the lane. */
function walkAside(attachment: Attachment, stop: number): Attachment {
  return {
    ...attachment,
    path: 'aside',
    pace: {
      ...newAttachment('aside', RANGE).pace,
      mode: 'drive',
      unit: 'metres',
      keys: [],
      drive: { ...attachment.pace.drive, top: 1.4, departs: 'rest', stops: [{ distance: stop, seconds: 1 }] },
      start: { frame: RANGE.first, value: 0 },
    },
  };
}

/** The frame at which the hauler has come round to the rows again. */
function backAtRows(shot: Shot, assets: SceneAssets, lap: number): number {
  const motion = evaluateShot(shot, assets).motion(shot.riders[0]);
  for (let frame = RANGE.first; frame <= RANGE.last; frame++)
    if (motion && motion.distance(frame) > ROWS + lap - 0.01) return frame;
  throw new Error('The hauler does not come round in the time of the shot.');
}

/** The picker on the load from a frame to another, its clip for standing over the walk that waits under it. */
function handed(shot: Shot, assets: SceneAssets, on: number, off: number): Shot {
  const sat = switchCarrier(shot, assets, 'picker', 'hauler', on);
  return withRider(sat, 'picker', (rider) => ({
    ...rider,
    parentKeys: [
      { frame: on, rider: 'hauler', translation: SEAT, rotation: [0, 0, 0, 1], blend: STEP },
      { frame: off, rider: null, translation: [0, 0, 0], rotation: [0, 0, 0, 1], blend: STEP },
    ],
    clips: [
      { ...defaultsOf(ClipBlock), clip: 'pick', frame: on + 60, until: on + 156, blend: 0.5 },
      { ...defaultsOf(ClipBlock), clip: 'idle', frame: on + 144, until: off, blend: 0.5 },
    ],
  }));
}

/** The kestrel moved by hand. */
function withKestrel(shot: Shot): Shot {
  const places: [number, Vec3, number][] = [
    [1, [-60, 9, -20], 70],
    [300, [-20, 7, 4], 60],
    [620, [22, 8, 22], 80],
    [940, [40, 11, -6], 190],
    [1440, [-6, 9, -34], 260],
  ];
  return withRider(shot, 'kestrel', (rider) => ({
    ...rider,
    attachment: null,
    transformKeys: {
      keys: places.map(([frame, translation, yaw]) => {
        const half = (yaw * Math.PI) / 360;
        return {
          frame,
          translation,
          rotation: [0, Math.sin(half), 0, Math.cos(half)],
          ease: 'smooth' as const,
        };
      }),
    },
  }));
}

/** A camera on a tripod at the rows, that turns to the hauler as it comes. */
function withTripod(shot: Shot): Shot {
  const tripod: Rider = {
    ...defaultsOf(Rider),
    id: 'tripod',
    name: 'Tripod',
    kind: 'camera',
    badge: 'C12',
    color: 7,
    rest: {
      translation: [-22.5, 2.1, -7.5],
      rotation: [0, Math.sin(-0.5), 0, Math.cos(-0.5)],
      scale: [1, 1, 1],
    },
    camera: {
      ...defaultsOf(Camera),
      keys: [
        { frame: 1, value: 28, ease: 'smooth' },
        { frame: 330, value: 45, ease: 'smooth' },
      ],
    },
    restAim: { ...defaultsOf(RestAim), target: { rider: 'hauler' } },
  };
  return {
    ...shot,
    riders: [...shot.riders, tripod],
    cuts: [
      { frame: 1, camera: 'drone' },
      { frame: 480, camera: 'drone' },
    ],
  };
}

function withBarrel(shot: Shot): Shot {
  const barrel: Rider = {
    ...defaultsOf(Rider),
    id: 'barrel',
    name: 'Barrel',
    kind: 'prop',
    model: 'barrel',
    badge: 'B13',
    color: 5,
    rest: { translation: [-27.5, 0.36, -3.4], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
  };
  return { ...shot, riders: [...shot.riders, barrel] };
}

/** A chute at the barn, and a branch of it. */
function chutes(): Shot['paths'] {
  const through = (id: string, name: string, ...places: Vec3[]) => ({
    id,
    name,
    basis: 'through' as const,
    points: places.map((position) => ({ position })),
  });
  return newShot({
    name: 'chutes',
    paths: [
      through('roll', 'To the barn', [52, 0.353, -16], [52, 0.353, -9], [52, 0.353, -2]),
      through(
        'cart',
        'To the cart',
        [52, 0.353, -12],
        [52, 0.353, -9],
        [51.5, 0.353, -5],
        [49, 0.353, -1],
        [45, 0.353, 1],
      ),
    ],
  }).paths;
}

/** A barrel that is sent along and turns out. */
function withRoller(shot: Shot): Shot {
  const attachment = newAttachment('roll', RANGE);
  const roller: Rider = {
    ...defaultsOf(Rider),
    id: 'roller',
    name: 'Rolling barrel',
    kind: 'prop',
    model: 'barrel',
    badge: 'B14',
    color: 2,
    wheels: [{ ...defaultsOf(Wheel), node: 'barrel', radius: 0.353 }],
    attachment: {
      ...attachment,
      pace: {
        ...attachment.pace,
        unit: 'metres',
        keys: [
          { frame: 1, value: 0, ease: 'smooth', in: [0, 0], out: [0, 0] },
          { frame: 120, value: 14, ease: 'smooth', in: [0, 0], out: [0, 0] },
        ],
      },
    },
  };
  return { ...shot, riders: [...shot.riders, roller] };
}

/** Triggers of the cues: a stop, a distance, another cue, a gap, a speed. */
function answers(lap: number): Cue[] {
  const leaf = (side: string, times: number): CueAction => ({
    ...defaultsOf(CueAction),
    kind: 'turn',
    rider: 'gate',
    node: `gate_${side}`,
    axis: '+y',
    times,
  });
  const back = cue(
    'Back at the rows',
    { kind: 'distance', rider: 'hauler' },
    { kind: 'play', rider: 'picker', clip: 'pick', plays: 'once', blend: 0.4 },
    go(ROWS + lap - 20),
  );
  return [
    cue('Walks to it', { kind: 'stop', rider: 'hauler' }, { kind: 'start', rider: 'picker' }, go(0.3)),
    back,
    cue('Walks on', { kind: 'cue', cue: back.id }, { kind: 'stopEnd', rider: 'picker' }, go(7)),
    {
      ...cue('Gate', { kind: 'gap', rider: 'hauler', other: 'gate' }, leaf('left', 1), [
        { at: 14, value: 95, ease: 'smooth' },
        { at: 24, value: 0, ease: 'smooth' },
      ]),
      moreActions: [leaf('right', -1)],
    },
    cue('Cut to the tripod', { kind: 'stop', rider: 'hauler' }, { kind: 'camera', rider: 'tripod' }, go(-1)),
    cue('Turns to it', { kind: 'speed', rider: 'hauler' }, { kind: 'facing', rider: 'tripod' }, [
      { at: 0, value: 1, ease: 'linear' },
      { at: 7.6, value: 0.9, ease: 'linear' },
    ]),
  ];
}
