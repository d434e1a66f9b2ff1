import { DEGREES, FIRST_VIEW, firstDistance, type KeptView } from '@fleet-rail/core';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { ViewName } from '../../state/desk-store';
import type { FollowedPlace } from './followed-place';
import { metresPerPixel } from './metres-per-pixel';
import { pictureRect } from '../drawing/picture-rect';
import { seeingDirection } from './seeing-direction';

/** Direction and up of each view. Plan has X to the right and Z down, as a drawing has. */
const DIRECTIONS: Record<OwnView, { from: [number, number, number]; up: [number, number, number] }> = {
  free: { from: FIRST_VIEW.from, up: [0, 1, 0] },
  plan: { from: [0, 1, 0], up: [0, 0, -1] },
  side: { from: [1, 0, 0], up: [0, 1, 0] },
  front: { from: [0, 0, 1], up: [0, 1, 0] },
};

/** The views with a camera of the stage's own. */
type OwnView = Exclude<ViewName, 'through'>;

/** Lens of a rider's camera. */
export interface Lens {
  readonly position: THREE.Vector3;
  readonly turn: THREE.Quaternion;
  /** Up and down, radians. */
  readonly fieldOfView: number;
  readonly aspect: number;
}

interface View {
  readonly camera: THREE.PerspectiveCamera | THREE.OrthographicCamera;
  readonly controls: OrbitControls;
  fitted: boolean;
}

/** The views: four with a camera each that stays as it was left, and one through a rider's camera. */
export class Views {
  current: ViewName = 'free';
  private readonly through = new THREE.PerspectiveCamera(FIRST_VIEW.fieldOfView, 1, 0.05, 4_000);
  private readonly views: Record<OwnView, View>;
  private width = 1;
  private height = 1;

  /** @param taken told when somebody takes the view by hand */
  constructor(canvas: HTMLElement, redraw: () => void, taken: () => void) {
    const make = (name: OwnView): View => {
      const camera =
        name === 'free'
          ? new THREE.PerspectiveCamera(FIRST_VIEW.fieldOfView, 1, 0.1, 4_000)
          : new THREE.OrthographicCamera(-1, 1, 1, -1, -4_000, 8_000);
      camera.up.set(...DIRECTIONS[name].up);
      const controls = new OrbitControls(camera, canvas);
      controls.enabled = false;
      controls.rotateSpeed = 0.6;
      controls.zoomToCursor = name !== 'free';
      controls.minZoom = 1e-4;
      controls.maxDistance = 2_000;
      controls.maxPolarAngle = name === 'free' ? Math.PI * 0.495 : Math.PI;
      if (name !== 'free') {
        controls.enableRotate = false;
        controls.mouseButtons = { LEFT: THREE.MOUSE.PAN, MIDDLE: THREE.MOUSE.PAN, RIGHT: THREE.MOUSE.PAN };
        controls.touches = { ONE: THREE.TOUCH.PAN, TWO: THREE.TOUCH.DOLLY_PAN };
      }
      controls.addEventListener('start', taken);
      controls.addEventListener('change', () => {
        // The pointer may ask where it is before the next picture is drawn.
        camera.updateMatrixWorld();
        redraw();
      });
      return { camera, controls, fitted: false };
    };
    this.views = { free: make('free'), plan: make('plan'), side: make('side'), front: make('front') };
    this.views.free.controls.enabled = true;
  }

  get camera(): THREE.PerspectiveCamera | THREE.OrthographicCamera {
    return this.current === 'through' ? this.through : this.views[this.current].camera;
  }

  /** Target of the view. */
  get target(): THREE.Vector3 {
    if (this.current !== 'through') return this.views[this.current].controls.target;
    const { position } = this.through;
    return this.through.getWorldDirection(new THREE.Vector3()).multiplyScalar(20).add(position);
  }

  /** Position of the free view. */
  eye(): { position: THREE.Vector3; turn: THREE.Quaternion } {
    const { camera } = this.views.free;
    return { position: camera.position.clone(), turn: camera.quaternion.clone() };
  }

  /** Position and target of the free view. */
  stands(): Pick<KeptView, 'from' | 'at'> {
    const { camera, controls } = this.views.free;
    return { from: camera.position.toArray(), at: controls.target.toArray() };
  }

  /** Takes a view that was kept. */
  standAt({ from, at }: Pick<KeptView, 'from' | 'at'>): void {
    const { free } = this.views;
    free.fitted = true;
    free.camera.position.set(...from);
    free.controls.target.set(...at);
    free.controls.update();
    free.camera.updateMatrixWorld();
  }

  /** Moves with the followed rider, at the view's distance; nearer if that is far off. */
  follow(place: FollowedPlace): void {
    const { free } = this.views;
    const { position } = this.followed(place);
    free.fitted = true;
    free.camera.position.copy(position);
    free.controls.target.copy(place.at);
    free.controls.update();
    free.camera.updateMatrixWorld();
  }

  /** Camera for {@link follow}. */
  followed({ at, way, size }: FollowedPlace): THREE.PerspectiveCamera {
    const { camera, controls } = this.views.free;
    const far = Math.min(8 * size, camera.position.distanceTo(controls.target));
    const other = (camera as THREE.PerspectiveCamera).clone();
    other.position.copy(at).addScaledVector(way, far);
    other.lookAt(at);
    return other;
  }

