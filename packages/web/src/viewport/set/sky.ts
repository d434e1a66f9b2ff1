import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';

/** Elevations of its bands and how much of the colour high up each has; denser where the eye looks. */
const BANDS: readonly (readonly [degrees: number, high: number])[] = [
  [-6, 0],
  [0, 0],
  [4, 0.3],
  [10, 0.62],
  [20, 0.88],
  [40, 1],
  [90, 1],
];
const AROUND = 24;

/** From where to where haze thickens, metres from the eye. */
export interface Haze {
  readonly near: number;
  readonly far: number;
}

/** The sky: pale at the horizon, deeper high up; and the haze in which what is far away fades. */
export class Sky {
  readonly object: THREE.Mesh<THREE.BufferGeometry, THREE.MeshBasicMaterial>;
  private readonly fog = new THREE.Fog('#FFFFFF');
  private readonly flat = new THREE.Color();

  constructor() {
    const material = new THREE.MeshBasicMaterial({
      vertexColors: true,
      side: THREE.BackSide,
      depthTest: false,
      depthWrite: false,
      fog: false,
    });
    this.object = new THREE.Mesh(dome(), material);
    this.object.renderOrder = ORDER.sky;
    this.object.frustumCulled = false;
  }

  paint(theme: Theme): void {
    const [low, high] = [new THREE.Color(theme.horizon), new THREE.Color(theme.sky)];
    const colors = this.object.geometry.getAttribute('color');
    BANDS.forEach(([, part], band) => {
      const { r, g, b } = low.clone().lerp(high, part);
      for (let i = 0; i <= AROUND; i++) colors.setXYZ(band * (AROUND + 1) + i, r, g, b);
    });
    colors.needsUpdate = true;
    this.fog.color.copy(low);
    this.flat.copy(high);
  }

  /**
   * To be called before a picture is drawn.
   *
   * @param content what the scene holds: haze begins well within it and is thin there
   * @param all     whether all is hazed, and not the ground alone
   * @returns none for views from above and from the side, where there is no far and near
   */
  update(scene: THREE.Scene, camera: THREE.Camera, content: THREE.Sphere, all: boolean): Haze | null {
    const flat = camera instanceof THREE.OrthographicCamera;
    this.object.visible = !flat;
    this.object.position.copy(camera.position);
    scene.background = flat ? this.flat : this.fog.color;
    const away = camera.position.distanceTo(content.center);
    this.fog.near = Math.max(80, 0.5 * content.radius + away);
    this.fog.far = Math.max(600, 9 * content.radius, 5 * away);
    scene.fog = all && !flat ? this.fog : null;
    return flat ? null : this.fog;
  }

  dispose(): void {
    this.object.geometry.dispose();
    this.object.material.dispose();
  }
}

function dome(): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  const places: number[] = [];
  const faces: number[] = [];
  BANDS.forEach(([degrees], band) => {
    const up = (degrees * Math.PI) / 180;
    for (let i = 0; i <= AROUND; i++) {
      const turn = (2 * Math.PI * i) / AROUND;
      places.push(
        1_000 * Math.cos(up) * Math.cos(turn),
        1_000 * Math.sin(up),
        1_000 * Math.cos(up) * Math.sin(turn),
      );
      if (band === 0 || i === 0) continue;
      const at = band * (AROUND + 1) + i;
      const below = at - AROUND - 1;
      faces.push(below - 1, at - 1, below, at - 1, at, below);
    }
  });
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
  geometry.setAttribute('color', new THREE.BufferAttribute(new Float32Array(places.length), 3));
  geometry.setIndex(faces);
  return geometry;
}
