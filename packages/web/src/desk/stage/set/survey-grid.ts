import * as THREE from 'three';
import { ORDER } from '../draw-order';
import type { Theme } from '../../../theme/theme';
import type { Haze } from './sky';

/** How far the lines reach to each side, in their own spacing. */
const REACH = 40;
/** Lines are gone where they lie nearer together than so many pixels, and whole at three times that. */
const LEAST_PIXELS = 8;
const LEAST_ACROSS = 2.5;
/** Pieces of a line between two others: some rasterisers drop one that runs from before the viewer to behind. */
const PIECE = 4;

const VERTEX = /* glsl */ `
  uniform float size;
  uniform vec2 middle;
  uniform float reach;
  varying vec2 vPlan;
  varying float vStrength;
  void main() {
    vPlan = position.xz;
    vec4 seen = viewMatrix * vec4(position, 1.0);
    float near = 1.0 - smoothstep(reach / 3.0, reach, -seen.z);
    vStrength = near * (1.0 - smoothstep(0.5, 1.0, length(vPlan - middle) / size));
    gl_Position = projectionMatrix * seen;
  }
`;

const FRAGMENT = /* glsl */ `
  uniform vec3 color;
  uniform vec4 built;
  varying vec2 vPlan;
  varying float vStrength;
  void main() {
    // A model of the ground is its own measure.
    if (vPlan.x > built.x && vPlan.x < built.z && vPlan.y > built.y && vPlan.y < built.w) discard;
    gl_FragColor = vec4(color, vStrength);
    #include <colorspace_fragment>
  }
`;

const GROUND_VERTEX = /* glsl */ `
  varying float vDepth;
  void main() {
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    vDepth = -seen.z;
    gl_Position = projectionMatrix * seen;
  }
`;

const GROUND_FRAGMENT = /* glsl */ `
  uniform vec3 color;
  uniform vec3 horizon;
  uniform vec2 haze;
  varying float vDepth;
  void main() {
    gl_FragColor = vec4(mix(color, horizon, smoothstep(haze.x, haze.y, vDepth)), 1.0);
    #include <colorspace_fragment>
  }
`;

type Lines = THREE.LineSegments<THREE.BufferGeometry, THREE.ShaderMaterial>;

/** The pale ground with its survey grid: a line every metre where these can be told apart, every ten metres beyond. */
export class SurveyGrid {
  readonly object = new THREE.Group();
  /** The lines, without the ground they lie on. */
  readonly lines = new THREE.Group();
  private readonly ground: THREE.Mesh<THREE.PlaneGeometry, THREE.ShaderMaterial>;
  private readonly nets: readonly Lines[];
  private built: THREE.Box3 | null = null;

  constructor() {
    // Drawn first and without depth: it lies behind everything, and what is sunk into it stays seen.
    const material = new THREE.ShaderMaterial({
      vertexShader: GROUND_VERTEX,
      fragmentShader: GROUND_FRAGMENT,
      depthTest: false,
      depthWrite: false,
      uniforms: {
        color: { value: new THREE.Color() },
        horizon: { value: new THREE.Color() },
        haze: { value: new THREE.Vector2() },
      },
    });
    this.ground = new THREE.Mesh(new THREE.PlaneGeometry(8_000, 8_000), material);
    this.ground.rotation.x = -Math.PI / 2;
    this.ground.renderOrder = ORDER.ground;
    this.nets = [1, 10].map(lines);
    this.lines.add(...this.nets);
    this.object.add(this.ground, this.lines);
  }

  paint(theme: Theme): void {
    this.ground.material.uniforms.color.value.set(theme.stageGround);
    this.ground.material.uniforms.horizon.value.set(theme.horizon);
    this.nets[0].material.uniforms.color.value.set(theme.gridFine);
    this.nets[1].material.uniforms.color.value.set(theme.gridCoarse);
  }

  /** Leaves the plan of a model of the ground free. */
  leaveOut(built: THREE.Box3 | null): void {
    if (built === this.built) return;
    this.built = built;
    const { min, max } = built ?? new THREE.Box3();
    for (const net of this.nets) {
      net.material.uniforms.built.value.set(min.x, min.z, max.x, max.z);
      net.userData.laid = null;
    }
  }

