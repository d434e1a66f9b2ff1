import Flatbush from 'flatbush';
import type { GroundHeight } from '../path/height-profile.js';
import type { TriangleMesh } from '../solid/triangle-mesh.js';

/** Triangles of the ground in the world: whatever scale its nodes have is in the places already. */
export interface GroundMesh extends TriangleMesh {
  /** How high the floor is that lies level, without end, beside them; none where it is left out. */
  readonly level?: number;
}

/** A level floor, and nothing else. */
export const floorAt = (level: number): GroundMesh => ({
  positions: new Float64Array(0),
  indices: new Uint32Array(0),
  level,
});

/** Ground over and under a point, metres. */
export interface GroundAround {
  /** The next level above; NaN where there is none. */
  above: number;
  /** Whether that one's upper side is up, as a ground's is that one is under, and a bridge's underside is not. */
  aboveFacesUp: boolean;
  /** The next level at the place or below it whose upper side is up: a floor; NaN where there is none. */
  floor: number;
}

/**
 * The ground, ready for queries of height. A tree of rectangles (flatbush) gives the triangles of a column of the
 * plan once; the height itself is that of a triangle's plane.
 */
export class GroundSurface {
  private readonly plan: Flatbush | null;
  private readonly column: number;
  private readonly columns = new Map<number, Int32Array>();

  constructor(readonly mesh: GroundMesh) {
    this.plan = planOf(mesh);
    this.column = this.plan === null ? 1 : columnWidth(this.plan);
  }

  /**
   * How high the ground is at a place of the plan, within a band about a height; of several levels the one nearest
   * to that height counts. Metres; null where there is none.
   */
  height(x: number, z: number, near: number, up = Infinity, down = Infinity): number | null {
    const { positions, level } = this.mesh;
    let best: number | null = null;
    let nearest = Infinity;
    if (level !== undefined && level <= near + up && level >= near - down) {
      best = level;
      nearest = Math.abs(level - near);
    }
    if (!this.reaches(x, z)) return best;
    const corners = this.cornersOver(Math.floor(x / this.column), Math.floor(z / this.column));
    for (let t = 0; t < corners.length; t += 3) {
      const y = heightOver(positions, corners[t], corners[t + 1], corners[t + 2], x, z);
      const far = Math.abs(y - near);
      if (far < nearest && y <= near + up && y >= near - down) {
        best = y;
        nearest = far;
      }
    }
    return best;
  }

  /**
   * Ground over and under a point. The order of its corners tells the upper side of a triangle; if more triangles of
   * a ground face down than up, its corners are in the other order.
   */
  around(x: number, y: number, z: number, out: GroundAround): void {
    out.above = NaN;
    out.aboveFacesUp = false;
    out.floor = NaN;
    const { positions: p, level: base } = this.mesh;
    if (base !== undefined && base > y) {
      out.above = base;
      out.aboveFacesUp = true;
    } else if (base !== undefined) out.floor = base;
    if (!this.reaches(x, z)) return;
    const turned = this.turned();
    const corners = this.cornersOver(Math.floor(x / this.column), Math.floor(z / this.column));
    for (let t = 0; t < corners.length; t += 3) {
      const [a, b, c] = [corners[t], corners[t + 1], corners[t + 2]];
      const level = heightOver(p, a, b, c, x, z);
      if (level !== level) continue;
      const facesUp = planArea(p, a, b, c) < 0 !== turned;
      if (level > y && !(level >= out.above)) {
        out.above = level;
        out.aboveFacesUp = facesUp;
      } else if (level <= y && facesUp && !(level <= out.floor)) out.floor = level;
    }
  }

  private upsideDown: boolean | null = null;

  /** Whether the corners of its triangles are in the other order, seen from above. */
  private turned(): boolean {
    if (this.upsideDown === null) {
      const { positions, indices } = this.mesh;
      let sum = 0;
      let all = 0;
      for (let t = 0; t + 2 < indices.length; t += 3) {
        const area = planArea(positions, 3 * indices[t], 3 * indices[t + 1], 3 * indices[t + 2]);
        sum += area;
        all += Math.abs(area);
      }
      // A closed mesh has as many of both.
      this.upsideDown = sum > 0.01 * all;
    }
    return this.upsideDown;
  }

  /** The same, of all levels, for what lays a path on the ground or draws its profile. */
  readonly nearestHeight: GroundHeight = (x, z, near) => this.height(x, z, near);

