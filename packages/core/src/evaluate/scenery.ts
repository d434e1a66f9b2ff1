import type { Ground } from '../contact/ground.js';
import type { Puppet } from '../puppet/puppet.js';

/** What a shot is played with that is not in its document: the ground, and what of models can move, by the document's ids. */
export interface Scenery {
  readonly ground: Ground | null;
  readonly puppets: ReadonlyMap<string, Puppet>;
}

export const NO_SCENERY: Scenery = { ground: null, puppets: new Map() };
