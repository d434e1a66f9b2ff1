import type { Axis } from '@fleet-rail/core';
import { axisVector } from '@fleet-rail/core';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { ModelLibrary } from '../../viewport/figures/model-library';
import { StandIns } from '../../viewport/figures/stand-ins';
import { smoothEdges } from '../../viewport/drawing/smooth-edges';
import type { Theme } from '../../ui/theme/theme';

/** How many pixels a press may move and still be a click. */
const CLICK_PIXELS = 4;

/** A small stage for one model with arrows at its nose and roof; a click on a side of its box picks that way. */
export class TurntableView {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(32, 1, 0.01, 1_000);
  private readonly controls: OrbitControls;
  private readonly models = new ModelLibrary();
  private readonly arrows = new THREE.Group();
  private readonly box = new THREE.Box3(new THREE.Vector3(-1, -1, -1), new THREE.Vector3(1, 1, 1));
  private readonly side = new THREE.LineLoop(new THREE.BufferGeometry(), new THREE.LineBasicMaterial());
  private readonly edges = new THREE.LineSegments(new THREE.BufferGeometry(), new THREE.LineBasicMaterial());
  private model: THREE.Object3D | null = null;
  private shown: string | null | undefined = undefined;
  private request = 0;
  private pressed: { x: number; y: number } | null = null;
  private axes: { forward: Axis; up: Axis } = { forward: '+z', up: '+y' };
  private theme: Theme | null = null;

  /** Browsers allow few graphics contexts: each view has its own canvas, and returns both. */
  private readonly canvas = document.createElement('canvas');

