import type * as THREE from 'three';

const OPACITY = 0.22;

type Material = THREE.Material | THREE.Material[];

/** Makes meshes transparent while they hide something. */
export class Fading {
  private readonly whole = new Map<THREE.Mesh, Material>();
  private readonly thin = new WeakMap<THREE.Material, THREE.Material>();

  /** @returns whether others fade than before */
  show(meshes: ReadonlySet<THREE.Mesh>): boolean {
    let changed = false;
    for (const [mesh, material] of this.whole) {
      if (meshes.has(mesh)) continue;
      mesh.material = material;
      this.whole.delete(mesh);
      changed = true;
    }
    for (const mesh of meshes) {
      if (this.whole.has(mesh)) continue;
      const material = mesh.material as Material;
      this.whole.set(mesh, material);
      mesh.material = Array.isArray(material)
        ? material.map((one) => this.thinOf(one))
        : this.thinOf(material);
      changed = true;
    }
    return changed;
  }

  private thinOf(material: THREE.Material): THREE.Material {
    const known = this.thin.get(material) ?? material.clone();
    known.transparent = true;
    known.opacity = OPACITY * material.opacity;
    known.depthWrite = false;
    this.thin.set(material, known);
    return known;
  }
}
