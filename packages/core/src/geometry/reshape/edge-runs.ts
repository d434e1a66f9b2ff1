import { RADIANS } from '../math/angle.js';
import type { Vec3 } from '../math/vec.js';

/** A run of vertices, end to end. */
export interface EdgeRun {
  readonly vertices: readonly number[];
  readonly closed: boolean;
}

/**
 * Edges chained into runs. A run goes on where exactly two edges meet, and ends where one does or more than
 * two do.
 *
 * @param edges pairs of vertices
 */
export function chainEdges(edges: readonly (readonly [number, number])[]): EdgeRun[] {
  const at = new Map<number, number[]>();
  edges.forEach(([a, b], i) => {
    for (const vertex of [a, b]) at.set(vertex, [...(at.get(vertex) ?? []), i]);
  });
  const used = new Uint8Array(edges.length);
  const walk = (start: number, first: number): EdgeRun => {
    const vertices = [start];
    let here = start;
    for (let edge: number | undefined = first; edge !== undefined;) {
      used[edge] = 1;
      const [a, b]: readonly [number, number] = edges[edge];
      here = a === here ? b : a;
      if (here === start) return { vertices, closed: true };
      vertices.push(here);
      const around: number[] = at.get(here) as number[];
      edge = around.length === 2 ? around.find((other) => used[other] === 0) : undefined;
    }
    return { vertices, closed: false };
  };
  const runs: EdgeRun[] = [];
  const begin = (vertex: number) => {
    for (const edge of at.get(vertex) as number[]) if (used[edge] === 0) runs.push(walk(vertex, edge));
  };
  // Ends and branchings first, so that runs between them are whole; what is left are rings.
  for (const [vertex, around] of at) if (around.length !== 2) begin(vertex);
  for (const vertex of at.keys()) begin(vertex);
  return runs;
}

/** The edges of a mesh, ready to be followed. Vertices in one place count as one. */
export interface MeshEdges {
  readonly positions: readonly Vec3[];
  /** By vertex of the mesh, which place it is. */
  readonly placeOfVertex: Int32Array;
  readonly edges: readonly MeshEdge[];
  readonly around: ReadonlyMap<number, readonly number[]>;
}

interface MeshEdge {
  readonly ends: readonly [number, number];
  /** Whether it is distinct: the rim of a hole or sheet, or a crease between two faces. */
  readonly edgy: boolean;
  /** Whether it only cuts a flat face into triangles. */
  readonly hidden: boolean;
}

/** Faces whose normals differ by less than this lie in one plane, cosine. */
const FLAT = Math.cos(0.5 * RADIANS);
/** Faces whose normals differ by more than this meet in a crease, cosine. */
const CREASE = Math.cos(25 * RADIANS);
/** A run goes on while it turns by less than this, cosine. */
const FLOW = Math.cos(50 * RADIANS);

/**
 * The edges of a mesh of triangles.
 *
 * @param vertices  x, y, z of each vertex in turn
 * @param triangles three vertices a triangle
 */
export function meshEdges(vertices: ArrayLike<number>, triangles: ArrayLike<number>): MeshEdges {
  const positions: Vec3[] = [];
  const indexes = new Map<string, number>();
  const placeOfVertex = Int32Array.from({ length: vertices.length / 3 }, (_, i) => {
    const place: Vec3 = [vertices[3 * i], vertices[3 * i + 1], vertices[3 * i + 2]];
    const key = place.map((value) => Math.round(value * 1e5)).join(' ');
    const found = indexes.get(key);
    if (found !== undefined) return found;
    indexes.set(key, positions.length);
    return positions.push(place) - 1;
  });
  const faces = new Map<string, { ends: [number, number]; normals: Vec3[]; corners: number[] }>();
  for (let t = 0; t + 2 < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => placeOfVertex[triangles[t + k]]);
    const normal = normalOf(corners.map((corner) => positions[corner]));
    if (normal === null) continue;
    for (let k = 0; k < 3; k++) {
      const ends: [number, number] = [corners[k], corners[(k + 1) % 3]];
      const key = ends[0] < ends[1] ? `${ends[0]} ${ends[1]}` : `${ends[1]} ${ends[0]}`;
      const entry = faces.get(key) ?? { ends, normals: [], corners: [] };
      entry.normals.push(normal);
      entry.corners.push(corners[(k + 2) % 3]);
      faces.set(key, entry);
    }
  }
  const edges = [...faces.values()].map(({ ends, normals, corners }): MeshEdge => {
    const cosine = normals.length === 2 ? dot(normals[0], normals[1]) : -1;
    const hidden = cosine > FLAT && isDiagonal(positions, ends, corners);
    return { ends, edgy: cosine < CREASE, hidden };
  });
  const around = new Map<number, number[]>();
  edges.forEach(({ ends, hidden }, i) => {
    if (hidden) return;
    for (const end of ends) around.set(end, [...(around.get(end) ?? []), i]);
  });
  return { positions, placeOfVertex, edges, around };
}

/** An edge between two triangles of one flat quad is its diagonal when it is the longest side of both. */
function isDiagonal(
  places: readonly Vec3[],
  [a, b]: readonly [number, number],
  corners: readonly number[],
): boolean {
  const own = length(between(places[a], places[b]));
  return corners.every((corner) =>
    [a, b].every((end) => length(between(places[end], places[corner])) < own * (1 + 1e-6)),
  );
}

