import { vec3 } from 'gl-matrix';
import type { Handles, PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { bezierForm } from './change-basis.js';

/**
 * A Bézier path with one handle of a point pulled somewhere. The other handle follows as the point's kind
 * has it: it keeps its length and turns (smooth), mirrors (symmetric) or stays (corner). An automatic point
 * becomes a smooth one.
 *
 * @param handle the handle relative to the point, in the path's own space
 */
export function setHandle(path: ShotPath, index: number, side: 'in' | 'out', handle: Vec3): ShotPath {
  const spelled = path.points[index].handles === 'auto' ? withSpelledHandles(path, index) : path;
  const other = side === 'in' ? 'out' : 'in';
  return {
    ...spelled,
    points: spelled.points.map((point, i): PathPoint => {
      if (i !== index) return point;
      const handles = point.handles === 'auto' ? 'smooth' : point.handles;
      return { ...point, handles, [side]: handle, [other]: followed(handles, handle, point[other]) };
    }),
  };
}

function followed(kind: Handles, pulled: Vec3, other: Vec3): Vec3 {
  const size = vec3.length(pulled);
  if (kind === 'corner' || size === 0) return other;
  const length = kind === 'symmetric' ? size : vec3.length(other);
  return pulled.map((value) => (-value / size) * length || 0) as Vec3;
}

/** A Bézier path with some of its points of another kind; their handles are made to agree with it. */
export function setHandlesKind(path: ShotPath, chosen: ReadonlySet<number>, kind: Handles): ShotPath {
  return [...chosen].reduce((before, index) => {
    const point = before.points[index];
    if (point === undefined || (point.handles === kind && !isBare(point))) return before;
    const spelled = withDirection(before, index, kind);
    return {
      ...spelled,
      points: spelled.points.map((old, i) => (i === index ? { ...agreed(old, kind), handles: kind } : old)),
    };
  }, path);
}

/** Handles on one line, halfway between the two; of one length where the kind asks for it. */
function agreed(point: PathPoint, kind: Handles): PathPoint {
  if (kind === 'corner' || kind === 'auto') return point;
  const [a, b] = [vec3.length(point.in), vec3.length(point.out)];
  const along = vec3.subtract([0, 0, 0], unit(point.out), unit(point.in)) as Vec3;
  const size = vec3.length(along);
  if (size < 1e-9) return point;
  const reach = kind === 'symmetric' ? [(a + b) / 2, (a + b) / 2] : [a || b, b || a];
  return {
    ...point,
    in: along.map((value) => (-value / size) * reach[0] || 0) as Vec3,
    out: along.map((value) => (value / size) * reach[1] || 0) as Vec3,
  };
}

function unit(v: Vec3): Vec3 {
  const size = vec3.length(v);
  return size > 0 ? (vec3.scale([0, 0, 0], v, 1 / size) as Vec3) : [0, 0, 0];
}

/**
 * The path with handles of a point to make the kind of: those of an automatic point as they act; a point that
 * has none and shall be smooth gets those it would have automatically.
 */
function withDirection(path: ShotPath, index: number, kind: Handles): ShotPath {
  const point = path.points[index];
  if (point.handles === 'auto') return withSpelledHandles(path, index);
  if (!isBare(point) || kind === 'corner' || kind === 'auto') return path;
  const automatic = path.points.map((old, i) => (i === index ? { ...old, handles: 'auto' as const } : old));
  return withSpelledHandles({ ...path, points: automatic }, index);
}

/** The path with the handles of one automatic point written down as they act. */
function withSpelledHandles(path: ShotPath, index: number): ShotPath {
  const spelled = bezierForm(path)?.points[index];
  if (spelled === undefined) return path;
  return {
    ...path,
    points: path.points.map((point, i) => (i === index ? { ...spelled, handles: 'smooth' } : point)),
  };
}

const isBare = (point: PathPoint) => vec3.length(point.in) === 0 && vec3.length(point.out) === 0;