  /**
   * To be called before a picture is drawn.
   *
   * @param about  what is looked at: the lines lie around it
   * @param height of the picture, pixels
   * @param haze   in which the ground fades; null for none
   */
  update(camera: THREE.Camera, about: THREE.Vector3, height: number, haze: Haze | null): void {
    const flat = camera instanceof THREE.OrthographicCamera;
    // Seen edge-on the ground is a line; its plane is left out.
    const down = -camera.getWorldDirection(new THREE.Vector3()).y;
    this.ground.visible = !flat || down > 0.01;
    this.ground.position.set(camera.position.x, 0, camera.position.z);
    this.ground.material.uniforms.haze.value.set(haze?.near ?? 1e9, haze?.far ?? 2e9);
    for (const net of this.nets) {
      const spacing = net.userData.spacing as number;
      const reach = reachOf(camera, spacing, height);
      net.material.uniforms.reach.value = reach;
      net.visible = flat ? reach > 1 : reach > Math.abs(camera.position.y);
      if (net.visible) lay(net, spacing, about, this.built);
    }
  }

  dispose(): void {
    this.ground.geometry.dispose();
    this.ground.material.dispose();
    for (const { geometry, material } of this.nets) {
      geometry.dispose();
      material.dispose();
    }
  }
}

/** From how far lines can still be told apart; at any distance, or at none, where all are seen from as far. */
function reachOf(camera: THREE.Camera, spacing: number, height: number): number {
  if (camera instanceof THREE.PerspectiveCamera) {
    const pixels = (spacing * height) / (2 * Math.tan((camera.fov * Math.PI) / 360));
    // Those across lie the nearer together the lower the eye is.
    const low = Math.sqrt((pixels * Math.abs(camera.position.y)) / LEAST_ACROSS);
    return Math.min(pixels / LEAST_PIXELS, low);
  }
  const { top, bottom, zoom } = camera as THREE.OrthographicCamera;
  const pixels = (spacing * height * zoom) / (top - bottom);
  return pixels > LEAST_PIXELS ? 1e9 : 1e-9;
}

/** Lays a net around a place, unless it lies there; pieces of it that lie wholly within a model of the ground are left out. */
function lay(net: Lines, spacing: number, about: THREE.Vector3, built: THREE.Box3 | null): void {
  const step = 10 * spacing;
  const [x, z] = [about.x, about.z].map((at) => Math.round(at / step) * step);
  const key = `${x} ${z}`;
  if (net.userData.laid === key) return;
  net.userData.laid = key;
  const covered = (ax: number, az: number, bx: number, bz: number) =>
    built !== null &&
    Math.min(ax, bx) > built.min.x &&
    Math.max(ax, bx) < built.max.x &&
    Math.min(az, bz) > built.min.z &&
    Math.max(az, bz) < built.max.z;
  const places: number[] = [];
  const add = (ax: number, az: number, bx: number, bz: number) => {
    if (!covered(ax, az, bx, bz)) places.push(ax, 0, az, bx, 0, bz);
  };
  for (let i = -REACH; i <= REACH; i++) {
    for (let k = -REACH; k < REACH; k += PIECE) {
      const [at, from, to] = [i, k, k + PIECE].map((cells) => cells * spacing);
      add(x + from, z + at, x + to, z + at);
      add(x + at, z + from, x + at, z + to);
    }
  }
  net.geometry.dispose();
  net.geometry = new THREE.BufferGeometry().setAttribute(
    'position',
    new THREE.Float32BufferAttribute(places, 3),
  );
  net.material.uniforms.middle.value.set(x, z);
}

function lines(spacing: number): Lines {
  const material = new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    transparent: true,
    depthWrite: false,
    uniforms: {
      color: { value: new THREE.Color() },
      size: { value: spacing * REACH },
      middle: { value: new THREE.Vector2() },
      reach: { value: 1 },
      built: { value: new THREE.Vector4() },
    },
  });
  const object = new THREE.LineSegments(new THREE.BufferGeometry(), material);
  object.frustumCulled = false;
  object.userData.spacing = spacing;
  return object;
}
