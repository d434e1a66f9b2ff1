/** The steps of the work, in its order; each is a station on the line and an address. */
export const STATIONS = [
  { id: 'path', name: 'Path' },
  { id: 'attach', name: 'Attach' },
  { id: 'facing', name: 'Facing' },
  { id: 'contact', name: 'Contact' },
  { id: 'pace', name: 'Pace' },
  { id: 'check', name: 'Check' },
  { id: 'hand-over', name: 'Hand over' },
] as const;

/** Addresses that stations had before, as in bookmarks. */
export const FORMER_STATIONS: Readonly<Record<string, StationId>> = { deliver: 'hand-over' };

export type StationId = (typeof STATIONS)[number]['id'];
