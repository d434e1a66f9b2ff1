import { defaultsOf } from '../../document/defaults.js';
import { Gait } from '../../document/shot-rider.js';
import type { Chassis, Rider } from '../../document/shot-rider.js';
import type { FoundGait } from '../../character/gait/find-gait.js';
import type { Shot } from '../../document/shot.js';
import type { FoundRig } from '../../vehicle/wheels/find-rig.js';

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

/**
 * Riders set up as one is, including itself: its copies in a formation or relay, or its original with all copies;
 * those with its model and set-up.
 *
 * @param parts what has to be the same, as it is kept
 */
function alike(shot: Shot, id: string, parts: (rider: Rider) => unknown): ReadonlySet<string> {
  const rider = shot.riders.find((one) => one.id === id);
  if (!rider) return new Set();
  const led = ({ attachment, follow }: Rider) => attachment?.pacedBy?.rider ?? follow?.rider;
  const head = led(rider) ?? id;
  const own = JSON.stringify(parts(rider));
  return new Set(
    shot.riders
      .filter((one) => one.id === id || one.id === head || led(one) === head)
      .filter((one) => one.model === rider.model && JSON.stringify(parts(one)) === own)
      .map((one) => one.id),
  );
}

const changed = (shot: Shot, ids: ReadonlySet<string>, change: (rider: Rider) => Rider): Shot => ({
  ...shot,
  riders: shot.riders.map((rider) => (ids.has(rider.id) ? change(rider) : rider)),
});

/**
 * The shot in which a rider has the wheels, steering and body found in its model, and axles if it had none; so have
 * its copies with the same set-up.
 */
export function takeFoundRig(shot: Shot, id: string, rig: FoundRig, chassis: Chassis | null): Shot {
  const ids = alike(shot, id, ({ wheels, ball, body, steering }) => [wheels, ball, body.node, steering.node]);
  return changed(shot, ids, (rider) => ({
    ...withFoundRig(rider, rig),
    chassis: rider.chassis ?? chassis,
  }));
}

/** The shot in which a rider walks by a clip, and so do its copies that walked as it did: see {@link withFoundGait}. */
export function takeFoundGait(shot: Shot, id: string, clip: string, gaits: readonly FoundGait[]): Shot {
  const ids = alike(shot, id, ({ gait }) => gait);
  return changed(shot, ids, (rider) => withFoundGait(rider, clip, gaits));
}
