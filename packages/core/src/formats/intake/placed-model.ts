import type { Document, Node } from '@gltf-transform/core';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { sceneOf } from '../gltf-scene.js';

/** Placement of an uploaded model inside the model of riders. */
export interface ModelPlacing {
  /** Metres that a unit of it is. */
  readonly scale: number;
  readonly translation: Vec3;
  readonly rotation: Quat;
}

export const AS_IT_CAME: ModelPlacing = { scale: 1, translation: [0, 0, 0], rotation: [0, 0, 0, 1] };

/** By this a node is known that was put over all others to place them. */
const MARK = 'placed';

/** How a model was placed after it came. */
export function placingOf(model: Document): ModelPlacing {
  const over = placingNode(model);
  if (over === null) return AS_IT_CAME;
  const [scale] = over.getScale();
  return { scale, translation: over.getTranslation() as Vec3, rotation: over.getRotation() as Quat };
}

/** Places all of a model's scene by a node over it; one that is there from before is set anew. */
export function placeModel(model: Document, { scale, translation, rotation }: ModelPlacing): void {
  const scene = sceneOf(model);
  if (!scene) return;
  let over = placingNode(model);
  if (over === null) {
    const tops = scene.listChildren();
    over = model.createNode(MARK).setExtras({ [MARK]: true });
    for (const node of tops) over.addChild(node);
    scene.addChild(over);
  }
  over.setScale([scale, scale, scale]).setTranslation(translation).setRotation(rotation);
}

function placingNode(model: Document): Node | null {
  const [only, ...others] = sceneOf(model)?.listChildren() ?? [];
  return only && others.length === 0 && only.getExtras()[MARK] === true ? only : null;
}
