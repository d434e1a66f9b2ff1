// Riders, lanes and ground to plant faults in; not part of what core gives.
import { GroundSurface } from '../src/geometry/ground/ground-surface.js';
import type { Loose } from '../src/document/new-shot.js';
import type { ShotPath } from '../src/document/shot-path.js';
import type { Rider } from '../src/document/shot-rider.js';
import type { Vec3 } from '../src/geometry/math/vec.js';
import { CART_AXLES, cart } from './carts.js';
import { even, runs } from './shots.js';
import { STANCE, STRIDE } from './walker.js';

export const rider = (
  attachment: Loose<NonNullable<Rider['attachment']>>,
  more: Loose<Rider> = {},
): Loose<Rider> => ({
  id: 'r',
  name: 'R',
  badge: 'R1',
  attachment: { path: 'p', pace: even(0, 40), ...attachment },
  ...more,
});
export const vehicle = (attachment: Loose<NonNullable<Rider['attachment']>> = {}, more: Loose<Rider> = {}) =>
  rider(attachment, { ...cart, chassis: CART_AXLES, ...more });
export const crate = (attachment: Loose<NonNullable<Rider['attachment']>> = {}, more: Loose<Rider> = {}) =>
  rider(attachment, { model: 'crate', ...more });
export const camera = (attachment: Loose<NonNullable<Rider['attachment']>> = {}, more: Loose<Rider> = {}) =>
  rider(attachment, { kind: 'camera', camera: {}, ...more });
export const standing = (position: Vec3, more: Loose<Rider> = {}): Loose<Rider> => ({
  id: 's',
  name: 'S',
  badge: 'S2',
  model: 'crate',
  rest: { translation: position },
  ...more,
});
/** A lane of 40 m whose height depends on the distance. */
export const high = (...heights: number[]) =>
  runs(...heights.map((y, i): Vec3 => [0, y, (40 * i) / (heights.length - 1)]));
export const walker = (
  more: Loose<NonNullable<Rider['gait']>>,
  attachment: Loose<NonNullable<Rider['attachment']>> = {},
) =>
  rider(
    { pace: even(0, 4.8), ...attachment },
    {
      kind: 'character',
      model: 'walker',
      gait: {
        clip: 'walk',
        stride: STRIDE,
        feet: ['foot_l', 'foot_r'].map((node, i) => ({
          node,
          stances: [{ from: i / 2, to: i / 2 + STANCE }],
        })),
        ...more,
      },
    },
  );
/** A deck 4 m over level ground, from 18 to 22 m of it gone. */
export const BROKEN_BRIDGE = new GroundSurface({
  positions: Float64Array.from([
    ...[-50, 0, -50, 50, 0, -50, 50, 0, 90, -50, 0, 90],
    ...[-5, 4, -50, 5, 4, -50, 5, 4, 18, -5, 4, 18],
    ...[-5, 4, 22, 5, 4, 22, 5, 4, 90, -5, 4, 90],
  ]),
  indices: Uint32Array.from([0, 4, 8].flatMap((k) => [k, k + 2, k + 1, k, k + 3, k + 2])),
});
/** A quarter to the left and a quarter to the right, of 5 m each. */
export const S_BEND: Loose<ShotPath> = {
  id: 'p',
  name: 'P',
  basis: 'bezier',
  points: [
    { position: [0, 0, 0], out: [0, 0, 2.7614] },
    { position: [5, 0, 5], in: [-2.7614, 0, 0], out: [2.7614, 0, 0] },
    { position: [10, 0, 10], in: [0, 0, -2.7614] },
  ],
};
