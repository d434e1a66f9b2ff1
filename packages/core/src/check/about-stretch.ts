import type { RawFinding, FixKind } from './finding.js';
import type { RiderLook } from './rider-look.js';
import type { Stretch } from './stretches.js';

/** Whose a stretch is, where and when it is worst, and how much: what most findings of a rider say beside their words. */
export function aboutStretch(
  look: RiderLook,
  { from, to, frame, worst }: Stretch,
  unit: string,
  fix: FixKind | null,
): Partial<RawFinding> {
  return {
    rider: look.rider.id,
    from,
    to,
    frame,
    distance: look.distanceAt(frame),
    figure: worst,
    unit,
    fix,
  };
}
