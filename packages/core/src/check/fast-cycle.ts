import { hierarchyOfRider } from '../shot/evaluate/scene-assets.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { aboutStretch } from './about-stretch.js';
import { framesText, stretchesOver } from './stretches.js';

/** Of a cycle there are two pictures at least, or the eye sees another one. */
const MOST = 0.5 - 1e-6;

/** Cycles and repeated clips too quick for the frame rate: at half of it they seem to stop or to go backward. */
export function findFastCycles(look: RiderLook): RawFinding[] {
  const { rider, first, fps, count } = look;
  return repeatsOf(look).flatMap(({ what, part, value }) => {
    const gone = (i: number) => (i === 0 ? 0 : Math.abs(value(first + i) - value(first + i - 1)));
    const [stretch, ...more] = stretchesOver(look, count, MOST, gone);
    if (stretch === undefined) return [];
    const worst = [stretch, ...more].reduce((a, b) => (b.worst > a.worst ? b : a));
    const frames = { from: stretch.from, to: (more.at(-1) ?? stretch).to };
    return [
      found(
        'fast-cycle',
        'warning',
        {
          ...aboutStretch(look, { ...worst, ...frames }, 'cycles a frame', null),
          part,
        },
        ({ rider: badge }) =>
          `${badge(rider.id)}: the ${what} "${part}" goes ${(worst.worst * fps).toFixed(1)} times a second at frame ${worst.frame}, ${framesText(frames)}; ${fps} frames a second show no more than ${(fps / 2).toFixed(1)}.`,
      ),
    ];
  });
}

/** Lists the cycles and clips of a rider that repeat, each with its number of runs by a frame; NaN while a clip is not shown. */
function repeatsOf({ rider, evaluated }: RiderLook) {
  const cycles = evaluated
    .gauges(rider)
    .filter(({ kind }) => kind === 'cycle')
    .map(({ part, value }) => ({ what: 'cycle of', part, value }));
  const hierarchy = hierarchyOfRider(evaluated.assets, rider);
  const blocks = hierarchy === null ? [] : evaluated.contact(rider).blocksIn(hierarchy);
  const clips = blocks
    .filter(({ repeats }) => repeats)
    .map(({ clip, weight, runs }) => ({
      what: 'clip',
      part: clip.name,
      value: (frame: number) => (weight(frame) > 0 ? runs(frame) : NaN),
    }));
  return [...cycles, ...clips];
}
