import { withRider } from '../../shot/edits/change-rider.js';
import { takeFoundRig } from '../../shot/edits/take-rig.js';
import { hierarchyOfRider } from '../../shot/evaluate/scene-assets.js';
import { findGait } from '../../character/gait/find-gait.js';
import type { Ways } from './fix.js';

/** The wheels that were found in its model. */
export const takeRig: Ways = ({ shot, rider, scene }) => {
  const rig = scene.models.get(rider.model ?? '')?.rig;
  if (!rig || rig.wheels.length === 0) return [];
  const nodes = rig.wheels.map(({ node }) => node).join(', ');
  return [
    [
      {
        label: 'Use the found wheels',
        detail: `${rig.wheels.length}: ${nodes}`,
        shot: takeFoundRig(shot, rider.id, rig, rider.chassis),
      },
    ],
  ];
};

/** The radius that its wheels have in its model. */
export const takeRadius: Ways = ({ shot, rider, scene }) => {
  const found = new Map(
    scene.models.get(rider.model ?? '')?.rig.wheels.map((wheel) => [wheel.node, wheel.radius]),
  );
  return [
    [
      {
        label: 'Measure the wheels',
        detail: rider.wheels
          .flatMap(({ node, radius }) => {
            const real = found.get(node);
            return real === undefined || real === radius
              ? []
              : [`${node} ${radius.toFixed(3)} → ${real.toFixed(3)} m`];
          })
          .join(', '),
        shot: withRider(shot, rider.id, (before) => ({
          ...before,
          wheels: before.wheels.map((wheel) => ({ ...wheel, radius: found.get(wheel.node) ?? wheel.radius })),
        })),
      },
    ],
  ];
};

/** Feet that stay where they are set down. */
export const plantFeet: Ways = ({ shot, rider }) => [
  [
    {
      label: 'Lock its feet to the ground',
      detail: 'planted feet do not slide',
      shot: withRider(shot, rider.id, (before) =>
        before.gait ? { ...before, gait: { ...before.gait, plant: true } } : before,
      ),
    },
  ],
];

/** Sets the stride of its clip: its legs then reach its feet. */
export const clipStride: Ways = ({ evaluated, shot, rider }) => {
  const hierarchy = hierarchyOfRider(evaluated.assets, rider);
  const clip = hierarchy?.clips.find(({ name }) => name === rider.gait?.clip);
  if (!hierarchy || !clip || !rider.attachment) return [];
  const { forward, up } = rider.attachment.facing;
  const { stride } = findGait(hierarchy, clip, forward, up);
  if (!(stride > 0)) return [];
  return [
    [
      {
        label: 'Use the stride of its clip',
        detail: `${(rider.gait?.stride ?? 0).toFixed(2)} → ${stride.toFixed(2)} m a cycle; it takes more steps`,
        shot: withRider(shot, rider.id, (before) =>
          before.gait ? { ...before, gait: { ...before.gait, stride } } : before,
        ),
      },
    ],
  ];
};
