import { Box3, BufferAttribute, BufferGeometry } from 'three';
import { INTERSECTED, MeshBVH, NOT_INTERSECTED } from 'three-mesh-bvh';
import type { GroundHeight } from '../path/height-profile.js';

/** Triangles of the ground in the world: whatever scale its nodes have is in the places already. */
export interface GroundMesh {
  /** x, y, z of each vertex in turn. */
  readonly positions: Float32Array | Float64Array;
  /** Three vertices a triangle. */
  readonly indices: Uint32Array;
}

/**
 * The ground, ready for questions of height. A tree of boxes (three-mesh-bvh) tells once which triangles a column of
 * the plan meets; the height itself is that of a triangle's plane, in double precision.
 */
export class GroundSurface {
  private readonly tree: MeshBVH;
  private readonly box = new Box3();
  private readonly column: number;
  private readonly columns = new Map<number, Int32Array>();

  constructor(readonly mesh: GroundMesh) {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.positions), 3));
    // The tree reorders what it is given.
    geometry.setIndex(new BufferAttribute(mesh.indices.slice(), 1));
    this.tree = new MeshBVH(geometry);
    this.tree.getBoundingBox(this.box);
    this.column = columnWidth(this.box, mesh.indices.length / 3);
  }

  /**
   * How high the ground is at a place of the plan, within a band about a height; of several levels the one nearest
   * to that height counts. Metres; null where there is none.
   */
  height(x: number, z: number, near: number, up = Infinity, down = Infinity): number | null {
    const { min, max } = this.box;
    if (x < min.x - SLACK || x > max.x + SLACK || z < min.z - SLACK || z > max.z + SLACK) return null;
    const { positions } = this.mesh;
    const corners = this.cornersOver(Math.floor(x / this.column), Math.floor(z / this.column));
    let best: number | null = null;
    let nearest = Infinity;
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

  /** The same, of all levels, for what lays a path on the ground or draws its profile. */
  readonly nearestHeight: GroundHeight = (x, z, near) => this.height(x, z, near);

  /** The triangles that a column of the plan meets: where each corner's x is in the list of places. */
  private cornersOver(column: number, row: number): Int32Array {
    const key = column * ROWS + row;
    const cached = this.columns.get(key);
    if (cached !== undefined) return cached;
    const [west, north] = [column * this.column - SLACK, row * this.column - SLACK];
    const [east, south] = [west + this.column + 2 * SLACK, north + this.column + 2 * SLACK];
    const index = (this.tree.geometry.index as BufferAttribute).array;
    const corners: number[] = [];
    this.tree.shapecast({
      intersectsBounds: ({ min, max }) =>
        max.x >= west && min.x <= east && max.z >= north && min.z <= south ? INTERSECTED : NOT_INTERSECTED,
      intersectsTriangle: ({ a, b, c }, triangle) => {
        const beside =
          Math.max(a.x, b.x, c.x) < west ||
          Math.min(a.x, b.x, c.x) > east ||
          Math.max(a.z, b.z, c.z) < north ||
          Math.min(a.z, b.z, c.z) > south;
        if (!beside) for (let k = 0; k < 3; k++) corners.push(3 * index[3 * triangle + k]);
        return false;
      },
    });
    const found = Int32Array.from(corners);
    if (this.columns.size >= MOST_COLUMNS) this.columns.clear();
    this.columns.set(key, found);
    return found;
  }
}

const ROWS = 2 ** 26;
const MOST_COLUMNS = 200_000;

/** About as wide as a triangle is, so that few are looked at and few columns are filled; metres. */
function columnWidth({ min, max }: Box3, triangles: number): number {
  const area = Math.max(1e-6, (max.x - min.x) * (max.z - min.z));
  return Math.min(50, Math.max(0.05, Math.sqrt(area / Math.max(1, triangles))));
}

/** Boxes are in single precision. */
const SLACK = 1e-3;
/** A place this far outside of a triangle, as a part of it, still counts: no gap opens along shared edges. */
const EDGE = 1e-9;

/** The height of a triangle's plane over a place of the plan; NaN where the place is outside, or it stands upright. */
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
