import { withAttachment } from '../../shot/edits/change-rider.js';
import type { Anchor } from '../../document/shot-attachment.js';
import { hasWheelbase } from '../../motion/ride/chassis.js';
import type { Fix, Ways } from './fix.js';

/** Up by the path's own twist-free frame, which does not turn over where the path is steep; or by the world. */
export const upByPath: Ways = ({ shot, rider }) => [
  (['path', 'world'] as const)
    .filter((reference) => reference !== rider.attachment?.facing.reference)
    .map((reference) => ({
      label: reference === 'path' ? 'Keep up by the path' : 'Keep up by the world',
      detail: reference === 'path' ? 'up follows the path without twist' : 'up is the world’s up',
      shot: withAttachment(shot, rider.id, (attachment) => ({
        ...attachment,
        facing: { ...attachment.facing, reference },
      })),
    })),
];

/** Round, so that its nose is where its tail was. */
export const turnRound: Ways = ({ shot, rider }) => {
  const turned = (yaw: number) => (yaw > 0 ? yaw - 180 : yaw + 180);
  return [
    [
      {
        label: 'Turn it around',
        detail: 'its nose points ahead at every frame',
        shot: withAttachment(shot, rider.id, (attachment) => ({
          ...attachment,
          offset: { ...attachment.offset, yaw: turned(attachment.offset.yaw) },
          offsetKeys: attachment.offsetKeys.map((key) => ({ ...key, yaw: turned(key.yaw) })),
        })),
      },
    ],
    faceTravelTries(shot, rider.id),
  ];
};

export const faceTravel: Ways = ({ shot, rider }) => [faceTravelTries(shot, rider.id)];

function faceTravelTries(shot: Parameters<Ways>[0]['shot'], id: string): Fix[] {
  return [
    {
      label: 'Face where it goes',
      detail: 'it turns around where it goes backward',
      shot: withAttachment(shot, id, (attachment) => ({
        ...attachment,
        facing: { ...attachment.facing, along: 'travel' },
      })),
    },
  ];
}

const ANCHOR_NAMES: Readonly<Record<Anchor, string>> = {
  origin: 'its origin is on the path',
  frontAxle: 'the front axle follows the path and the rear axle trails',
  rearAxle: 'its rear axle is on the path',
  bothAxles: 'both axles are on the path, as on rails',
};

/** On the axle that does not slide. */
export const otherAnchor: Ways = ({ shot, rider, evaluated }) => {
  const axles = evaluated.axles(rider);
  if (rider.attachment === null || axles === null) return [];
  const may: Anchor[] = hasWheelbase(axles) ? ['rearAxle', 'frontAxle'] : ['rearAxle'];
  const towed = rider.attachment.coupledTo !== null;
  return [
    (towed ? (['frontAxle'] as const) : may)
      .filter((anchor) => anchor !== rider.attachment?.anchor)
      .map((anchor) => ({
        label: towed ? 'Tow it by its coupling' : 'Ride on the other axle',
        detail: towed ? 'its coupling pulls it and its wheels trail' : ANCHOR_NAMES[anchor],
        shot: withAttachment(shot, rider.id, (attachment) => ({ ...attachment, anchor })),
      })),
  ];
};

/** As far round, up and down as its target leads. */
export const turnFreely: Ways = ({ shot, rider }) => [
  [
    {
      label: 'Remove the turn limits',
      detail: 'no yaw or pitch limits',
      shot: withAttachment(shot, rider.id, (attachment) => ({
        ...attachment,
        facing: { ...attachment.facing, aim: { ...attachment.facing.aim, yawLimit: 180, pitchLimit: 90 } },
      })),
    },
    {
      label: 'Remove the turn limits',
      detail: 'no limits, damping or dead zone',
      shot: withAttachment(shot, rider.id, (attachment) => ({
        ...attachment,
        facing: {
          ...attachment.facing,
          aim: { ...attachment.facing.aim, yawLimit: 180, pitchLimit: 90, damping: 0, deadZone: 0 },
        },
      })),
    },
  ],
];
