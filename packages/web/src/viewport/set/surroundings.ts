import * as THREE from 'three';

/** Shiny materials reflect a sky, a horizon and a ground, painted here: bands of light from above down. */
const BANDS: readonly (readonly [from: number, to: number, color: string])[] = [
  [0.55, 1, '#DDE9F2'],
  [0.12, 0.55, '#FFFFFF'],
  [-0.05, 0.12, '#F7F0DF'],
  [-0.4, -0.05, '#8E9284'],
  [-1, -0.4, '#6E7365'],
];

/** Pixels of one of its six sides: bands need no more, and without a graphics card each takes its time. */
const SIDE = 64;

/** Gives materials that shine something to reflect; made when the first one comes, once for each renderer. */
export class Surroundings {
  private texture: THREE.Texture | null = null;

  /** @param night how much of its light there is */
  light(scene: THREE.Object3D, renderer: THREE.WebGLRenderer, night: boolean): void {
    scene.traverse((mesh) => {
      const { material } = mesh as THREE.Mesh;
      for (const one of Array.isArray(material) ? material : [material]) {
        if (!(one instanceof THREE.MeshStandardMaterial) || one.metalness === 0) continue;
        this.texture ??= paintedSky(renderer);
        if (one.envMap !== this.texture) {
          one.envMap = this.texture;
          one.needsUpdate = true;
        }
        // Materials other than metals get their light from the sky and the sun.
        one.envMapIntensity = one.metalness * (night ? 0.33 : 1);
      }
    });
  }

  dispose(): void {
    this.texture?.dispose();
    this.texture = null;
  }
}

function paintedSky(renderer: THREE.WebGLRenderer): THREE.Texture {
  const scene = new THREE.Scene();
  for (const [from, to, color] of BANDS) {
    const [low, high] = [Math.acos(from), Math.acos(to)];
    const geometry = new THREE.SphereGeometry(10, 24, 6, 0, 2 * Math.PI, high, low - high);
    scene.add(new THREE.Mesh(geometry, new THREE.MeshBasicMaterial({ color, side: THREE.BackSide })));
  }
  const maker = new THREE.PMREMGenerator(renderer);
  const { texture } = maker.fromScene(scene, 0.02, 0.1, 20, { size: SIDE });
  maker.dispose();
  return texture;
}
