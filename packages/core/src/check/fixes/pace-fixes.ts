import { withAttachment } from '../../shot/edits/change-rider.js';
import { defaultsOf } from '../../document/defaults.js';
import { PaceKey, type Pace } from '../../document/shot-pace.js';
import type { Shot } from '../../document/shot.js';
import { gripOf } from '../../motion/pace/grip-of.js';
import { metresPerValue } from '../../motion/pace/change-unit.js';
import { fitPace } from '../../motion/pace/fit-pace.js';
import { timesAsFast, withFrames } from '../../motion/pace/in-time.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';
import { headOf } from '../../motion/timing/leader.js';
import { GRAVITY } from '../../geometry/math/gravity.js';
import { metres, type FixContext, type Fix, type Ways } from './fix.js';

const withPace = (shot: Shot, id: string, change: (pace: Pace) => Pace): Shot =>
  withAttachment(shot, id, (attachment) => ({ ...attachment, pace: change(attachment.pace) }));

/** Keys that ease into and out of each other. */
export const smoothKeys: Ways = (patient) => {
  const { shot, rider } = patient;
  const smooth: Fix = {
    label: 'Ease the keys',
    detail: 'smooth keys; distances and frames stay',
    shot: withPace(shot, rider.id, (pace) => ({
      ...pace,
      keys: pace.keys.map((key) => (key.ease === 'linear' ? { ...key, ease: 'smooth' } : key)),
    })),
  };
  return [[smooth], ...driven(patient)];
};

/** Driven within limits: it slows down into bends, and speeds up as fast as its engine may. */
export const driven: Ways = ({ shot, rider, finding }) => {
  const { attachment } = rider;
  const curve = curveRidden(shot, rider);
  if (attachment === null || curve === null) return [];
  const { pace } = attachment;
  const drives = pace.mode === 'drive';
  const { drive } = drives ? pace : fitPace(pace, 'drive', shot.fps, curve, shot.range).pace;
  const hold = shot.checks.limits.grip * GRAVITY;
  const within = (value: number, least: number) => Math.max(least, Math.min(value, MOST_ACCELERATION));
  return [
    [0.97, 0.85, 0.6].map((part) => {
      const sideways = drives ? Math.min(drive.sideways, part * hold) : part * hold;
      return {
        label: finding.kind === 'grip' ? 'Slow into the bend' : 'Drive within limits',
        detail: `up to ${drive.top.toFixed(1)} m/s, bends at ${gripOf({ sideways }).toFixed(2)} g at most; it arrives at a different frame`,
        shot: withPace(shot, rider.id, (before) => ({
          ...before,
          mode: 'drive',
          drive: {
            ...drive,
            sideways,
            accelerate: within(drive.accelerate, 2),
            brake: within(drive.brake, 3),
            arrives: drives || curve.closed ? drive.arrives : 'rest',
          },
        })),
      };
    }),
  ];
};

/** As much as tyres give, m/s². */
const MOST_ACCELERATION = 8;

/** Later or sooner by as few frames as help. */
export const shiftStart: Ways = ({ shot, finding }) => {
  const own = [finding.rider, finding.other].flatMap((id) => {
    const rider = shot.riders.find((one) => one.id === id);
    return rider?.attachment && !rider.attachment.coupledTo && !rider.attachment.pacedBy ? [rider] : [];
  });
  // The one that comes second is the one that waits.
  return own.reverse().map((rider) => shifts(shot, rider.id, rider.badge));
};

const MOST_SHIFT = 240;
/** Looked through so coarsely first, frames. */
const COARSE = 6;

/** Shifts by more and more frames, both ways: the caller stops at the first that helps. */
function* shifts(shot: Shot, id: string, badge: string): Generator<Fix, void, undefined> {
  for (let frames = 1; frames <= MOST_SHIFT; frames += frames < 2 * COARSE ? 1 : COARSE)
    for (const by of [frames, -frames])
      yield {
        label: by > 0 ? `Start ${badge} later` : `Start ${badge} sooner`,
        detail: `by ${Math.abs(by)} ${Math.abs(by) === 1 ? 'frame' : 'frames'}`,
        shot: withPace(shot, id, (pace) => withFrames(pace, { from: 0, to: by, scale: 1 })),
      };
}

/** To the end of its path and no further: or on beyond it. */
export const reachEnd: Ways = (patient) => {
  const { shot, rider } = patient;
  const curve = curveRidden(shot, rider);
  if (rider.attachment === null || curve === null) return [];
  const most = curve.length / metresPerValue(rider.attachment.pace, curve);
  const { mode } = rider.attachment.pace;
  const kept: Fix = {
    label: 'Reach the end',
    detail: `keys beyond the path are held within its ${metres(curve.length)}`,
    shot: withPace(shot, rider.id, (pace) => ({
      ...pace,
      keys: pace.keys.map((key) => ({ ...key, value: Math.max(0, Math.min(most, key.value)) })),
    })),
  };
  const on: Fix = {
    label: 'Continue beyond the end',
    detail: 'it continues straight past the end of its path',
    shot: withPace(shot, rider.id, (pace) => ({ ...pace, before: 'run', after: 'run' })),
  };
  return mode === 'keys' ? [[kept]] : [slower(patient, curve.length), [on]];
};

