import {
  PathPoint,
  ShotPath,
  arcThrough,
  bezierPath,
  defaultsOf,
  freeId,
  type Basis,
  type Vec3,
} from '@fleet-rail/core';

/** A clicked place. */
export interface DrawPlace {
  readonly position: Vec3;
  /** Whether the run that leads to it is straight. */
  readonly straight: boolean;
}

/** Use of the clicked points: an arc takes three. */
export type DrawKind = Exclude<Basis, 'nurbs'> | 'arc';

const plainPoint = defaultsOf(PathPoint);

/**
 * A path of clicked places. Straight runs make a Bézier path of it, since only that can hold both; bends go
 * on smoothly from them.
 */
export function drawnPath(
  name: string,
  places: readonly DrawPlace[],
  closed: boolean,
  kind: DrawKind,
): ShotPath {
  const blank: ShotPath = { ...defaultsOf(ShotPath), id: freeId(name, []), name, closed };
  if (kind === 'arc' && places.length === 3) {
    const [a, b, c] = places.map(({ position }) => position);
    return bezierPath(blank, arcThrough(a, b, c), false, () => 0);
  }
  const someStraight = places.some(({ straight }, i) => straight && (i > 0 || closed));
  const basis = kind === 'arc' ? 'polyline' : kind !== 'polyline' && someStraight ? 'bezier' : kind;
  const points = places.map(({ position }): PathPoint => ({ ...plainPoint, position, handles: 'auto' }));
  if (basis !== 'bezier') {
    return { ...blank, basis, points: points.map((point) => ({ ...point, handles: plainPoint.handles })) };
  }
  return { ...blank, points: points.map((point, i) => withStraightRuns(point, places, i, closed)) };
}

/** A point with handles spelled out where a straight run meets it. */
function withStraightRuns(
  point: PathPoint,
  places: readonly DrawPlace[],
  i: number,
  closed: boolean,
): PathPoint {
  const n = places.length;
  const before = closed || i > 0 ? places[(i + n - 1) % n] : null;
  const after = closed || i < n - 1 ? places[(i + 1) % n] : null;
  const straightIn = before !== null && places[i].straight;
  const straightOut = after !== null && after.straight;
  if (!straightIn && !straightOut) return point;
  const towards = (place: DrawPlace | null): Vec3 =>
    place === null ? [0, 0, 0] : (place.position.map((value, k) => (value - point.position[k]) / 3) as Vec3);
  const [toBefore, toAfter] = [towards(before), towards(after)];
  if (straightIn && straightOut) return { ...point, handles: 'corner', in: toBefore, out: toAfter };
  // The bend continues the straight run, with a handle of a third of its own chord.
  const [run, bend] = straightIn ? [toBefore, toAfter] : [toAfter, toBefore];
  const size = Math.hypot(...run);
  const reach = Math.hypot(...bend);
  const on = run.map((value) => (size > 0 ? (-value / size) * reach || 0 : 0)) as Vec3;
  return { ...point, handles: 'smooth', in: straightIn ? run : on, out: straightIn ? on : run };
}
