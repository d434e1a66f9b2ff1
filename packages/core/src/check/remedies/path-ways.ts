import { withHitch } from '../../arrange/change-rider.js';
import { reshapeRiddenPath } from '../../arrange/keep-places.js';
import { roundCorners } from '../../reshape/round-corners.js';
import { smoothPath } from '../../reshape/smooth.js';
import { metres, type Ways } from './remedy.js';

/** Corners of the path are made round, as little of it as helps. */
export const roundCorner: Ways = ({ shot, rider }) => {
  const path = shot.paths.find(({ id }) => id === rider.hitch?.path);
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
  const path = shot.paths.find(({ id }) => id === rider.hitch?.path);
  if (path === undefined) return [];
  return [
    [0.2, 0.4, 0.6, 0.8, 1].map((strength) => ({
      label: 'Smooth the path',
      detail: `${path.name}, strength ${strength}`,
      shot: reshapeRiddenPath(shot, smoothPath(path, strength)),
    })),
  ];
};

/** The bank follows the bends over a longer stretch. */
export const widenBank: Ways = ({ shot, rider }) => {
  const before = rider.hitch?.bank.window ?? 0;
  return [
    [2, 4, 8, 16, 32].map((times) => {
      const window = Math.max(1, before) * times;
      return {
        label: 'Bank more calmly',
        detail: `bends are felt over ${metres(window)} instead of ${metres(before)}`,
        shot: withHitch(shot, rider.id, (hitch) => ({ ...hitch, bank: { ...hitch.bank, window } })),
      };
    }),
  ];
};
