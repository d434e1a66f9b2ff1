import type { Dressing } from '../../document/shot-dressing.js';
import { RADIANS } from '../../geometry/math/angle.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { triangulate } from '../../geometry/solid/triangulate.js';
import type { TriangleMesh } from '../../geometry/solid/triangle-mesh.js';
import { dressingStretch } from './dressing-spots.js';
import { laidFrame } from './place-pieces.js';

/** Triangles with what they are drawn by. */
export interface SweptMesh extends TriangleMesh {
  readonly normals: Float32Array;
  /** Metres across and along. */
  readonly uvs: Float32Array;
}

/** Between two sections the curve leaves their chord by no more than this, metres. */
const SAG = 0.002;
const LONGEST = 2;
const SHORTEST = 0.02;
const MOST_SECTIONS = 20_000;
/** Corners of all sections together. */
const MOST_CORNERS = 500_000;
/** A corner of the profile that is sharper than this keeps its edge. */
const CREASE = 40 * RADIANS;
/** Just before a corner of the path. */
const BEFORE = 1e-6;

/** A vertex of the profile: where it is, which way it looks, and how far along the profile it lies. */
interface Rib {
  readonly at: readonly [number, number];
  readonly normal: readonly [number, number];
  readonly u: number;
}

/**
 * A profile swept along a path by its frame, so that its edges are banked by the path's roll.
 *
 * @returns null where the stretch or the profile has no length
 */
export function sweepProfile(laid: Dressing, path: CompiledPath): SweptMesh | null {
  const sides = laid.both ? [1, -1] : [1];
  const sections = sectionsOf(laid, path);
  if (sections.length < 2) return null;
  const positions: number[] = [];
  const normals: number[] = [];
  const uvs: number[] = [];
  const indices: number[] = [];
  const frame = new Float64Array(12);
  const add = ([x, y]: readonly [number, number], normal: readonly number[], u: number, v: number) => {
    for (let k = 0; k < 3; k++) {
      positions.push(frame[k] + x * frame[3 + k] + y * frame[6 + k]);
      normals.push(normal[0] * frame[3 + k] + normal[1] * frame[6 + k] + (normal[2] ?? 0) * frame[9 + k]);
    }
    uvs.push(u, v);
  };
  for (const side of sides) {
    const outline = outlineOf(laid, side);
    const strips = stripsOf(outline, laid.ring);
    if (strips.length === 0) return null;
    const width = strips.reduce((sum, strip) => sum + strip.length, 0);
    const begin = positions.length / 3;
    for (const s of sections) {
      laidFrame(path, s, laid.stand !== 'path', frame);
      for (const strip of strips) for (const { at, normal, u } of strip) add(at, normal, u, s);
    }
    for (let j = 0; j + 1 < sections.length; j++) {
      let first = begin + j * width;
      for (const strip of strips) {
        for (let i = 0; i + 1 < strip.length; i++) {
          const [a, b, c, d] = [first + i, first + i + 1, first + i + 1 + width, first + i + width];
          indices.push(a, b, d, b, c, d);
        }
        first += strip.length;
      }
    }
    if (!laid.ring || !laid.caps || dressingStretch(laid, path).round) continue;
    const ends: [number, number][] = [
      [sections[0], -1],
      [sections[sections.length - 1], 1],
    ];
    for (const [s, way] of ends) {
      laidFrame(path, s, laid.stand !== 'path', frame);
      const first = positions.length / 3;
      for (const point of outline) add(point, [0, 0, way], point[0], point[1]);
      const triangles = triangulate(outline);
      // Left, up and forward are right-handed: what goes round to the left is seen from ahead.
      if (way < 0) triangles.reverse();
      for (const corner of triangles) indices.push(first + corner);
    }
  }
  return {
    positions: Float64Array.from(positions),
    normals: Float32Array.from(normals),
    uvs: Float32Array.from(uvs),
    indices: Uint32Array.from(indices),
  };
}

/** The profile beside its path; a ring goes round to the left, a line so that it looks up more than down. */
function outlineOf({ profile, ring, offset }: Dressing, side: number): [number, number][] {
  const points = profile.map(([x, y]): [number, number] => [side * (x + offset.side), y + offset.rise]);
  const turn = ring
    ? points.reduce((sum, [x, y], i) => {
        const [nx, ny] = points[(i + 1) % points.length];
        return sum + x * ny - nx * y;
      }, 0)
    : points[0][0] - points[points.length - 1][0];
  return turn < 0 ? points.reverse() : points;
}

