import type { ShotPath } from '../../document/shot-path.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';
import { PathError } from './path-error.js';

/** Fields that shape a path's curve besides its points. A name or a mark changes nothing. */
export const SHAPING = ['basis', 'closed', 'degree', 'knots', 'alpha', 'transform'] as const;

interface Compiled {
  readonly shape: Pick<ShotPath, (typeof SHAPING)[number]>;
  readonly curve: CompiledPath;
}

/** Latest curve of each list of points. */
const curves = new WeakMap<ShotPath['points'], Compiled>();
const errors = new WeakMap<ShotPath, PathError>();

/** The curve of a path of the document, computed once for as long as what shapes it is unchanged. */
export function compiledPathOf(path: ShotPath): CompiledPath | PathError {
  const cached = curves.get(path.points);
  if (cached && SHAPING.every((key) => cached.shape[key] === path[key])) return cached.curve;
  const refused = errors.get(path);
  if (refused) return refused;
  try {
    const curve = compilePath(path);
    curves.set(path.points, { shape: path, curve });
    return curve;
  } catch (error) {
    if (!(error instanceof PathError)) throw error;
    errors.set(path, error);
    return error;
  }
}

/** The curve of the path that a rider is attached to; null where it has none. */
export function curveRidden(
  { paths }: Pick<Shot, 'paths'>,
  rider: Rider | null | undefined,
): CompiledPath | null {
  const path = paths.find(({ id }) => id === rider?.attachment?.path);
  const curve = path && compiledPathOf(path);
  return curve && !(curve instanceof PathError) ? curve : null;
}
