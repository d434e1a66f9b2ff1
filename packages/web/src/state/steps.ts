/** Steps of the work, in order; each is on the step line and has an address. */
export const STEPS = [
  { id: 'path', name: 'Path' },
  { id: 'attach', name: 'Attach' },
  { id: 'facing', name: 'Facing' },
  { id: 'contact', name: 'Contact' },
  { id: 'pace', name: 'Pace' },
  { id: 'check', name: 'Check' },
  { id: 'hand-over', name: 'Hand over' },
] as const;

/** Former addresses of steps, as in bookmarks. */
export const FORMER_STEP_IDS: Readonly<Record<string, StepId>> = { deliver: 'hand-over' };

export type StepId = (typeof STEPS)[number]['id'];
