import type { Document } from '@gltf-transform/core';
import { Ground } from '../contact/index.js';
import type { Shot } from '../document/shot.js';
import { goesByGround, movesByItself, type Scenery } from '../evaluate/index.js';
import { groundMeshOf } from './ground-read.js';
import { puppetOf } from './puppet-read.js';

/**
 * What a shot is played with, from its models.
 *
 * @param models by the document's model ids; those that are missing stay as they stand
 */
export function sceneryOf(shot: Shot, models: ReadonlyMap<string, Document>): Scenery {
  const puppets = new Map([...models].map(([id, model]) => [id, puppetOf(model)] as const));
  const floor = models.get(shot.ground.model ?? '');
  const mesh = floor ? groundMeshOf(floor, shot.ground.nodes) : null;
  return { ground: mesh && new Ground(mesh), puppets };
}

/** Whether a shot needs its models' files to be played, and not only to be seen. */
export function needsScenery({ riders, cues }: Pick<Shot, 'riders' | 'cues'>): boolean {
  return (
    cues.some(({ does }) => does.node !== null) ||
    riders.some((rider) => movesByItself(rider) || goesByGround(rider))
  );
}