  show(name: ViewName): void {
    this.setMovable(false);
    this.current = name;
    this.setMovable(true);
  }

  /** Whether dragging moves the camera; off while something on the stage is dragged. A rider's camera is not moved. */
  setMovable(movable: boolean): void {
    if (this.current !== 'through') this.views[this.current].controls.enabled = movable;
  }

  /** Looks through a rider's camera: its picture lies in the middle of the stage, with some room round it. */
  lookThrough({ position, turn, fieldOfView, aspect }: Lens): void {
    const { through, width, height } = this;
    const picture = pictureRect(width, height, aspect);
    through.position.copy(position);
    through.quaternion.copy(turn);
    through.aspect = width / height;
    through.fov = 2 * Math.atan((Math.tan(fieldOfView / 2) * height) / picture.height) * DEGREES;
    through.updateProjectionMatrix();
  }

  resize(width: number, height: number): void {
    this.width = width;
    this.height = height;
    for (const { camera } of Object.values(this.views)) {
      if (camera instanceof THREE.PerspectiveCamera) camera.aspect = width / height;
      else {
        // One unit of the view's height is a metre at zoom 1.
        camera.top = height / 2;
        camera.bottom = -height / 2;
        camera.left = -width / 2;
        camera.right = width / 2;
      }
      camera.updateProjectionMatrix();
    }
  }

  /** Brings a box into view, in the present view or, once each, in all untouched views. */
  fit(box: THREE.Box3, everyUnfitted = false): void {
    // Before the stage has a size nothing can be brought into it.
    if (this.width < 2) return;
    for (const [name, view] of Object.entries(this.views) as [OwnView, View][]) {
      if (everyUnfitted ? view.fitted : name !== this.current) continue;
      view.fitted = true;
      this.fitView(name, view, box);
    }
  }

  /**
   * Brings a box close in the present view; in a free view from where nothing hides it.
   *
   * @param blocked whether something stands between two places
   */
  zoomTo(box: THREE.Box3, blocked: (from: THREE.Vector3, to: THREE.Vector3) => boolean): void {
    if (this.width < 2 || this.current === 'through') return;
    const view = this.views[this.current];
    view.fitted = true;
    const wish = view.camera.position.clone().sub(view.controls.target);
    const direction =
      this.current === 'free' ? seeingDirection(box, wish, this.distanceFor(view, box), blocked) : undefined;
    this.fitView(this.current, view, box, direction);
  }

  /** Frames a box in untouched views, until there is something to frame. */
  preset(box: THREE.Box3): void {
    for (const [name, view] of Object.entries(this.views) as [OwnView, View][]) {
      if (!view.fitted) this.fitView(name, view, box);
    }
  }

  /** Lets the views that do not wholly show a box be fitted anew at the next occasion. */
  refitWhereUnseen(box: THREE.Box3): void {
    for (const view of Object.values(this.views)) {
      if (!showsBox(view.camera, box)) view.fitted = false;
    }
  }

  /** Metres that one pixel spans at a place. */
  metresPerPixel(place: THREE.Vector3): number {
    return metresPerPixel(this.camera, place, this.height);
  }

  dispose(): void {
    for (const { controls } of Object.values(this.views)) controls.dispose();
  }

  /** From how far a perspective view has all of a box in it. */
  private distanceFor({ camera }: View, box: THREE.Box3): number {
    const aspect = camera instanceof THREE.PerspectiveCamera ? camera.aspect : 1;
    return firstDistance(box.getSize(new THREE.Vector3()).length() / 2, aspect);
  }

  private fitView(
    name: OwnView,
    view: View,
    box: THREE.Box3,
    direction = new THREE.Vector3(...DIRECTIONS[name].from).normalize(),
  ): void {
    const { camera, controls } = view;
    const centre = box.getCenter(new THREE.Vector3());
    const size = box.getSize(new THREE.Vector3());
    if (camera instanceof THREE.PerspectiveCamera) {
      camera.position.copy(centre).addScaledVector(direction, this.distanceFor(view, box));
    } else {
      const across = name === 'side' ? size.z : size.x;
      const upward = name === 'plan' ? size.z : size.y;
      camera.zoom = Math.min(
        this.width / Math.max(6, across * 1.25),
        this.height / Math.max(6, upward * 1.25),
      );
      camera.position.copy(centre).addScaledVector(direction, 1_000);
      camera.updateProjectionMatrix();
    }
    controls.target.copy(centre);
    controls.update();
    camera.updateMatrixWorld();
  }
}

function showsBox(camera: THREE.Camera, { min, max }: THREE.Box3): boolean {
  camera.updateMatrixWorld();
  return [0, 1, 2, 3, 4, 5, 6, 7].every((corner) => {
    const place = new THREE.Vector3(
      corner & 1 ? max.x : min.x,
      corner & 2 ? max.y : min.y,
      corner & 4 ? max.z : min.z,
    ).project(camera);
    return Math.abs(place.x) <= 1 && Math.abs(place.y) <= 1 && place.z <= 1;
  });
}
