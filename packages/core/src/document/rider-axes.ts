import type { AimTarget, Axis } from './shot-facing.js';
import type { Rider } from './shot-rider.js';

const FRONT = { forward: '+z' as Axis, up: '+y' as Axis };

type Turned = Pick<Rider, 'hitch' | 'looks'>;

/** A rider's own forward and up: as its hitch has them, or what it looks by. */
export function axesOf({ hitch, looks }: Turned): { readonly forward: Axis; readonly up: Axis } {
  return hitch?.facing ?? looks ?? FRONT;
}

/** What a rider is turned to: on its path, or where it stands; null where that is nothing but its way. */
export function aimedAt({ hitch, looks }: Turned): AimTarget | null {
  if (hitch === null) return looks?.target ?? null;
  return hitch.facing.mode === 'aim' ? hitch.facing.target : null;
}
