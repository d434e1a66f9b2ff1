import { defaultsOf } from '../document/defaults.js';
import { Gait } from '../document/shot-rider.js';
import type { Rider } from '../document/shot-rider.js';
import type { FoundGait } from '../gait/index.js';
import type { FoundRig } from '../wheels/index.js';

/** A rider with the wheels, steering wheel, body or ball that were found in its model; wheels are kept as they steer and drive. */
export function withFoundRig(rider: Rider, rig: FoundRig): Rider {
  return {
    ...rider,
    wheels: rig.wheels.map((found) => {
      const before = rider.wheels.find(({ node }) => node === found.node);
      return before ? { ...found, steers: before.steers, drives: before.drives } : { ...found };
    }),
    steering: { ...rider.steering, node: rig.steering.node, axis: rig.steering.axis },
    body: { ...rider.body, node: rig.body },
    ball: rig.ball,
  };
}

/** A rider that walks by a clip, with the stride and the feet that were measured in it; the stillest clip is its standing one. */
export function withFoundGait(rider: Rider, clip: string, gaits: readonly FoundGait[]): Rider {
  const found = gaits.find((gait) => gait.clip === clip);
  const still = gaits.find((gait) => gait.still && gait.clip !== clip)?.clip ?? null;
  const before = rider.gait ?? { ...defaultsOf(Gait), clip, stride: 1, idle: still };
  return {
    ...rider,
    gait: {
      ...before,
      clip,
      stride: found && found.stride > 0 ? found.stride : before.stride,
      feet: found ? found.feet.map((foot) => ({ ...foot })) : [],
    },
  };
}
