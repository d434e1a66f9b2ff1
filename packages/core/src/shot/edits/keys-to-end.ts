import type { Pace } from '../../document/shot-pace.js';
import type { Shot } from '../../document/shot.js';
import { metresPerValue } from '../../motion/pace/change-unit.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';

/** An end is met within this part of a path's length. */
const SAME = 1e-6;

/**
 * A shot after one of its paths was closed: rides to the path's end still end there, which is their start.
 *
 * @param from the path as it was, open
 * @param to   as it is now
 */
export function keysToEnd(shot: Shot, path: string, from: CompiledPath, to: CompiledPath): Shot {
  const run = (pace: Pace): Pace => {
    const key = pace.keys.at(-1);
    const metres = metresPerValue(pace, to);
    // The curve that was there is there still: places on it are as far along as they were.
    if (pace.mode !== 'keys' || !key || Math.abs(key.value * metres - from.length) > SAME * from.length)
      return pace;
    return { ...pace, keys: [...pace.keys.slice(0, -1), { ...key, value: to.length / metres }] };
  };
  return {
    ...shot,
    riders: shot.riders.map((rider) =>
      rider.attachment?.path === path
        ? { ...rider, attachment: { ...rider.attachment, pace: run(rider.attachment.pace) } }
        : rider,
    ),
  };
}
