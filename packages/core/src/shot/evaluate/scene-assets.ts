import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Gait, Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { Physics } from '../../effects/forces/physics.js';
import { dressingModels } from '../../effects/dressing/placed-dressings.js';
import { withClipsOf } from '../../character/hierarchy/borrowed-clips.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';

/** Assets of a shot beside its document: the ground, and node hierarchies by the document's model ids. */
export interface SceneAssets {
  readonly ground: GroundSurface | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
  /** Rigid bodies, null where none are needed, or they are not loaded yet: without them forces move nothing, and riders are where they would be without. */
  readonly physics: Physics | null;
}

export const NO_ASSETS: SceneAssets = { ground: null, hierarchies: new Map(), physics: null };

/** Movable parts of a rider's model, with the clips it borrows from another; null if they are not known. */
export function hierarchyOfRider(
  { hierarchies }: Pick<SceneAssets, 'hierarchies'>,
  { model, gait }: { readonly model: string | null; readonly gait: Pick<Gait, 'source'> | null },
): NodeHierarchy | null {
  const own = hierarchies.get(model ?? '') ?? null;
  const other = hierarchies.get(gait?.source ?? '');
  return own && other ? withClipsOf(own, other) : own;
}

/** Whether a rider needs the ground: set on it, tilted to it, or kept above it. */
export function goesByGround({ attachment, clearance, rigidBody }: Rider): boolean {
  if (rigidBody !== null) return true;
  if (attachment === null) return false;
  const above = clearance !== null && clearance.floor !== null;
  return attachment.ground.mode === 'stick' || attachment.facing.reference === 'ground' || above;
}

/** Ids of the models that a shot needs: of riders, dressing, sprays, ground, and borrowed clips. */
export function modelsInPlay({
  riders,
  ground,
  dressing,
}: Pick<Shot, 'riders' | 'ground' | 'dressing'>): Set<string> {
  const ids = riders.flatMap(({ model, gait, emitter }) => [
    model,
    gait?.source ?? null,
    emitter?.model ?? null,
  ]);
  const stands = riders.some(goesByGround) || dressing.some(({ stand }) => stand === 'ground');
  const floor = stands ? ground.model : null;
  return new Set([...ids, ...dressing.flatMap(dressingModels), floor].filter((id) => id !== null));
}

/** Whether a shot needs rigid bodies to be played. */
export function needsPhysics({ riders }: Pick<Shot, 'riders'>): boolean {
  return riders.some(({ rigidBody, frozen }) => frozen === null && rigidBody !== null);
}
