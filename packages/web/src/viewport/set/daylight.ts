import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';

/** Towards the sun: late in the morning, so that shadows fall to the left and behind as the first view sees them. */
export const TO_SUN = new THREE.Vector3(0.3, 0.82, 0.95).normalize();

/** By the two lights their colours by day, and by night: a third as much, and cool. */
const LIGHTS = {
  day: { above: '#FFFFFF', below: '#B9B6A4', sky: 1.5, sun: '#FFF1D6', sunlight: 2.5 },
  night: { above: '#B4C6E4', below: '#5F6A78', sky: 0.5, sun: '#B9CDF2', sunlight: 0.83 },
} as const;

const MAP = 2048;
/** Largest distance of shadows from the camera, metres. */
const FARTHEST = 400;
/** The shadowed piece grows in steps, so that its grain does not crawl while the camera moves. */
const STEP = 1.25;

/** The light of the set: a sky, and a sun with soft shadows where the renderer draws them. */
export class Daylight {
  readonly object = new THREE.Group();
  private readonly sky = new THREE.HemisphereLight();
  private readonly sun = new THREE.DirectionalLight();
  /** Takes the shadows on the pale ground. */
  private readonly ground: THREE.Mesh<THREE.PlaneGeometry, THREE.ShadowMaterial>;

  constructor() {
    const material = new THREE.ShadowMaterial({ opacity: 0.3, fog: true });
    material.depthWrite = false;
    this.ground = new THREE.Mesh(new THREE.PlaneGeometry(2_000, 2_000), material);
    this.ground.rotation.x = -Math.PI / 2;
    this.ground.renderOrder = ORDER.groundShadow;
    this.ground.receiveShadow = true;
    this.ground.visible = false;
    this.sun.shadow.mapSize.set(MAP, MAP);
    this.sun.shadow.radius = 3;
    this.object.add(this.sky, this.sun, this.sun.target, this.ground);
  }

  paint({ mode, ink }: Theme): void {
    const { above, below, sky, sun, sunlight } = LIGHTS[mode];
    this.sky.color.set(above);
    this.sky.groundColor.set(below);
    this.sky.intensity = sky;
    this.sun.color.set(sun);
    this.sun.intensity = sunlight;
    this.ground.material.color.set(mode === 'day' ? ink : '#000000');
  }

  /**
   * Sets whether things cast shadows.
   *
   * @param built the plan of a model of the ground, which takes shadows itself
   */
  cast(shadows: boolean, built: THREE.Box3 | null): void {
    this.sun.castShadow = shadows;
    this.ground.visible = shadows && built === null;
  }

  /**
   * To be called before a picture is drawn: the shadows are drawn for what is in view, as finely as that allows.
   *
   * @param content the box around what casts and takes shadows
   * @param level how high the pale ground lies, metres
   */
  update(camera: THREE.Camera, content: THREE.Box3, level: number): void {
    this.sun.position.copy(TO_SUN);
    this.sun.target.position.set(0, 0, 0);
    if (!this.sun.castShadow) return;
    const fromSun = new THREE.Matrix4().lookAt(TO_SUN, new THREE.Vector3(), new THREE.Vector3(0, 1, 0));
    const toSun = fromSun.clone().transpose();
    const all = cornersOf(content, toSun);
    const seen = new THREE.Box3().setFromPoints(frustumCorners(camera).map((at) => at.applyMatrix4(toSun)));
    const piece = all.clone();
    for (const axis of ['x', 'y'] as const) {
      piece.min[axis] = Math.max(all.min[axis], seen.min[axis]);
      piece.max[axis] = Math.min(all.max[axis], seen.max[axis]);
      if (piece.min[axis] > piece.max[axis])
        [piece.min[axis], piece.max[axis]] = [all.min[axis], all.min[axis]];
    }
    const wide = Math.max(2, piece.max.x - piece.min.x, piece.max.y - piece.min.y);
    const size = STEP ** Math.ceil(Math.log(wide * 1.05) / Math.log(STEP));
    const texel = size / MAP;
    const middle = piece.getCenter(new THREE.Vector3());
    for (const axis of ['x', 'y'] as const) middle[axis] = Math.round(middle[axis] / texel) * texel;
    const centre = middle.setZ((all.min.z + all.max.z) / 2).applyMatrix4(fromSun);
    const depth = all.max.z - all.min.z + 2;
    this.sun.target.position.copy(centre);
    this.sun.position.copy(centre).addScaledVector(TO_SUN, depth / 2);
    const { camera: eye } = this.sun.shadow;
    [eye.left, eye.right, eye.bottom, eye.top] = [-size / 2, size / 2, -size / 2, size / 2];
    [eye.near, eye.far] = [0, depth];
    eye.updateProjectionMatrix();
    this.sun.shadow.normalBias = 1.5 * texel;
    this.sun.shadow.bias = -texel / depth;
    this.ground.position.set(centre.x, level, centre.z);
  }

  dispose(): void {
    this.sun.shadow.dispose();
    this.sun.dispose();
    this.ground.geometry.dispose();
    this.ground.material.dispose();
  }
}

function cornersOf({ min, max }: THREE.Box3, toSun: THREE.Matrix4): THREE.Box3 {
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((corner) =>
    new THREE.Vector3(
      corner & 1 ? max.x : min.x,
      corner & 2 ? max.y : min.y,
      corner & 4 ? max.z : min.z,
    ).applyMatrix4(toSun),
  );
  return new THREE.Box3().setFromPoints(corners);
}

/** The corners of what a camera sees, as far as shadows are looked for. */
function frustumCorners(camera: THREE.Camera): THREE.Vector3[] {
  const corners = [-1, 1].flatMap((z) =>
    [-1, 1].flatMap((y) => [-1, 1].map((x) => new THREE.Vector3(x, y, z).unproject(camera))),
  );
  if (!(camera instanceof THREE.PerspectiveCamera)) return corners;
  const eye = camera.position;
  return corners.map((at) => {
    const way = at.sub(eye);
    return way.clampLength(0, FARTHEST).add(eye);
  });
}
