import { Box3, DoubleSide, Matrix4, Ray, Vector3 } from 'three';
import type { MeshBVH } from 'three-mesh-bvh';
import type { Vec3, Vec3Like } from '../geometry/math/vec.js';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';
import type { TurnedBox } from '../geometry/solid/turned-box.js';
import { treeOf } from './triangle-tree.js';

/** Triangles that can be asked what meets them; their tree (three-mesh-bvh) is built with the first question. */
export class Solid {
  readonly low: Vec3;
  readonly high: Vec3;
  private built: MeshBVH | null = null;

  constructor(readonly mesh: TriangleMesh) {
    this.low = [Infinity, Infinity, Infinity];
    this.high = [-Infinity, -Infinity, -Infinity];
    const { positions } = mesh;
    for (let i = 0; i < positions.length; i++) {
      const k = i % 3;
      if (positions[i] < this.low[k]) this.low[k] = positions[i];
      if (positions[i] > this.high[k]) this.high[k] = positions[i];
    }
  }

  /** How far along a ray the first triangle is, whichever side of it is met; Infinity where there is none that near. */
  along(from: Vec3Like, way: Vec3Like, most: number): number {
    ray.origin.set(from[0], from[1], from[2]);
    ray.direction.set(way[0], way[1], way[2]);
    return this.tree().raycastFirst(ray, DoubleSide, 0, most)?.distance ?? Infinity;
  }

  /** How far a place is from the nearest triangle; Infinity where none is that near. */
  distanceTo(place: Vec3Like, most: number): number {
    point.set(place[0], place[1], place[2]);
    return this.tree().closestPointToPoint(point, undefined, 0, most)?.distance ?? Infinity;
  }

  /**
   * Whether a turned box meets a triangle.
   *
   * @param shrink metres by which each of its faces is drawn in first
   */
  meetsBox(box: TurnedBox, shrink = 0): boolean {
    const { numbers: n } = box;
    const half = [3, 6, 9].map((k) => Math.hypot(n[k], n[k + 1], n[k + 2]));
    const left = half.map((size) => size - shrink);
    if (left.some((size) => size <= 0)) return false;
    const axis = (k: number) => {
      const at = 3 + 3 * k;
      return [n[at] / half[k], n[at + 1] / half[k], n[at + 2] / half[k]];
    };
    const [x, y, z] = [axis(0), axis(1), axis(2)];
    matrix.set(
      ...([x[0], y[0], z[0], n[0], x[1], y[1], z[1], n[1], x[2], y[2], z[2], n[2], 0, 0, 0, 1] as const),
    );
    bounds.min.set(-left[0], -left[1], -left[2]);
    bounds.max.set(left[0], left[1], left[2]);
    return this.tree().intersectsBox(bounds, matrix);
  }

  /**
   * Whether a triangle of another solid meets one of these.
   *
   * @param placed from the other’s own space into this one’s, column by column
   */
  meets(other: Solid, placed: ArrayLike<number>): boolean {
    matrix.fromArray(Array.from(placed));
    return this.tree().intersectsGeometry(other.tree().geometry, matrix);
  }

  private tree(): MeshBVH {
    if (this.built === null) {
      this.built = treeOf(this.mesh);
      // Asked for by a tree that it is held against.
      this.built.geometry.boundsTree = this.built;
    }
    return this.built;
  }
}

const ray = new Ray();
const point = new Vector3();
const matrix = new Matrix4();
const bounds = new Box3();