/** So much slower that the end is reached with the last frame. */
function* slower({ shot, rider, finding }: FixContext, length: number): Generator<Fix, void, undefined> {
  const begin = rider.attachment?.pace.start.value ?? 0;
  const by = (length - begin) / (length - begin + (finding.figure ?? 0));
  for (const rate of [by, 0.98 * by])
    yield {
      label: 'Reach the end with the last frame',
      detail: `${(100 * rate).toFixed(1)} % of its speed`,
      shot: withPace(shot, rider.id, (pace) => ({
        ...pace,
        speeds: pace.speeds.map((key) => ({ ...key, speed: key.speed * rate })),
      })),
    };
}

/** A string's leader further along, so that the last of it is on the path. */
export const startAlong: Ways = ({ shot, rider, finding }) => {
  const head = headOf(rider, (id) => shot.riders.find((one) => one.id === id));
  const curve = curveRidden(shot, head);
  if (head.attachment === null || curve === null || finding.figure === null) return [];
  const by = Math.ceil(finding.figure * 100) / 100 / metresPerValue(head.attachment.pace, curve);
  return [
    [by, 1.05 * by].map((more) => ({
      label: `Start ${head.badge} further along`,
      detail: `by ${metres(more * metresPerValue(head.attachment?.pace ?? { unit: 'metres' }, curve))}, with all riders behind it`,
      shot: withPace(shot, head.id, (pace) => ({
        ...pace,
        start: { ...pace.start, value: pace.start.value + more },
        keys: pace.keys.map((key) => ({ ...key, value: key.value + more })),
      })),
    })),
  ];
};

/** Keys at the last frame belong to the one after it. */
export const pastDoubled: Ways = ({ shot, rider }) => {
  const { last } = shot.range;
  return [
    [
      {
        label: 'Move the key past the last frame',
        detail: `from frame ${last} to ${last + 1}, where the loop repeats`,
        shot: withPace(shot, rider.id, (pace) => ({
          ...pace,
          keys: pace.keys.map((key) => (key.frame === last ? { ...key, frame: last + 1 } : key)),
        })),
      },
    ],
    [
      {
        label: 'End the shot a frame sooner',
        detail: `at frame ${last - 1}`,
        shot: { ...shot, range: { ...shot.range, last: last - 1 } },
      },
    ],
  ];
};

/** From where it waits to the end of its path, or once round, over the range. */
export const setOff: Ways = ({ shot, rider, finding }) => {
  const curve = curveRidden(shot, rider);
  if (rider.attachment === null || curve === null) return [];
  const { first, last } = shot.range;
  const from = finding.distance ?? 0;
  const worth = metresPerValue(rider.attachment.pace, curve);
  const to = curve.closed ? from + curve.length : curve.length;
  const keyed = (frame: number, place: number) => ({ ...defaultsOf(PaceKey), frame, value: place / worth });
  // A loop comes round with the frame after its last.
  const keys = [keyed(first, from), keyed(curve.closed ? last + 1 : last, to)];
  return [
    [
      {
        label: 'Send it along the path',
        detail: `${metres(to - from)} in ${((last - first) / shot.fps).toFixed(1)} s, at constant speed`,
        shot: withPace(shot, rider.id, (pace) => ({ ...pace, mode: 'keys', keys })),
      },
    ],
  ];
};

/** So much slower that it takes no more steps than it may; what it does in time takes longer. */
export const slowSteps: Ways = ({ shot, rider, finding }) => {
  const most = rider.gait?.cadence ?? 0;
  const pace = rider.attachment?.pace;
  if (!pace || finding.figure === null || !(most > 0)) return [];
  return [
    [1, 1.02, 1.1].map((more) => {
      const scale = ((finding.figure ?? most) / most) * more;
      const from = pace.keys[0]?.frame ?? shot.range.first;
      return {
        label: 'Walk more slowly',
        detail: `at ${(100 / scale).toFixed(0)} % of its speed; it arrives later`,
        shot: withPace(shot, rider.id, (before) =>
          before.mode === 'keys'
            ? withFrames(before, { from, to: from, scale })
            : timesAsFast(before, 1 / scale),
        ),
      };
    }),
  ];
};

/** As many frames as its ride takes. */
export const makeRange: Ways = ({ shot, finding }) => {
  const { first, last } = shot.range;
  const to = finding.to ?? last;
  return [
    [
      {
        label: `Make the range ${to - first + 1} frames`,
        detail: `frames ${first} to ${to} in place of ${first} to ${last}`,
        shot: { ...shot, range: { first, last: to } },
      },
    ],
  ];
};
