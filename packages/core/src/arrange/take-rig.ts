import type { Rider } from '../document/shot-rider.js';
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
