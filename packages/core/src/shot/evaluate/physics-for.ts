import type { Shot } from '../../document/shot.js';
import type { Physics } from '../../effects/forces/physics.js';
import { needsPhysics } from './scene-assets.js';

/** Rigid bodies for a shot that needs them; null for one that does not, which then has not to wait for their program. */
export async function physicsFor(shot: Pick<Shot, 'riders'>): Promise<Physics | null> {
  if (!needsPhysics(shot)) return null;
  const { loadPhysics } = await import('../../effects/forces/rapier-physics.js');
  return loadPhysics();
}
