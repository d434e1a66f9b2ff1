import type { Document } from '@gltf-transform/core';
import { GroundSurface } from '../geometry/ground/ground-surface.js';
import type { Shot } from '../document/shot.js';
import { physicsFor } from '../shot/evaluate/physics-for.js';
import type { SceneAssets } from '../shot/evaluate/scene-assets.js';
import { groundOfShot } from './ground-read.js';
import { hierarchyOf } from './hierarchy-read.js';

/**
 * Assets of a shot, from its models.
 *
 * @param models by the document's model ids; those that are missing stay as they stand
 */
export async function assetsOf(shot: Shot, models: ReadonlyMap<string, Document>): Promise<SceneAssets> {
  const hierarchies = new Map([...models].map(([id, model]) => [id, hierarchyOf(model)] as const));
  const mesh = groundOfShot(shot, models.get(shot.ground.model ?? ''));
  return { ground: mesh && new GroundSurface(mesh), hierarchies, physics: await physicsFor(shot) };
}