  constructor(
    host: HTMLElement,
    private readonly onPick: (axis: Axis) => void,
  ) {
    const { canvas } = this;
    host.append(canvas);
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: smoothEdges() });
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enablePan = false;
    this.controls.enableZoom = false;
    this.controls.addEventListener('change', () => this.redraw());
    const sun = new THREE.DirectionalLight('#FFF4DC', 1.7);
    sun.position.set(-40, 80, 50);
    this.scene.add(new THREE.HemisphereLight('#FFFFFF', '#B9B6A4', 2.1), sun);
    this.scene.add(this.arrows, this.edges, this.side);
    this.side.visible = false;
    canvas.addEventListener('pointerdown', this.down);
    canvas.addEventListener('pointerup', this.up);
    canvas.addEventListener('pointercancel', this.cancel);
    canvas.addEventListener('pointermove', this.move);
    canvas.addEventListener('pointerleave', this.leave);
  }

  resize(width: number, height: number): void {
    if (width < 2 || height < 2) return;
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.redraw();
  }

  paint(theme: Theme): void {
    this.theme = theme;
    this.scene.background = new THREE.Color(theme.sky);
    this.edges.material.color.set(theme.gridCoarse);
    this.side.material.color.set(theme.signal);
    this.drawArrows();
  }

  /** Shows a model of the server; null for the stand-in. */
  showModel(asset: string | null, color: string): void {
    if (asset === this.shown) return;
    this.shown = asset;
    const take = (object: THREE.Object3D) => {
      if (this.shown !== asset) return;
      if (this.model) this.scene.remove(this.model);
      this.model = object;
      this.scene.add(object);
      this.frame(object);
    };
    if (asset === null) take(new StandIns().carriage(color));
    else
      this.models.copyOf(asset).then(take, () => {
        // The stage says why it could not be loaded.
        take(new StandIns().carriage(color));
      });
  }

  showAxes(forward: Axis, up: Axis): void {
    this.axes = { forward, up };
    this.drawArrows();
  }

  dispose(): void {
    cancelAnimationFrame(this.request);
    this.canvas.removeEventListener('pointerdown', this.down);
    this.canvas.removeEventListener('pointerup', this.up);
    this.canvas.removeEventListener('pointercancel', this.cancel);
    this.canvas.removeEventListener('pointermove', this.move);
    this.canvas.removeEventListener('pointerleave', this.leave);
    this.controls.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
    this.canvas.remove();
  }

  private frame(object: THREE.Object3D): void {
    this.box.setFromObject(object);
    const size = this.box.getSize(new THREE.Vector3());
    const centre = this.box.getCenter(new THREE.Vector3());
    const radius = Math.max(0.05, size.length() / 2);
    this.camera.position
      .copy(centre)
      .addScaledVector(new THREE.Vector3(0.75, 0.5, 0.9).normalize(), radius * 3.9);
    this.camera.near = radius / 50;
    this.camera.far = radius * 20;
    this.camera.updateProjectionMatrix();
    this.controls.target.copy(centre);
    this.edges.geometry.dispose();
    const solid = new THREE.BoxGeometry(size.x, size.y, size.z);
    this.edges.geometry = new THREE.EdgesGeometry(solid);
    solid.dispose();
    this.edges.position.copy(centre);
    this.controls.update();
    this.drawArrows();
  }

  private drawArrows(): void {
    this.arrows.clear();
    const centre = this.box.getCenter(new THREE.Vector3());
    const size = this.box.getSize(new THREE.Vector3());
    const length = Math.max(0.05, size.length() * 0.28);
    const add = (axis: Axis, color: string) => {
      const direction = new THREE.Vector3(...axisVector(axis));
      const reach = Math.abs(size.dot(direction)) / 2;
      const from = centre.clone().addScaledVector(direction, reach);
      const arrow = new THREE.ArrowHelper(direction, from, length, color, length * 0.45, length * 0.3);
      this.arrows.add(arrow);
    };
    add(this.axes.forward, this.theme?.signal ?? '#D3452C');
    add(this.axes.up, this.theme?.ink ?? '#1B2A33');
    this.redraw();
  }

  private redraw(): void {
    if (this.request === 0)
      this.request = requestAnimationFrame(() => {
        this.request = 0;
        this.renderer.render(this.scene, this.camera);
      });
  }

  private readonly down = ({ offsetX: x, offsetY: y, button }: PointerEvent) => {
    if (button === 0) this.pressed = { x, y };
  };

  private readonly up = ({ offsetX: x, offsetY: y }: PointerEvent) => {
    const { pressed } = this;
    this.pressed = null;
    if (pressed === null || Math.hypot(x - pressed.x, y - pressed.y) >= CLICK_PIXELS) return;
    const axis = this.axisAt(x, y);
    if (axis !== null) this.onPick(axis);
  };

  private readonly cancel = () => {
    this.pressed = null;
  };

  private readonly move = ({ offsetX: x, offsetY: y, buttons }: PointerEvent) => {
    this.showSide(buttons === 0 ? this.axisAt(x, y) : null);
  };

  private readonly leave = () => this.showSide(null);

  /** The side of the box under the pointer. */
  private axisAt(x: number, y: number): Axis | null {
    const ray = new THREE.Raycaster();
    const { clientWidth, clientHeight } = this.canvas;
    ray.setFromCamera(new THREE.Vector2((2 * x) / clientWidth - 1, 1 - (2 * y) / clientHeight), this.camera);
    const hit = ray.ray.intersectBox(this.box, new THREE.Vector3());
    if (hit === null) return null;
    const centre = this.box.getCenter(new THREE.Vector3());
    const size = this.box.getSize(new THREE.Vector3());
    const out = [hit.x - centre.x, hit.y - centre.y, hit.z - centre.z].map(
      (value, k) => value / Math.max(1e-6, size.getComponent(k) / 2),
    );
    const k = out.map(Math.abs).indexOf(Math.max(...out.map(Math.abs)));
    return `${out[k] < 0 ? '-' : '+'}${'xyz'[k]}` as Axis;
  }

  private showSide(axis: Axis | null): void {
    this.canvas.style.cursor = axis === null ? '' : 'pointer';
    this.side.visible = axis !== null;
    if (axis !== null) {
      const { min, max } = this.box;
      const k = 'xyz'.indexOf(axis[1]);
      const [u, v] = [(k + 1) % 3, (k + 2) % 3];
      const level = axis[0] === '-' ? min.getComponent(k) : max.getComponent(k);
      const corners = [
        [min, min],
        [max, min],
        [max, max],
        [min, max],
      ].map(([a, b]) => {
        const corner = new THREE.Vector3().setComponent(k, level);
        return corner.setComponent(u, a.getComponent(u)).setComponent(v, b.getComponent(v));
      });
      this.side.geometry.setFromPoints(corners);
    }
    this.redraw();
  }
}
