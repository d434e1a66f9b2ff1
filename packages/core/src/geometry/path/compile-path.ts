import type { ShotPath } from '../../document/shot-path.js';
import { activePoints, type ActivePoint } from './active-points.js';
import { bezierCurve } from './basis-bezier.js';
import { polylineCurve } from './basis-polyline.js';
import { splineCurve } from './basis-spline.js';
import { throughCurve } from './basis-through.js';
import { CompiledPath } from './compiled-path.js';
import type { Curve } from './curve.js';
import { PathError } from './path-error.js';

/**
 * A document's path, measured and with its frames.
 *
 * @throws PathError when the points make no curve
 */
export function compilePath(path: ShotPath): CompiledPath {
  const points = activePoints(path);
  const rolls = points.map(({ source }) => source.roll);
  return new CompiledPath(curveThrough(path, points), path.closed, rolls);
}

/**
 * The curve of a document's path by its parameter alone, without arc length, which is fast.
 *
 * @throws PathError when the points make no curve
 */
export const pathCurve = (path: ShotPath): Curve => curveThrough(path, activePoints(path));

function curveThrough(path: ShotPath, points: readonly ActivePoint[]): Curve {
  if (points.length < 2) {
    const off = path.points.length - points.length;
    const why = off > 0 ? `; ${off} of its ${path.points.length} points are switched off` : '';
    throw new PathError(`Path "${path.name}" has ${points.length} of the 2 points it needs${why}.`);
  }
  const curve = curveOf(path, points);
  if (curve.segments.count === 0) {
    throw new PathError(`Path "${path.name}" has no length: all its points are in one place.`);
  }
  return curve;
}

function curveOf(path: ShotPath, points: readonly ActivePoint[]): Curve {
  switch (path.basis) {
    case 'bezier':
      return bezierCurve(points, path.closed);
    case 'through':
      return throughCurve(points, path.closed, path.alpha);
    case 'polyline':
      return polylineCurve(points, path.closed);
    case 'bspline':
    case 'nurbs':
      return splineCurve(path, points);
  }
}
