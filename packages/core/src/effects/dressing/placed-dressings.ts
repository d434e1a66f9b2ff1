import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Dressing } from '../../document/shot-dressing.js';
import type { Shot } from '../../document/shot.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { dressingCurve, sweptOf } from './dressing-ground.js';
import { placePieces, type DressingPieces } from './place-pieces.js';
import type { SweptMesh } from './sweep-profile.js';

/** One dressing as it is placed: its pieces, or its swept mesh. */
export interface PlacedDressing {
  readonly laid: Dressing;
  readonly path: CompiledPath;
  readonly pieces: DressingPieces | null;
  readonly swept: SweptMesh | null;
}

/**
 * All dressings of paths that have a curve.
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

/** Models of the pieces, the most frequent first. */
export function dressingModels({ model, others }: Pick<Dressing, 'model' | 'others'>): (string | null)[] {
  return [model, ...others.map((other) => other.model)];
}