/** The profile in strips that are smooth in themselves. */
function stripsOf(points: readonly (readonly [number, number])[], ring: boolean): Rib[][] {
  const closed = ring ? [...points, points[0]] : points;
  const edges: {
    a: readonly [number, number];
    b: readonly [number, number];
    n: [number, number];
    l: number;
  }[] = [];
  for (let i = 0; i + 1 < closed.length; i++) {
    const [a, b] = [closed[i], closed[i + 1]];
    const [x, y] = [b[0] - a[0], b[1] - a[1]];
    const l = Math.hypot(x, y);
    if (l > 1e-9) edges.push({ a, b, n: [y / l, -x / l], l });
  }
  const count = edges.length;
  const smooth = (i: number, k: number) => {
    const [p, q] = [edges[i].n, edges[k].n];
    return p[0] * q[0] + p[1] * q[1] > Math.cos(CREASE);
  };
  const between = (i: number, k: number): [number, number] => {
    const [x, y] = [edges[i].n[0] + edges[k].n[0], edges[i].n[1] + edges[k].n[1]];
    const size = Math.hypot(x, y);
    return [x / size, y / size];
  };
  const strips: Rib[][] = [];
  let u = 0;
  let strip: Rib[] = [];
  for (let i = 0; i < count; i++) {
    const { a, b, n, l } = edges[i];
    const before = i > 0 ? i - 1 : ring ? count - 1 : -1;
    const after = i + 1 < count ? i + 1 : ring ? 0 : -1;
    const joined = before >= 0 && smooth(before, i);
    if (strip.length === 0 || !joined) {
      if (strip.length > 0) strips.push(strip);
      strip = [{ at: a, normal: joined ? between(before, i) : n, u }];
    }
    u += l;
    strip.push({ at: b, normal: after >= 0 && smooth(i, after) ? between(i, after) : n, u });
  }
  if (strip.length > 0) strips.push(strip);
  return strips;
}

/** The distances of sections: where the curve bends they lie closer, so that it is followed within {@link SAG}. */
function sectionsOf(laid: Dressing, path: CompiledPath): number[] {
  const { from, to } = dressingStretch(laid, path);
  const reach =
    Math.max(...laid.profile.map(([x, y]) => Math.hypot(x, y))) +
    Math.hypot(laid.offset.side, laid.offset.rise);
  if (!(to > from)) return [];
  const across = laid.profile.length * (laid.both ? 2 : 1);
  const most = Math.max(2, Math.min(MOST_SECTIONS, Math.floor(MOST_CORNERS / across)));
  // Over very long ways sections lie further apart, never more of them.
  const shortest = Math.max(SHORTEST, (to - from) / most);
  const longest = Math.max(LONGEST, shortest);
  const corners = cornersOf(path, from, to);
  const out: number[] = [];
  let next = 0;
  for (let s = from; s < to;) {
    out.push(s);
    const here = path.bend(s);
    const step = (bend: number) => {
      // A point beside the path goes round a larger circle than the path does.
      const wide = bend * (1 + bend * reach);
      return Math.min(longest, Math.max(shortest, wide > 0 ? Math.sqrt((8 * SAG) / wide) : longest));
    };
    const ahead = step(here);
    let end = s + Math.min(ahead, step(path.bend(s + ahead / 2)), step(path.bend(s + ahead)));
    while (next < corners.length && corners[next] <= s + BEFORE) next++;
    if (next < corners.length && corners[next] < end) {
      if (corners[next] - BEFORE > s) out.push(corners[next] - BEFORE);
      end = corners[next];
    }
    s = end;
  }
  out.push(to);
  return out.length > most ? thinnedTo(out, most) : out;
}

/** So many of a list, evenly, its ends among them. */
function thinnedTo(list: readonly number[], count: number): number[] {
  return Array.from({ length: count }, (_, i) => list[Math.round((i * (list.length - 1)) / (count - 1))]);
}

/** Joints of the curve within a stretch: it may turn there at once. */
function cornersOf(path: CompiledPath, from: number, to: number): number[] {
  const out: number[] = [];
  for (let lap = 0; lap * path.length < to; lap++)
    for (const joint of path.joints) {
      const s = joint + lap * path.length;
      if (s > from + BEFORE && s < to - BEFORE && s !== out[out.length - 1]) out.push(s);
    }
  return out;
}
