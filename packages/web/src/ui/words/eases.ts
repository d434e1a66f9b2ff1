import type { Ease, KeyEase } from '@fleet-rail/core';

/** How a value runs from its key to the next, as a choice. */
export const KEY_EASE_LABELS: readonly { id: KeyEase; name: string }[] = [
  { id: 'smooth', name: 'Smooth' },
  { id: 'linear', name: 'Linear' },
  { id: 'hold', name: 'Hold' },
];

/** The same with what is drawn by hand. */
export const EASE_LABELS: readonly { id: Ease; name: string }[] = [
  ...KEY_EASE_LABELS,
  { id: 'handles', name: 'Handles' },
];