/**
 * The run of edges that a picked edge belongs to: from either end it goes on along the edge that turns least,
 * by at most 50°, until there is none or it comes round. A run along a rim or crease keeps to it.
 *
 * @param a, b vertices of the mesh
 * @returns places in order; null where no edge joins the two, or only the diagonal of a flat face
 */
export function followEdge(
  mesh: MeshEdges,
  a: number,
  b: number,
): { places: Vec3[]; closed: boolean } | null {
  const [from, to] = [mesh.placeOfVertex[a], mesh.placeOfVertex[b]];
  const first = mesh.edges.findIndex(
    ({ ends }) => (ends[0] === from && ends[1] === to) || (ends[0] === to && ends[1] === from),
  );
  if (first < 0 || mesh.edges[first].hidden) return null;
  const used = new Set([first]);
  const ahead = runOn(mesh, first, from, to, used);
  if (ahead[ahead.length - 1] === from) {
    return { places: [from, ...ahead.slice(0, -1)].map((i) => mesh.positions[i]), closed: true };
  }
  const behind = runOn(mesh, first, to, from, used);
  const vertices = [...behind.reverse(), ...ahead];
  return { places: vertices.map((i) => mesh.positions[i]), closed: false };
}

/** The vertices from the far end of an edge on, as long as the run goes on. */
function runOn(mesh: MeshEdges, edge: number, from: number, to: number, used: Set<number>): number[] {
  const { edgy } = mesh.edges[edge];
  const start = from;
  const vertices = [to];
  let [before, here] = [from, to];
  for (;;) {
    const along = unit(between(mesh.positions[before], mesh.positions[here]));
    let best: { edge: number; next: number; cosine: number } | null = null;
    for (const i of mesh.around.get(here) ?? []) {
      if (used.has(i) || mesh.edges[i].edgy !== edgy) continue;
      const [p, q] = mesh.edges[i].ends;
      const next = p === here ? q : p;
      const cosine = dot(along, unit(between(mesh.positions[here], mesh.positions[next])));
      if (cosine > FLOW && (best === null || cosine > best.cosine)) best = { edge: i, next, cosine };
    }
    if (best === null) return vertices;
    used.add(best.edge);
    vertices.push(best.next);
    if (best.next === start) return vertices;
    [before, here] = [here, best.next];
  }
}

const CENTRE_POINTS = 64;

/**
 * The line midway between two runs, as between the two kerbs of a road: places at equal parts of both, the
 * second turned round where it runs against the first.
 */
export function centreLine(
  a: { readonly places: readonly Vec3[]; readonly closed: boolean },
  b: { readonly places: readonly Vec3[]; readonly closed: boolean },
): { places: Vec3[]; closed: boolean } {
  const closed = a.closed && b.closed;
  const [ringA, ringB] = [a, b].map((run) => (run.closed ? [...run.places, run.places[0]] : [...run.places]));
  const count = Math.max(CENTRE_POINTS, a.places.length, b.places.length);
  const parts = Array.from({ length: closed ? count : count + 1 }, (_, i) => i / count);
  const first = parts.map((part) => placeAt(ringA, part));
  const second = closed ? alignedRing(first[0], ringB, parts) : parts.map((part) => placeAt(ringB, part));
  const apart = (other: readonly Vec3[]) =>
    first.reduce((sum, place, i) => sum + length(between(place, other[i])), 0);
  const back = closed ? [second[0], ...second.slice(1).reverse()] : [...second].reverse();
  const partner = apart(back) < apart(second) ? back : second;
  const places = first.map((place, i) => place.map((value, k) => (value + partner[i][k]) / 2) as Vec3);
  return { places, closed };
}

/** A ring's places at even parts, begun where it is nearest to a place. */
function alignedRing(near: Vec3, ring: readonly Vec3[], parts: readonly number[]): Vec3[] {
  const places = parts.map((part) => placeAt(ring, part));
  const gaps = places.map((place) => length(between(near, place)));
  const start = gaps.indexOf(Math.min(...gaps));
  return [...places.slice(start), ...places.slice(0, start)];
}

/** The place at a part (0 to 1) of the length of straight runs. */
function placeAt(run: readonly Vec3[], part: number): Vec3 {
  const sizes = run.slice(1).map((place, i) => length(between(run[i], place)));
  let left = part * sizes.reduce((sum, size) => sum + size, 0);
  for (let i = 0; i < sizes.length; i++) {
    if (left <= sizes[i] || i === sizes.length - 1) {
      const t = sizes[i] > 0 ? Math.min(1, left / sizes[i]) : 0;
      return run[i].map((value, k) => value + t * (run[i + 1][k] - value)) as Vec3;
    }
    left -= sizes[i];
  }
  return [...run[0]];
}

const between = (a: Vec3, b: Vec3): Vec3 => [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const length = (v: Vec3) => Math.hypot(...v);
const unit = (v: Vec3): Vec3 => {
  const size = length(v) || 1;
  return [v[0] / size, v[1] / size, v[2] / size];
};

function normalOf([a, b, c]: Vec3[]): Vec3 | null {
  const [p, q] = [between(a, b), between(a, c)];
  const cross: Vec3 = [p[1] * q[2] - p[2] * q[1], p[2] * q[0] - p[0] * q[2], p[0] * q[1] - p[1] * q[0]];
  return length(cross) > 1e-14 ? unit(cross) : null;
}
