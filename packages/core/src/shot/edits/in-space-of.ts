import type { Rider } from '../../document/shot-rider.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { carried, intoCarrier } from '../../motion/pose/rest-pose.js';

/**
 * A rider's rest and its keys by hand, brought from the space of one carrier into that of another, as both are posed; null is the
 * world. At that moment it is where it was.
 */
export function inSpaceOf(rider: Rider, from: Float64Array | null, to: Float64Array | null): Rider {
  const brought = <T extends { readonly translation: Vec3; readonly rotation: Quat }>(placed: T): T => {
    const translation: Vec3 = [...placed.translation];
    const rotation: Quat = [...placed.rotation];
    if (from !== null) carried((_, out) => out.set(from), 0, translation, rotation);
    if (to !== null) intoCarrier(to, translation, rotation);
    return { ...placed, translation, rotation };
  };
  const { rest, transformKeys } = rider;
  return {
    ...rider,
    rest: brought(rest),
    transformKeys: transformKeys && { keys: transformKeys.keys.map(brought) },
  };
}
