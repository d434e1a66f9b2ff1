import type { RawFinding, FixKind } from './finding.js';
import type { RiderLook } from './rider-look.js';
import type { Stretch } from './stretches.js';

/** Rider, span and worst value of a stretch: the fields that most findings of a rider share. */
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
