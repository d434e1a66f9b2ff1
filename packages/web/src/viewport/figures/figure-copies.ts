import * as THREE from 'three';

/** Figures' meshes are on this layer where they are drawn as copies: they are still met by rays, but not drawn one by one. */
const DRAWN_AS_COPY = 1;
/** Least number of copies drawn as instances. */
const LEAST = 4;

/** Meshes of one shape and one material, drawn in one go. */
interface Copies {
  readonly meshes: readonly { readonly mesh: THREE.Mesh; readonly group: THREE.Object3D }[];
  readonly drawn: THREE.InstancedMesh;
}

/** Draws what figures have in common as instances: a thousand riders of one model cost as many draw calls as one. */
export class FigureCopies {
  readonly object = new THREE.Group();
  private copies: readonly Copies[] = [];
  private stale = true;

  /** Call when figures were added, removed, or got their models. */
  invalidate(): void {
    this.stale = true;
  }

  /** Brings the copies to where their figures are in the world. */
  update(groups: Iterable<THREE.Object3D>): void {
    if (this.stale) this.collect(groups);
    this.stale = false;
    for (const { meshes, drawn } of this.copies) {
      let count = 0;
      for (const { mesh, group } of meshes) {
        if (!group.visible) continue;
        drawn.setMatrixAt(count++, mesh.matrixWorld);
      }
      drawn.count = count;
      drawn.instanceMatrix.needsUpdate = true;
    }
  }

  dispose(): void {
    for (const { drawn } of this.copies) drawn.dispose();
    this.object.clear();
    this.copies = [];
  }

  private collect(groups: Iterable<THREE.Object3D>): void {
    this.dispose();
    const alike = new Map<string, Copies['meshes'][number][]>();
    for (const group of groups) {
      group.traverse((mesh) => {
        if (!(mesh instanceof THREE.Mesh)) return;
        mesh.layers.set(0);
        const key = isPlain(mesh) ? `${mesh.geometry.uuid} ${mesh.material.uuid}` : null;
        if (key === null) return;
        const list = alike.get(key) ?? [];
        alike.set(key, list);
        list.push({ mesh, group });
      });
    }
    this.copies = [...alike.values()].flatMap((meshes): Copies[] => {
      if (meshes.length < LEAST) return [];
      for (const { mesh } of meshes) mesh.layers.set(DRAWN_AS_COPY);
      const [{ mesh }] = meshes;
      const drawn = new THREE.InstancedMesh(mesh.geometry, mesh.material, meshes.length);
      // Its instances have its position, and they move.
      drawn.frustumCulled = false;
      drawn.matrixAutoUpdate = false;
      drawn.castShadow = drawn.receiveShadow = true;
      this.object.add(drawn);
      return [{ meshes, drawn }];
    });
  }
}

/** A mesh that differs from others of its shape and material in position alone. A mirrored one would be drawn inside out. */
function isPlain(mesh: THREE.Mesh): mesh is THREE.Mesh<THREE.BufferGeometry, THREE.Material> {
  return (
    !(mesh instanceof THREE.SkinnedMesh) &&
    mesh.morphTargetInfluences === undefined &&
    !Array.isArray(mesh.material) &&
    mesh.matrixWorld.determinant() > 0
  );
}

/** Lets a ray meet figures that are drawn as copies. */
export function seeCopies(ray: THREE.Raycaster): THREE.Raycaster {
  ray.layers.enable(DRAWN_AS_COPY);
  return ray;
}
