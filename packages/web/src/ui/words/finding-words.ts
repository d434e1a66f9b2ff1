import type { CheckLimits, FindingKind, Severity } from '@fleet-rail/core';
import type { QuantityKind } from '../quantity';

/** Name of each kind of finding. */
export const KIND_NAMES: Readonly<Record<FindingKind, string>> = {
  'missing-model': 'Missing part',
  'no-curve': 'No curve',
  'loose-end': 'Loose end',
  'cue-never': 'Idle cue',
  'not-over': 'Ride ends after the range',
  'past-end': 'Past the end',
  'never-moves': 'Never moves',
  kink: 'Corner',
  rough: 'Shakes',
  jolt: 'Jolt',
  grip: 'Too fast for the bend',
  flip: 'Flip',
  'tail-first': 'Tail first',
  'under-ground': 'Under the ground',
  'off-ground': 'Off the ground',
  'through-set': 'Through the set',
  overlap: 'Overlap',
  'level-jump': 'Level jump',
  'feet-slide': 'Feet slide',
  'feet-under': 'Feet sink',
  'steps-quick': 'Quick steps',
  'out-of-reach': 'Out of reach',
  'wheels-still': 'Wheels stand still',
  'wheel-slide': 'Wheel slides',
  'fast-cycle': 'Cycle too fast for the frame rate',
  'fast-wheel': 'Wheel too fast to see',
  'radius-off': 'Wheel radius',
  seam: 'Open loop',
  'doubled-frame': 'Doubled frame',
  near: 'Camera too near',
  'camera-under-ground': 'Camera under the ground',
  'out-of-frame': 'Out of the picture',
  hidden: 'Hidden',
};

export const SEVERITY_NAMES: Readonly<Record<Severity, { one: string; many: string }>> = {
  fault: { one: 'fault', many: 'Faults' },
  warning: { one: 'warning', many: 'Warnings' },
  note: { one: 'note', many: 'Notes' },
};

/** Limits as fields. */
export const LIMIT_FIELDS: readonly {
  readonly key: keyof CheckLimits;
  readonly name: string;
  readonly kind: QuantityKind;
  readonly unit: string;
}[] = [
  { key: 'corner', name: 'Corner', kind: 'angle', unit: '°' },
  { key: 'swing', name: 'Shake, least', kind: 'angle', unit: '°' },
  { key: 'jolt', name: 'Jolt', kind: 'count', unit: 'g' },
  { key: 'joltOnFoot', name: 'Jolt on foot', kind: 'count', unit: 'g' },
  { key: 'grip', name: 'Grip in bends', kind: 'count', unit: 'g' },
  { key: 'flip', name: 'Flip', kind: 'angle', unit: '° a frame' },
  { key: 'backing', name: 'Backing up to', kind: 'speed', unit: 'm/s' },
  { key: 'under', name: 'Under the ground', kind: 'length', unit: 'm' },
  { key: 'over', name: 'Off the ground', kind: 'length', unit: 'm' },
  { key: 'overlap', name: 'Overlap', kind: 'length', unit: 'm' },
  { key: 'wheelSlide', name: 'Wheel slide', kind: 'speed', unit: 'm/s' },
  { key: 'feetSlide', name: 'Foot slide', kind: 'length', unit: 'm' },
  { key: 'near', name: 'Camera distance', kind: 'length', unit: 'm' },
  { key: 'hidden', name: 'Hidden for', kind: 'time', unit: 's' },
];
