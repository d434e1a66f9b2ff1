import { SEAM_UNITS, isOpen, seamOf, type SeamGap } from '../shot/loop/seam-report.js';
import { canClose } from '../shot/loop/closings.js';
import { POSE, type PoseAt } from '../motion/pose/pose.js';
import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import type { RiderLook } from './rider-look.js';
import { found, type RawFinding } from './finding.js';

const CHANNELS: Readonly<Record<SeamGap['channel'], string>> = {
  place: 'place',
  heading: 'heading',
  bank: 'bank',
  roll: 'roll',
  speed: 'speed',
  wheel: 'wheel',
  gait: 'step',
  cycle: 'cycle',
  part: 'part',
  swing: 'swing',
  focal: 'focal length',
};

/** Places that are this near are one, metres. */
const SAME = 1e-5;

/** Gaps at the seam of a rider: one finding for all of its channels, or that its last frame repeats its first. */
export function findSeam({ evaluated, rider, index, scene }: RiderLook): RawFinding[] {
  const { shot } = evaluated;
  if (!shot.loop) return [];
  const gaps = seamOf(evaluated, rider, scene.models).filter(isOpen);
  if (gaps.length === 0) return [];
  if (isDoubled(evaluated, evaluated.poses[index])) return [doubled(evaluated, rider.id)];
  // The first channel is the cause of those after it.
  const [gap] = gaps;
  const { last } = shot.range;
  return [
    found(
      'seam',
      'fault',
      {
        rider: rider.id,
        part: gap.part ?? CHANNELS[gap.channel],
        from: last,
        to: last,
        frame: last,
        figure: gap.gap,
        unit: SEAM_UNITS[gap.channel] || null,
        fix: canClose(shot, gap) ? 'close-loop' : null,
      },
      ({ rider: badge }) =>
        `The loop of ${badge(rider.id)} does not close: its ${CHANNELS[gap.channel]}${gap.part ? ` "${gap.part}"` : ''} misses ${
          gap.meets === rider.id ? '' : `that of ${badge(gap.meets)} `
        }by ${figure(gap)}${gaps.length > 1 ? `, and ${gaps.length - 1} more with it` : ''}.`,
    ),
  ];
}

const figure = ({ gap, rate, channel }: SeamGap) =>
  gap > 1e-4
    ? `${gap.toFixed(3)} ${SEAM_UNITS[channel]}`
    : `${(rate ?? 0).toFixed(2)} ${SEAM_UNITS[channel]}/s`;

/** Whether a rider is at the last frame where it was at the first, though it moves there. */
function isDoubled({ shot: { range } }: EvaluatedShot, pose: PoseAt): boolean {
  const at = (frame: number) => {
    const out = new Float64Array(POSE.size);
    pose(frame, out, 0);
    return out;
  };
  const far = (a: Float64Array, b: Float64Array) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  const [first, second, last] = [range.first, range.first + 1, range.last].map(at);
  return range.last - range.first > 2 && far(first, last) < SAME && far(first, second) > 10 * SAME;
}

function doubled({ shot }: EvaluatedShot, id: string): RawFinding {
  const { first, last } = shot.range;
  return found(
    'doubled-frame',
    'fault',
    { rider: id, from: last, to: last, frame: last, figure: 1, unit: 'frame', fix: 'past-doubled' },
    ({ rider: badge }) =>
      `The last frame of ${badge(id)} repeats its first, so the loop stops for a frame: frame ${last} belongs at ${last + 1}, which is ${first} of the next round.`,
  );
}
