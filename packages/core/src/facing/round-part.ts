import type { Vec3 } from '../math/vec.js';

/** A part of a model as it stands: its corners in metres, x, y, z in turn. */
export interface ModelPart {
  /** Its own name and those of what it hangs on, the nearest first. */
  readonly names: readonly string[];
  readonly positions: ArrayLike<number>;
}

/** The box around places; null where there are none. */
export function boxOf(places: ArrayLike<number>): { low: Vec3; high: Vec3 } | null {
  if (places.length < 3) return null;
  const low: Vec3 = [Infinity, Infinity, Infinity];
  const high: Vec3 = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < places.length; i++) {
    low[i % 3] = Math.min(low[i % 3], places[i]);
    high[i % 3] = Math.max(high[i % 3], places[i]);
  }
  return { low, high };
}

/** The box around all of some parts. */
export function boxOfAll(parts: readonly ModelPart[]): { low: Vec3; high: Vec3 } | null {
  return boxOf(
    parts.flatMap(({ positions }) => boxOf(positions) ?? []).flatMap(({ low, high }) => [...low, ...high]),
  );
}

/** All places of some parts; none where they are more than so many. */
export function positionsUpTo(parts: readonly ModelPart[], most: number): number[] {
  const count = parts.reduce((sum, { positions }) => sum + positions.length / 3, 0);
  return count > most ? [] : parts.flatMap(({ positions }) => Array.from(positions));
}

/** A flat round part, such as a wheel: about which axis (0 x, 1 y, 2 z), where, half its size by axis. */
export interface RoundPart {
  readonly axis: number;
  readonly centre: Vec3;
  readonly half: Vec3;
}

/** Of the ellipse in its box an outline that is round fills about 1; a square 1.27, one on its tip 0.64. */
const ROUND = { least: 0.8, most: 1.12 };
/** Shorter over longer half: a wheel of six sides, or of an uneven scale that nobody would notice. */
const EVEN = 0.85;
/** Nor is a wheel as thick as it is wide. */
const FLAT = 0.8;

/**
 * What a part is where it is flat and round about one of the axes; null where it is not.
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
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
    const [short, long] = [half[u], half[v]].sort((a, b) => a - b);
    if (short <= 0 || half[axis] > FLAT * long || (!squashed && short < EVEN * long)) continue;
    const outline: [number, number][] = [];
    for (let i = 0; i < positions.length; i += 3) outline.push([positions[i + u], positions[i + v]]);
    const filled = hullArea(outline) / (Math.PI * short * long);
    if (filled >= ROUND.least && filled <= ROUND.most) return { axis, centre, half };
  }
  return null;
}

/** Whether places are round about an axis (0 x, 1 y, 2 z), however long they are along it. */
export function isRoundAbout(places: ArrayLike<number>, axis: number, squashed: boolean): boolean {
  const squeezed = Array.from(places, (value, i) => (i % 3 === axis ? value * 1e-3 : value));
  return roundPart({ names: [], positions: squeezed }, squashed)?.axis === axis;
}

/** The area of the smallest convex outline around points (monotone chain, Andrew 1979). */
function hullArea(points: readonly [number, number][]): number {
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
  const hull = [...half(sorted), ...half(sorted.reverse())];
  let area = 0;
  hull.forEach(([x, y], i) => {
    const [nextX, nextY] = hull[(i + 1) % hull.length];
    area += x * nextY - nextX * y;
  });
  return Math.abs(area) / 2;
}

function turn(a: [number, number], b: [number, number], c: [number, number]): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}
