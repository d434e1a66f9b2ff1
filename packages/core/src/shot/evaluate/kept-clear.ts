import type { Clearance } from '../../document/shot-clearance.js';
import { compileClearance, type PositionAtFrame } from '../../motion/ride/clearance.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';
import type { Travel } from '../../motion/ride/travel.js';

type Scene = Parameters<typeof compileClearance>[2];

/** How far a rider is led away from its travel by what it keeps clear of. */
export function keptClear(
  clearance: Clearance,
  travel: Travel,
  scene: Omit<Scene, 'others'> & {
    readonly others: readonly { readonly pose: PoseAt; readonly distance: number }[];
  },
): PositionAtFrame | null {
  const frameOfTravel = new Float64Array(12);
  const way: PositionAtFrame = (frame, out) => {
    travel.place(frame, frameOfTravel);
    for (let k = 0; k < 3; k++) out[k] = frameOfTravel[k];
  };
  const others = scene.others.map(({ pose, distance }) => {
    const now = new Float64Array(POSE.size);
    const at: PositionAtFrame = (frame, out) => {
      pose(frame, now, 0);
      for (let k = 0; k < 3; k++) out[k] = now[k];
    };
    return { at, distance };
  });
  return compileClearance(clearance, way, { ...scene, others });
}
