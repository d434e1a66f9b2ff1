import type { Basis, ShotPath } from '../document/shot-path.js';
import { activePoints, type ActivePoint } from './active-points.js';
import { bezierSegments } from './basis-bezier.js';
import { polylineSegments } from './basis-polyline.js';
import { throughSegments } from './basis-through.js';
import { CompiledPath } from './compiled-path.js';
import { PathError } from './path-error.js';
import type { Segments } from './segments.js';

/** The bases whose curve can be computed. */
const COMPILED_BASES: readonly Basis[] = ['bezier', 'through', 'polyline'];

/**
 * The curve of a document's path.
 *
 * @throws PathError when the points make no curve, or the basis is not computed
 */
export function compilePath(path: ShotPath): CompiledPath {
  const points = activePoints(path);
  if (points.length < 2) {
    const off = path.points.length - points.length;
    const why = off > 0 ? `; ${off} of its ${path.points.length} points are switched off` : '';
    throw new PathError(`Path "${path.name}" has ${points.length} of the 2 points it needs${why}.`);
  }
  const segments = segmentsOf(path, points);
  if (segments.count === 0) {
    throw new PathError(`Path "${path.name}" has no length: all its points are in one place.`);
  }
  return new CompiledPath(segments, path.closed);
}

function segmentsOf(path: ShotPath, points: readonly ActivePoint[]): Segments {
  switch (path.basis) {
    case 'bezier':
      return bezierSegments(points, path.closed);
    case 'through':
      return throughSegments(points, path.closed, path.alpha);
    case 'polyline':
      return polylineSegments(points, path.closed);
    default:
      throw new PathError(
        `Path "${path.name}" has the basis ${path.basis}, which is kept but not yet drawn; drawn are ${COMPILED_BASES.join(', ')}.`,
      );
  }
}
