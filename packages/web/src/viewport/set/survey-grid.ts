import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';
import type { Haze } from './sky';

/** How far the lines reach to each side, in their own spacing. */
const REACH = 40;
/** Lines vanish where they are nearer together than this, pixels, and are full at three times that. */
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
  }
`;

/** The pale ground with its survey grid: a line every metre near the camera, every ten metres beyond. */
export class SurveyGrid {
  readonly object = new THREE.Group();
  /** The lines, without the ground they lie on. */
  readonly lines = new THREE.Group();
  private readonly ground: THREE.Mesh<THREE.PlaneGeometry, THREE.ShaderMaterial>;
  private readonly nets: readonly Net[];
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
    this.nets = [1, 10].map((spacing) => new Net(spacing));
    this.lines.add(...this.nets.map(({ object }) => object));
    this.object.add(this.ground, this.lines);
  }

  paint(theme: Theme): void {
    const { color, horizon } = this.ground.material.uniforms;
    paintShown(color.value, theme.stageGround);
    paintShown(horizon.value, theme.horizon);
    paintShown(this.nets[0].object.material.uniforms.color.value, theme.gridFine);
    paintShown(this.nets[1].object.material.uniforms.color.value, theme.gridCoarse);
  }

  /** Leaves the plan of a model of the ground free. */
  leaveOut(built: THREE.Box3 | null): void {
    if (built === this.built) return;
    this.built = built;
    for (const net of this.nets) net.leaveOut(built);
  }

  /**
   * Call before a picture is drawn.
   *
   * @param about  what is looked at: the lines lie around it
   * @param height of the picture, pixels
   * @param haze   in which the ground fades; null for none
   * @param level  how high the grid lies, metres
   */
  update(camera: THREE.Camera, about: THREE.Vector3, height: number, haze: Haze | null, level: number): void {
    const flat = camera instanceof THREE.OrthographicCamera;
    // Visible pieces are picked before the renderer would do so.
    camera.updateMatrixWorld();
    // Seen edge-on the ground is a line; its plane is left out.
    const down = -camera.getWorldDirection(new THREE.Vector3()).y;
    this.ground.visible = !flat || down > 0.01;
    this.ground.position.set(camera.position.x, 0, camera.position.z);
    this.ground.material.uniforms.haze.value.set(haze?.near ?? 1e9, haze?.far ?? 2e9);
    this.object.position.y = level;
    for (const net of this.nets) net.update(camera, about, height, level);
  }

  dispose(): void {
    this.ground.geometry.dispose();
    this.ground.material.dispose();
    for (const { object } of this.nets) {
      object.geometry.dispose();
      object.material.dispose();
    }
  }
}

/**
 * Sets a color as the screen shows it. The ground covers most of a picture: to turn its light into what is shown pixel by pixel
 * would cost more than all else of it.
 */
function paintShown(color: THREE.Color, style: string): void {
  color.set(style).convertLinearToSRGB();
}

/** Distance up to which lines can be distinguished; infinite or 0 if all are seen from one distance. */
function reachOf(camera: THREE.Camera, spacing: number, height: number, level: number): number {
  if (camera instanceof THREE.PerspectiveCamera) {
    const pixels = (spacing * height) / (2 * Math.tan((camera.fov * Math.PI) / 360));
    // Those across lie the nearer together the lower the eye is.
    const low = Math.sqrt((pixels * Math.abs(camera.position.y - level)) / LEAST_ACROSS);
    return Math.min(pixels / LEAST_PIXELS, low);
  }
  const { top, bottom, zoom } = camera as THREE.OrthographicCamera;
  const pixels = (spacing * height * zoom) / (top - bottom);
  return pixels > LEAST_PIXELS ? 1e9 : 1e-9;
}

/** Lines of one spacing, lengthwise and across. */
class Net {
  readonly object: THREE.LineSegments<THREE.BufferGeometry, THREE.ShaderMaterial>;
  /** All its pieces, x and z of both ends. */
  private pieces: Float32Array = new Float32Array(0);
  private built: THREE.Box3 | null = null;
  private readonly laidAt = new THREE.Vector2(NaN, NaN);
  /** From where it was last seen; drawn again from there, it is the same pieces. */
  private readonly seenBy = new THREE.Matrix4();
  private level = 0;

  constructor(private readonly spacing: number) {
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
    this.object = new THREE.LineSegments(new THREE.BufferGeometry(), material);
    this.object.frustumCulled = false;
  }

  leaveOut(built: THREE.Box3 | null): void {
    const { min, max } = built ?? new THREE.Box3();
    this.object.material.uniforms.built.value.set(min.x, min.z, max.x, max.z);
    this.built = built;
    this.laidAt.set(NaN, NaN);
  }

  update(camera: THREE.Camera, about: THREE.Vector3, height: number, level: number): void {
    const { object, spacing } = this;
    if (level !== this.level) this.laidAt.set(NaN, NaN);
    this.level = level;
    const reach = reachOf(camera, spacing, height, level);
    const known = object.material.uniforms.reach;
    const reaches = known.value === reach;
    known.value = reach;
    const flat = camera instanceof THREE.OrthographicCamera;
    object.visible = flat ? reach > 1 : reach > Math.abs(camera.position.y - level);
    if (!object.visible) return;
    const step = 10 * spacing;
    const at = new THREE.Vector2(about.x, about.z).divideScalar(step).round().multiplyScalar(step);
    const view = new THREE.Matrix4().multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse);
    const lies = this.laidAt.equals(at);
    if (lies && reaches && view.equals(this.seenBy)) return;
    if (!lies) this.lay(at);
    this.seenBy.copy(view);
    this.pick(camera, view, reach);
  }

  /** Lays it around a place; pieces that lie wholly within a model of the ground are left out. */
  private lay(at: THREE.Vector2): void {
    const { spacing, built } = this;
    const covered = (ax: number, az: number, bx: number, bz: number) =>
      built !== null &&
      Math.min(ax, bx) > built.min.x &&
      Math.max(ax, bx) < built.max.x &&
      Math.min(az, bz) > built.min.z &&
      Math.max(az, bz) < built.max.z;
    const ends: number[] = [];
    const add = (ax: number, az: number, bx: number, bz: number) => {
      if (!covered(ax, az, bx, bz)) ends.push(ax, az, bx, bz);
    };
    for (let i = -REACH; i <= REACH; i++) {
      for (let k = -REACH; k < REACH; k += PIECE) {
        const [side, from, to] = [i, k, k + PIECE].map((cells) => cells * spacing);
        add(at.x + from, at.y + side, at.x + to, at.y + side);
        add(at.x + side, at.y + from, at.x + side, at.y + to);
      }
    }
    this.pieces = Float32Array.from(ends);
    this.laidAt.copy(at);
    this.object.material.uniforms.middle.value.copy(at);
    const room = new THREE.BufferAttribute(new Float32Array(1.5 * ends.length), 3);
    this.object.geometry.dispose();
    this.object.geometry = new THREE.BufferGeometry().setAttribute('position', room);
  }

  /** Draws only pieces that are in the picture, and near enough: often a tenth of thousands. */
  private pick(camera: THREE.Camera, view: THREE.Matrix4, reach: number): void {
    const { pieces } = this;
    const forward = camera.getWorldDirection(new THREE.Vector3());
    const planes = [
      ...new THREE.Frustum().setFromProjectionMatrix(view).planes,
      new THREE.Plane(forward.clone().negate(), forward.dot(camera.position) + reach),
    ].map((plane) => plane.translate(new THREE.Vector3(0, -this.level, 0)));
    const room = this.object.geometry.getAttribute('position') as THREE.BufferAttribute;
    const places = room.array;
    let count = 0;
    for (let i = 0; i < pieces.length; i += 4) {
      if (planes.some((plane) => isBehind(plane, pieces, i))) continue;
      places[count] = pieces[i];
      places[count + 2] = pieces[i + 1];
      places[count + 3] = pieces[i + 2];
      places[count + 5] = pieces[i + 3];
      count += 6;
    }
    room.needsUpdate = true;
    this.object.geometry.setDrawRange(0, count / 3);
  }
}

/** Whether both ends of a piece on the ground, x and z each, lie behind a plane. */
function isBehind({ normal: { x, z }, constant }: THREE.Plane, pieces: Float32Array, i: number): boolean {
  return x * pieces[i] + z * pieces[i + 1] < -constant && x * pieces[i + 2] + z * pieces[i + 3] < -constant;
}
