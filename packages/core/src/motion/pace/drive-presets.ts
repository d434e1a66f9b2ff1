import type { Drive } from '../../document/shot-pace.js';

/** Limits to begin with, by what is driven. */
export const DRIVE_PRESETS: Readonly<
  Record<
    'stroll' | 'cart' | 'bus' | 'racer' | 'glide',
    Pick<Drive, 'top' | 'accelerate' | 'brake' | 'sideways' | 'jerk'>
  >
> = {
  stroll: { top: 1.4, accelerate: 0.8, brake: 1, sideways: 1.5, jerk: 4 },
  cart: { top: 4, accelerate: 0.8, brake: 1.2, sideways: 1.5, jerk: 2 },
  bus: { top: 12, accelerate: 1.2, brake: 1.5, sideways: 1.8, jerk: 1.5 },
  racer: { top: 60, accelerate: 8, brake: 12, sideways: 15, jerk: 40 },
  glide: { top: 6, accelerate: 0.6, brake: 0.6, sideways: 1, jerk: 0.4 },
};
