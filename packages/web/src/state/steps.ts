/** The steps of the work, in its order; each is a station on the line and an address. */
export const STEPS = [
  { id: 'path', name: 'Path' },
  { id: 'attach', name: 'Attach' },
  { id: 'facing', name: 'Facing' },
  { id: 'contact', name: 'Contact' },
  { id: 'pace', name: 'Pace' },
  { id: 'check', name: 'Check' },
  { id: 'hand-over', name: 'Hand over' },
] as const;

/** Addresses that stations had before, as in bookmarks. */
export const FORMER_STEP_IDS: Readonly<Record<string, StepId>> = { deliver: 'hand-over' };

export type StepId = (typeof STEPS)[number]['id'];
