import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { LOCAL } from '../../character/hierarchy/node-hierarchy.js';
import { takeShortWay } from './sampled-parts.js';
import type { Shot } from '../../document/shot.js';

/** How a part turns at even steps of less than a frame, from the first frame to the last. */
export interface PartBetween {
  readonly node: string;
  /** Steps a frame. */
  readonly steps: number;
  /** Of four numbers a step. */
  readonly rotations: Float64Array;
}

/** Turns of a wheel between two keys, beyond which a reader may go the other way round. */
const MOST_TURNS = 1 / 3;
/** A wheel that turns faster than this allows looks like none whatever keys it has. */
const MOST_STEPS = 64;

/** Wheels by rider that turn over a third of a turn in some frame, sampled between frames. */
export function betweenFrames(
  evaluated: EvaluatedShot,
  { shot, first, frames }: { readonly shot: Shot; readonly first: number; readonly frames: number },
): PartBetween[][] {
  return shot.riders.map((rider) => {
    const { nodes, size, pose } = evaluated.parts(rider);
    if (size === 0 || frames < 2) return [];
    const fast = evaluated.gauges(rider).flatMap((gauge) => {
      const node = nodes.find(({ name }) => name === gauge.part);
      if (gauge.kind !== 'turns' || node === undefined) return [];
      const turns = Array.from({ length: frames }, (_, i) => gauge.value(first + i));
      const most = turns.reduce(
        (all, now, i) => (i === 0 ? 0 : Math.max(all, Math.abs(now - turns[i - 1]))),
        0,
      );
      const steps = Math.min(MOST_STEPS, Math.ceil(most / MOST_TURNS - 1e-9));
      return steps > 1 ? [{ node, steps }] : [];
    });
    if (fast.length === 0) return [];
    const now = new Float64Array(size);
    return fast.map(({ node: { name, at }, steps }): PartBetween => {
      const rotations = new Float64Array(4 * ((frames - 1) * steps + 1));
      for (let i = 0; 4 * i < rotations.length; i++) {
        pose(first + i / steps, now, 0);
        rotations.set(now.subarray(at + LOCAL.rotation, at + LOCAL.rotation + 4), 4 * i);
        if (i > 0) takeShortWay(rotations, 4 * i, rotations, 4 * i - 4);
      }
      return { node: name, steps, rotations };
    });
  });
}
