import type { Document } from '@gltf-transform/core';
import type { CheckScene } from '../check/check-scene.js';
import type { Shot } from '../document/shot.js';
import { staticSetMeshOf } from './ground-read.js';
import { rigOf } from './model-read.js';
import { modelMeshOf } from './solids-read.js';

/**
 * Scene that a shot is checked against.
 *
 * @param models  by the document’s ids
 * @param missing ids of those that cannot be read
 */
export function checkSceneOf(
  shot: Shot,
  models: ReadonlyMap<string, Document>,
  missing: ReadonlySet<string> = new Set(),
): CheckScene {
  const floor = models.get(shot.ground.model ?? '');
  return {
    models: new Map([...models].map(([id, model]) => [id, { mesh: modelMeshOf(model), rig: rigOf(model) }])),
    missing,
    staticSet: floor ? staticSetMeshOf(floor, shot.ground.nodes) : null,
  };
}
