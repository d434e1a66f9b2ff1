/** The steps of the work, in its order; each is a station on the line and an address. */
export const STATIONS = [
  { id: 'path', name: 'Path' },
  { id: 'attach', name: 'Attach' },
  { id: 'facing', name: 'Facing' },
  { id: 'contact', name: 'Contact' },
  { id: 'pace', name: 'Pace' },
  { id: 'check', name: 'Check' },
  { id: 'deliver', name: 'Deliver' },
] as const;

export type StationId = (typeof STATIONS)[number]['id'];
