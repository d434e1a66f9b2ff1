import type { Rider } from '../../document/shot-rider.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';

/** Whether forces moved a rider in what was baked of it. */
export function isDynamic({ rigidBody, frozen }: Rider, { physics }: SceneAssets): boolean {
  return rigidBody !== null && frozen === null && !!physics;
}

/** The bake already holds the effect of forces: they must not act twice. */
export function withoutForces(rider: Rider, assets: SceneAssets): Pick<Rider, 'rigidBody'> {
  return { rigidBody: isDynamic(rider, assets) ? null : rider.rigidBody };
}