  /** Whether no height can be found by {@link height} at any place within a reach of one, metres. */
  isFarFrom(place: ArrayLike<number>, reach: number, up: number, down: number): boolean {
    const { lowest, highest } = (this.levels ??= levelsOf(this.mesh));
    const y = place[1];
    const { level } = this.mesh;
    if (level !== undefined && y - reach - down <= level && y + reach + up >= level) return false;
    return !this.reaches(place[0], place[2], reach) || y - reach - down > highest || y + reach + up < lowest;
  }

  private levels: { readonly lowest: number; readonly highest: number } | null = null;

  /** Whether there are triangles about a place of the plan. */
  private reaches(x: number, z: number, reach = 0): boolean {
    const { plan } = this;
    const about = reach + SLACK;
    if (plan === null) return false;
    const { minX, maxX, minY, maxY } = plan;
    return x >= minX - about && x <= maxX + about && z >= minY - about && z <= maxY + about;
  }

  /** The triangles that a column of the plan meets: where each corner's x is in the list of places. */
  private cornersOver(column: number, row: number): Int32Array {
    const key = column * ROWS + row;
    const cached = this.columns.get(key);
    if (cached !== undefined) return cached;
    const [west, north] = [column * this.column - SLACK, row * this.column - SLACK];
    const [east, south] = [west + this.column + 2 * SLACK, north + this.column + 2 * SLACK];
    const { indices } = this.mesh;
    // In the order of the mesh, which decides between levels of equal height.
    const triangles = (this.plan?.search(west, north, east, south) ?? []).sort((a, b) => a - b);
    const found = new Int32Array(3 * triangles.length);
    triangles.forEach((triangle, i) => {
      for (let k = 0; k < 3; k++) found[3 * i + k] = 3 * indices[3 * triangle + k];
    });
    if (this.columns.size >= MOST_COLUMNS) this.columns.clear();
    this.columns.set(key, found);
    return found;
  }
}

const ROWS = 2 ** 26;
const MOST_COLUMNS = 200_000;

/** The rectangles of the plan that triangles lie in, x and z; null for no triangles. */
function planOf({ positions: p, indices }: GroundMesh): Flatbush | null {
  const count = Math.floor(indices.length / 3);
  if (count === 0) return null;
  const plan = new Flatbush(count);
  for (let t = 0; t < 3 * count; t += 3) {
    const [a, b, c] = [3 * indices[t], 3 * indices[t + 1], 3 * indices[t + 2]];
    plan.add(
      Math.min(p[a], p[b], p[c]),
      Math.min(p[a + 2], p[b + 2], p[c + 2]),
      Math.max(p[a], p[b], p[c]),
      Math.max(p[a + 2], p[b + 2], p[c + 2]),
    );
  }
  plan.finish();
  return plan;
}

/** Between which heights all of it is, metres, with some slack. */
function levelsOf({ positions }: GroundMesh): { lowest: number; highest: number } {
  let [lowest, highest] = [Infinity, -Infinity];
  for (let i = 1; i < positions.length; i += 3) {
    lowest = Math.min(lowest, positions[i] - SLACK);
    highest = Math.max(highest, positions[i] + SLACK);
  }
  return { lowest, highest };
}

/** About the width of a triangle, so that few are searched and few columns are filled; metres. */
function columnWidth({ minX, maxX, minY, maxY, numItems }: Flatbush): number {
  const area = Math.max(1e-6, (maxX - minX) * (maxY - minY));
  return Math.min(50, Math.max(0.05, Math.sqrt(area / numItems)));
}

/** How far beside the rectangle of its triangles a place may still be on one of them, metres: see {@link EDGE}. */
const SLACK = 1e-3;
/** A place this far outside of a triangle, as a part of it, still counts: no gap opens along shared edges. */
const EDGE = 1e-9;

/** Twice a triangle's area in plan; below 0 where its corners go round to the left, seen from above. */
function planArea(p: ArrayLike<number>, a: number, b: number, c: number): number {
  return (p[b] - p[a]) * (p[c + 2] - p[a + 2]) - (p[b + 2] - p[a + 2]) * (p[c] - p[a]);
}

/** Height of a triangle's plane over a point of the plan; NaN if the point is outside, or the triangle is vertical. */
function heightOver(p: ArrayLike<number>, a: number, b: number, c: number, x: number, z: number): number {
  const ux = p[b] - p[a];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vz = p[c + 2] - p[a + 2];
  const area = ux * vz - uz * vx;
  if (area === 0) return NaN;
  const dx = x - p[a];
  const dz = z - p[a + 2];
  const s = (dx * vz - dz * vx) / area;
  const t = (ux * dz - uz * dx) / area;
  if (s < -EDGE || t < -EDGE || s + t > 1 + EDGE) return NaN;
  return p[a + 1] + s * (p[b + 1] - p[a + 1]) + t * (p[c + 1] - p[a + 1]);
}
