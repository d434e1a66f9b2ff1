import type { Vec3 } from '../../geometry/math/vec.js';

/** A part of a model in its rest pose: its corners in metres, x, y, z in turn. */
export interface ModelPart {
  /** Its own name and those of what it hangs on, the nearest first. */
  readonly names: readonly string[];
  readonly positions: ArrayLike<number>;
  /** Its own origin, the only point of a joint or an empty. */
  readonly origin?: Vec3;
}

export interface Box {
  readonly low: Vec3;
  readonly high: Vec3;
}

const boxes = new WeakMap<object, Box | null>();

/** The box around places; null where there are none. It is asked for again and again, so it is kept. */
export function boxOf(places: ArrayLike<number>): Box | null {
  const kept = boxes.get(places);
  if (kept !== undefined) return kept;
  const box = places.length < 3 ? null : boxAround(places);
  boxes.set(places, box);
  return box;
}

function boxAround(places: ArrayLike<number>): Box {
  let [x0, y0, z0] = [Infinity, Infinity, Infinity];
  let [x1, y1, z1] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 2 < places.length; i += 3) {
    const x = places[i];
    const y = places[i + 1];
    const z = places[i + 2];
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
    if (z < z0) z0 = z;
    if (z > z1) z1 = z;
  }
  return { low: [x0, y0, z0], high: [x1, y1, z1] };
}

/** The box around two boxes, either of which may be none. */
export function joined(a: Box | null, b: Box | null): Box | null {
  if (a === null || b === null) return a ?? b;
  return {
    low: a.low.map((value, k) => Math.min(value, b.low[k])) as Vec3,
    high: a.high.map((value, k) => Math.max(value, b.high[k])) as Vec3,
  };
}

/** The box around all of some parts. */
export function boxOfAll(parts: readonly ModelPart[]): Box | null {
  return parts.reduce<Box | null>((all, { positions }) => joined(all, boxOf(positions)), null);
}

/** All points of some parts; none if there are more than a limit. */
export function positionsUpTo(parts: readonly ModelPart[], most: number): Float64Array {
  const count = parts.reduce((sum, { positions }) => sum + positions.length, 0);
  const out = new Float64Array(count > 3 * most ? 0 : count);
  let at = 0;
  if (out.length > 0)
    for (const { positions } of parts) {
      out.set(positions, at);
      at += positions.length;
    }
  return out;
}

/** A flat round part, such as a wheel: about which axis (0 x, 1 y, 2 z), where, half its size by axis. */
export interface RoundPart {
  readonly axis: number;
  readonly centre: Vec3;
  readonly half: Vec3;
}

/** Of the ellipse in its box an outline that is round fills about 1; a square 1.27, one on its tip 0.64. */
const ROUND = { least: 0.8, most: 1.12 };
/** Shorter over longer half: a wheel of six sides, or with an invisible uneven scale. */
const EVEN = 0.85;
/** A wheel is thinner than it is wide. */
const FLAT = 0.8;

/**
 * Shape of a part that is flat and round about one of the axes; null if it is not.
 *
 * @param squashed it counts as round too where it looks like an ellipse, as under an uneven scale
 */
export function roundPart({ positions }: ModelPart, squashed: boolean): RoundPart | null {
  const box = boxOf(positions);
  if (box === null) return null;
  const half = box.high.map((value, k) => (value - box.low[k]) / 2) as Vec3;
  const centre = box.high.map((value, k) => (value + box.low[k]) / 2) as Vec3;
  const thinnest = half.indexOf(Math.min(...half));
  for (const axis of squashed ? [thinnest] : [0, 1, 2]) {
    if (isRoundBox(half, axis, squashed) && fillsEllipse(positions, axis, half))
      return { axis, centre, half };
  }
  return null;
}

/** Whether a box may be around something flat and round about an axis. */
function isRoundBox(half: Vec3, axis: number, squashed: boolean): boolean {
  const [a, b] = [half[(axis + 1) % 3], half[(axis + 2) % 3]];
  const [short, long] = [Math.min(a, b), Math.max(a, b)];
  return short > 0 && half[axis] <= FLAT * long && (squashed || short >= EVEN * long);
}

/** Whether the outline seen along an axis fills as much of its box as an ellipse does. */
function fillsEllipse(positions: ArrayLike<number>, axis: number, half: Vec3): boolean {
  const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
  const filled = hullArea(positions, u, v) / (Math.PI * half[u] * half[v]);
  return filled >= ROUND.least && filled <= ROUND.most;
}

/** Whether places are round about an axis (0 x, 1 y, 2 z), however long they are along it. */
export function isRoundAbout(places: ArrayLike<number>, axis: number, squashed: boolean): boolean {
  const box = boxOf(places);
  if (box === null) return false;
  const half = box.high.map((value, k) => (value - box.low[k]) / (k === axis ? 2000 : 2)) as Vec3;
  const thinnest = half.indexOf(Math.min(...half));
  if (squashed && thinnest !== axis) return false;
  return isRoundBox(half, axis, squashed) && fillsEllipse(places, axis, half);
}

/** Ways in which the outermost places are looked for first. */
const WAYS = Array.from({ length: 16 }, (_, i) => [Math.cos((i * Math.PI) / 8), Math.sin((i * Math.PI) / 8)]);

/**
 * The area of the smallest convex outline around places as seen along an axis (monotone chain, Andrew 1979), after those are
 * left out that lie within the outline of the outermost ones (Akl & Toussaint 1978): of a million that leaves some thousands.
 *
 * @param u, v which two of x, y and z are seen
 */
function hullArea(places: ArrayLike<number>, u: number, v: number): number {
  const most = WAYS.map(() => -Infinity);
  const corners = WAYS.map((): [number, number] => [0, 0]);
  for (let i = 0; i < places.length; i += 3) {
    for (let w = 0; w < WAYS.length; w++) {
      const far = WAYS[w][0] * places[i + u] + WAYS[w][1] * places[i + v];
      if (far <= most[w]) continue;
      most[w] = far;
      corners[w] = [places[i + u], places[i + v]];
    }
  }
  const outer: [number, number][] = [...corners];
  for (let i = 0; i < places.length; i += 3) {
    const [x, y] = [places[i + u], places[i + v]];
    for (let w = 0; w < WAYS.length; w++) {
      const [a, b] = [corners[w], corners[(w + 1) % WAYS.length]];
      if ((b[0] - a[0]) * (y - a[1]) >= (b[1] - a[1]) * (x - a[0])) continue;
      outer.push([x, y]);
      break;
    }
  }
  const hull = outlineAround(outer);
  let area = 0;
  hull.forEach(([x, y], i) => {
    const [nextX, nextY] = hull[(i + 1) % hull.length];
    area += x * nextY - nextX * y;
  });
  return Math.abs(area) / 2;
}

function outlineAround(points: readonly [number, number][]): [number, number][] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly [number, number][]): [number, number][] => {
    const chain: [number, number][] = [];
    for (const point of list) {
      while (chain.length > 1 && turn(chain[chain.length - 2], chain[chain.length - 1], point) <= 0)
        chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

function turn(a: [number, number], b: [number, number], c: [number, number]): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}
