import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Dressing } from '../../document/shot-dressing.js';
import type { Shot } from '../../document/shot.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { dressingCurve, sweptOf } from './dressing-ground.js';
import { placePieces, type DressingPieces } from './place-pieces.js';
import type { SweptMesh } from './sweep-profile.js';

/** One thing as it is laid: its pieces, or what was swept. */
export interface PlacedDressing {
  readonly laid: Dressing;
  readonly path: CompiledPath;
  readonly pieces: DressingPieces | null;
  readonly swept: SweptMesh | null;
}

/**
 * All that is laid along paths that have a curve.
 *
 * @param ground what pieces stand on; what is laid itself is none to them
 */
export function placedDressings(
  shot: Pick<Shot, 'paths' | 'dressing'>,
  ground: GroundSurface | null,
): PlacedDressing[] {
  return shot.dressing.flatMap((laid): PlacedDressing[] => {
    const path = dressingCurve(shot, laid);
    if (path === null) return [];
    return laid.kind === 'pieces'
      ? [{ laid, path, pieces: placePieces(laid, path, ground), swept: null }]
      : [{ laid, path, pieces: null, swept: sweptOf(laid, path) }];
  });
}

/** The models that pieces wear, the first being most of theirs. */
export function dressingModels({ model, others }: Pick<Dressing, 'model' | 'others'>): (string | null)[] {
  return [model, ...others.map((other) => other.model)];
}
