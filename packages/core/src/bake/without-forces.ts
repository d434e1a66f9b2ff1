import type { Rider } from '../document/shot-rider.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';

/** Whether forces moved a rider in what was baked of it. */
export function isForced({ forces, frozen }: Rider, { physics }: SceneAssets): boolean {
  return forces !== null && frozen === null && !!physics;
}

/** What forces did to a rider is in what was baked of it: they are not to do it once more. */
export function withoutForces(rider: Rider, assets: SceneAssets): Pick<Rider, 'forces'> {
  return { forces: isForced(rider, assets) ? null : rider.forces };
}
