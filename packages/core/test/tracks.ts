// Tracks that the tests of paces run on; not part of what core gives.
import { newShot, type Loose } from '../src/document/new-shot.js';
import type { Pace } from '../src/document/shot-pace.js';
import type { BentTrack } from '../src/geometry/path/corners.js';

/** A straight level track. */
export const straight = (length: number, closed = false): BentTrack => ({
  length,
  closed,
  curvature: () => 0,
  tangent: (_, out) => {
    out[0] = out[1] = 0;
    out[2] = 1;
  },
  joints: [0, length],
});

/** A pace as a document would have it. */
export function paceOf(pace: Loose<Pace>): Pace {
  const shot = newShot({
    name: 't',
    paths: [{ id: 'p', name: 'P' }],
    riders: [{ id: 'r', name: 'R', attachment: { path: 'p', pace } }],
  });
  return shot.riders[0].attachment?.pace as Pace;
}
