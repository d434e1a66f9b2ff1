import {
  PathError,
  compiledPathOf,
  defaultsOf,
  newAttachment,
  newShot,
  withAttachment,
  withRider,
  Camera,
  Rider,
  type Shot,
} from '@fleet-rail/core';

const RANGE = { first: 1, last: 480 };

/** The lane by linear keys: off too abruptly, and too fast for its bends. */
function rushed(shot: Shot): Shot {
  const lane = shot.paths.find(({ id }) => id === 'lane') as Shot['paths'][number];
  const curve = compiledPathOf(lane);
  if (curve instanceof PathError) throw curve;
  const begin = curve.length / 4;
  return withAttachment(shot, 'hauler', (attachment) => ({
    ...newAttachment('lane', RANGE),
    ground: attachment.ground,
    anchor: attachment.anchor,
    pace: {
      ...newAttachment('lane', RANGE).pace,
      unit: 'metres',
      keys: [
        { frame: 1, value: begin },
        { frame: 96, value: begin },
        { frame: 288, value: begin + 88 },
        { frame: 480, value: begin + 150 },
      ].map((key) => ({ ...key, ease: 'linear', in: [0, 0], out: [0, 0] })),
    },
  }));
}

/** A rider of the shot with something of it put wrong. */
const spoiled = (shot: Shot, id: string, parts: Partial<Rider>): Shot =>
  withRider(shot, id, (rider) => ({ ...rider, ...parts }));

/** A barrel that slides down the chute, sent from the top at a frame to a place. */
const barrel = (number: number, frame: number, to: number) => ({
  id: `barrel-${number}`,
  name: `Barrel ${number}`,
  kind: 'prop' as const,
  model: 'barrel',
  badge: `B${number}`,
  color: 5,
  attachment: {
    path: 'chute',
    offset: { rise: 0.36 },
    pace: {
      keys: [
        { frame, value: 0, ease: 'smooth' as const },
        { frame: frame + 72, value: to },
      ],
    },
  },
});

/** The orchard as it was left on a Friday: a dozen faults, each of another kind, for Check and its fixes. */
export function firstTryShot(orchard: Shot): Shot {
  const kept = orchard.riders.filter(({ id }) => !['kestrel-4', 'kestrel-5'].includes(id));
  const formations = orchard.formations.map((flight) => ({
    ...flight,
    members: flight.members.filter((id) => kept.some((rider) => rider.id === id)),
  }));
  let shot = rushed({
    ...orchard,
    name: 'Orchard, first try',
    range: RANGE,
    loop: false,
    riders: kept,
    formations,
  });
  const wheelsOf = (id: string) => shot.riders.find((rider) => rider.id === id)?.wheels ?? [];
  // One radius was typed, and the last trailer's wheels were never taken.
  shot = spoiled(shot, 'trailer-1', {
    wheels: wheelsOf('trailer-1').map((wheel) => ({ ...wheel, radius: wheel.radius * 1.06 })),
  });
  shot = spoiled(shot, 'trailer-2', { wheels: [] });
  // The camera was set low, and lower than the ground it comes over.
  shot = withAttachment(shot, 'drone', (attachment) => ({
    ...attachment,
    offset: { ...attachment.offset, along: -16, rise: -0.8 },
  }));
  // The kestrel flies backward, and one of its flight through the meadow.
  shot = withAttachment(shot, 'kestrel', (attachment) => ({
    ...attachment,
    offset: { ...attachment.offset, yaw: 180 },
  }));
  shot = withAttachment(shot, 'kestrel-2', (attachment) => ({
    ...attachment,
    offset: { ...attachment.offset, rise: attachment.offset.rise - 12 },
  }));
  // The picker hurries, its feet on nothing.
  shot = withAttachment(shot, 'picker', (attachment) => ({
    ...attachment,
    pace: {
      ...newAttachment('row', RANGE).pace,
      unit: 'metres',
      keys: [
        { frame: 1, value: 4, ease: 'smooth', in: [0, 0], out: [0, 0] },
        { frame: 480, value: 46, ease: 'smooth', in: [0, 0], out: [0, 0] },
      ],
    },
  }));
  shot = withRider(shot, 'picker', (rider) => ({
    ...rider,
    gait: rider.gait && { ...rider.gait, plant: false, acts: [], stride: rider.gait.stride * 1.15 },
  }));
  return newShot({
    ...shot,
    riders: [
      ...shot.riders,
      barrel(12, 1, 12.1),
      barrel(13, 7, 15),
      {
        ...defaultsOf(Rider),
        id: 'survey',
        name: 'Survey camera',
        kind: 'camera',
        badge: 'C14',
        color: 7,
        camera: defaultsOf(Camera),
        attachment: {
          path: 'survey',
          pace: {
            keys: [
              { frame: 1, value: 0 },
              { frame: 480, value: 60 },
            ],
          },
          facing: {
            mode: 'aim',
            target: { rider: 'hauler' },
            aim: { yawLimit: 100 },
          },
        },
      },
    ],
    // The gate waits for the hauler to come nearer than it ever does.
    cues: shot.cues.map((cue) => ({
      ...cue,
      keys: cue.keys.map((key, i) => ({ ...key, at: i === 0 ? 0.5 : 1 })),
    })),
  });
}
