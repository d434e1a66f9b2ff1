import type { Ease, KeyEase } from '@fleet-rail/core';

/** How a value runs from its key to the next, as a choice. */
export const EASES: readonly { id: KeyEase; name: string }[] = [
  { id: 'smooth', name: 'Smooth' },
  { id: 'linear', name: 'Linear' },
  { id: 'hold', name: 'Hold' },
];

/** The same with what is drawn by hand. */
export const ALL_EASES: readonly { id: Ease; name: string }[] = [
  ...EASES,
  { id: 'handles', name: 'Handles' },
];
