import { poseOfRider, withAttachment, withRider } from '../../shot/edits/change-rider.js';
import { defaultsOf } from '../../document/defaults.js';
import { Clearance } from '../../document/shot-clearance.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { distance3 } from '../../geometry/math/vec.js';
import { reshapeRiddenPath } from '../../shot/edits/keep-places.js';
import { liftPath } from '../../geometry/reshape/lift.js';
import { metres, type Ways } from './fix.js';

/** Search range beyond the ground's own height, metres. */
const MARGIN = 0.5;
/** A camera is not set down on the ground itself, metres. */
const CAMERA_HEIGHT = 0.5;

/** Onto the ground, whatever height its path has. */
export const stick: Ways = ({ shot, rider, finding }) => {
  const far = (finding.figure ?? 0) + MARGIN;
  const under = finding.kind === 'under-ground';
  return [
    [2 * far, 8 * far].map((band) => ({
      label: 'Stick to the ground',
      detail: `it keeps to the ground within ${metres(under ? band : Math.max(1.5, band / 2))} above its path`,
      shot: withAttachment(shot, rider.id, (attachment) => ({
        ...attachment,
        ground: {
          ...attachment.ground,
          mode: 'stick',
          rise: 0,
          up: Math.max(attachment.ground.up, under ? band : 0),
          down: Math.max(attachment.ground.down, under ? 0 : band),
        },
      })),
    })),
  ];
};

/** Up out of the ground: the whole path, or the rider alone over it. */
export const lift: Ways = ({ shot, rider, finding }) => {
  const { attachment } = rider;
  if (attachment === null || finding.figure === null) return [];
  const by = Math.ceil((finding.figure + (rider.camera ? CAMERA_HEIGHT : 0.01)) * 100) / 100;
  const steps = [by, 1.5 * by, 2 * by];
  const path = shot.paths.find(({ id }) => id === attachment.path);
  const alone = shot.riders.filter((other) => other.attachment?.path === attachment.path).length === 1;
  const sticks = attachment.ground.mode === 'stick';
  const higher = steps.map((step) => ({
    label: 'Ride higher',
    detail: `${metres(step)} higher above its path`,
    shot: withAttachment(shot, rider.id, (own) =>
      sticks
        ? { ...own, ground: { ...own.ground, rise: own.ground.rise + step } }
        : {
            ...own,
            offset: { ...own.offset, rise: own.offset.rise + step },
            offsetKeys: own.offsetKeys.map((key) => ({ ...key, rise: key.rise + step })),
          },
    ),
  }));
  const lifted =
    path === undefined || sticks
      ? []
      : steps.map((step) => ({
          label: 'Lift the path',
          detail: `all of ${path.name} ${metres(step)} up`,
          shot: reshapeRiddenPath(shot, liftPath(path, step), 'plan'),
        }));
  const clear =
    sticks || finding.kind === 'under-ground'
      ? []
      : [{ label: 'Keep clear of the ground', detail: clearBy, shot: withFloor(shot, rider, CAMERA_HEIGHT) }];
  // A path that others ride too is not lifted for one of them.
  return alone ? [clear, lifted, higher] : [clear, higher, lifted];
};

const clearBy = `it keeps ${CAMERA_HEIGHT} m above the ground where its path is lower`;

function withFloor(shot: Shot, { id }: Rider, floor: number): Shot {
  return withRider(shot, id, (rider) => ({
    ...rider,
    clearance: { ...(rider.clearance ?? defaultsOf(Clearance)), floor },
  }));
}

/** Past the other at a distance, eased there and back. */
export const keepAway: Ways = ({ evaluated, shot, rider, finding }) => {
  const { other, frame, figure } = finding;
  if (other === null || frame === null || figure === null) return [];
  const [own, its] = [rider.id, other].map((id) => poseOfRider(evaluated, id, frame));
  const far = distance3(own, its) + figure;
  return [
    [1.02, 1.15, 1.4, 2].map((part) => {
      const distance = Math.ceil(part * far * 20) / 20;
      return {
        label: 'Keep a distance',
        detail: `${metres(distance)} between the middles, also when either moves`,
        shot: withRider(shot, rider.id, (before) => {
          const clearance = before.clearance ?? defaultsOf(Clearance);
          const rest = clearance.from.filter((one) => one.rider !== other);
          return { ...before, clearance: { ...clearance, from: [...rest, { rider: other, distance }] } };
        }),
      };
    }),
  ];
};

/** Lowers a rider that was raised above its ground. */
export const rideLower: Ways = ({ shot, rider }) => [
  [
    {
      label: 'Lower to the ground',
      detail: 'its rise above the ground becomes 0',
      shot: withAttachment(shot, rider.id, (attachment) => ({
        ...attachment,
        ground: { ...attachment.ground, rise: 0 },
        offset: { ...attachment.offset, rise: 0 },
        offsetKeys: attachment.offsetKeys.map((key) => ({ ...key, rise: 0 })),
      })),
    },
  ],
];

/** Ground is looked for so near to the path that another level is out of reach. */
export const narrowBand: Ways = ({ shot, rider, finding }) => {
  const jump = finding.figure ?? 0;
  return [
    [0.9, 0.5, 0.25].map((part) => {
      const most = Math.round(part * jump * 100) / 100;
      return {
        label: 'Keep to its level',
        detail: `ground counts within ${metres(most)} of its path`,
        shot: withAttachment(shot, rider.id, (attachment) => ({
          ...attachment,
          ground: {
            ...attachment.ground,
            up: Math.min(attachment.ground.up, most),
            down: Math.min(attachment.ground.down, most),
          },
        })),
      };
    }),
  ];
};
