import { withAttachment } from '../../shot/edits/change-rider.js';
import { reshapeRiddenPath } from '../../shot/edits/keep-places.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Shot } from '../../document/shot.js';
import { detourPath } from '../../geometry/reshape/detour.js';
import { roundCorners } from '../../geometry/reshape/round-corners.js';
import { smoothPath } from '../../geometry/reshape/smooth.js';
import { metres, type Fix, type Ways } from './fix.js';

/** Corners of the path are made round, as little of it as helps. */
export const roundCorner: Ways = ({ shot, rider }) => {
  const path = shot.paths.find(({ id }) => id === rider.attachment?.path);
  if (path === undefined) return [];
  const { corner } = shot.checks.limits;
  return [
    [2, 4, 8].map((most) => ({
      label: 'Round the corners',
      detail: `up to ${metres(most)} before and behind each; ${path.name} becomes a Bézier path`,
      shot: reshapeRiddenPath(shot, roundCorners(path, corner, most)),
    })),
  ];
};

/** The path is made smoother, as little as helps. */
export const smoothTheWay: Ways = ({ shot, rider }) => {
  const path = shot.paths.find(({ id }) => id === rider.attachment?.path);
  if (path === undefined) return [];
  return [
    [0.2, 0.4, 0.6, 0.8, 1].map((strength) => ({
      label: 'Smooth the path',
      detail: `${path.name}, strength ${strength}`,
      shot: reshapeRiddenPath(shot, smoothPath(path, strength)),
    })),
  ];
};

/** The path is led round what it runs through, as little as helps, to one side or the other. */
export const detour: Ways = ({ shot, rider, finding }) => {
  const path = shot.paths.find(({ id }) => id === rider.attachment?.path);
  if (path === undefined || finding.distance === null) return [];
  return [detours(shot, path, finding.distance)];
};

function* detours(shot: Shot, path: ShotPath, at: number): Generator<Fix, void, undefined> {
  for (const far of ASIDE)
    for (const side of [far, -far]) {
      const reach = Math.max(6, 4 * far);
      yield {
        label: 'Keep clear',
        detail: `${path.name} moves ${metres(far)} to the ${side > 0 ? 'left' : 'right'} within ${metres(reach)} before and after`,
        shot: reshapeRiddenPath(shot, detourPath(path, at, side, reach)),
      };
    }
}

/** Metres aside that are tried. */
const ASIDE = [0.25, 0.5, 0.75, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8];

/** The bank follows the bends over a longer stretch. */
export const widenBank: Ways = ({ shot, rider }) => {
  const before = rider.attachment?.bank.window ?? 0;
  return [
    [2, 4, 8, 16, 32].map((times) => {
      const window = Math.max(1, before) * times;
      return {
        label: 'Bank more calmly',
        detail: `curvature averaged over ${metres(window)} instead of ${metres(before)}`,
        shot: withAttachment(shot, rider.id, (attachment) => ({
          ...attachment,
          bank: { ...attachment.bank, window },
        })),
      };
    }),
  ];
};
