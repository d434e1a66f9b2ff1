import type { AimTarget, Axis } from './shot-facing.js';
import type { Rider } from './shot-rider.js';

const FRONT = { forward: '+z' as Axis, up: '+y' as Axis };

type Turned = Pick<Rider, 'attachment' | 'restAim'>;

/** A rider's own forward and up: as its attachment has them, or what it looks by. */
export function axesOf({ attachment, restAim }: Turned): { readonly forward: Axis; readonly up: Axis } {
  return attachment?.facing ?? restAim ?? FRONT;
}

/** Target of a rider: on its path, or at rest; null if it only faces its travel. */
export function aimedAt({ attachment, restAim }: Turned): AimTarget | null {
  if (attachment === null) return restAim?.target ?? null;
  return attachment.facing.mode === 'aim' ? attachment.facing.target : null;
}
