import { seeCopies } from '../figures/figure-copies';
import type { Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import type { Views } from '../views/views';

/** A place on the stage's canvas, pixels from its corner. */
export interface ScreenPlace {
  readonly x: number;
  readonly y: number;
}

/** Goes from the screen into the scene and back, through the present view. */
export class ScreenProjection {
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly views: Views,
  ) {}

  /** The ray through a place of the screen. */
  rayAt(x: number, y: number): THREE.Raycaster {
    const { clientWidth, clientHeight } = this.canvas;
    const ray = seeCopies(new THREE.Raycaster());
    ray.setFromCamera(
      new THREE.Vector2((2 * x) / clientWidth - 1, 1 - (2 * y) / clientHeight),
      this.views.camera,
    );
    return ray;
  }

  /** Point of a level plane under the pointer, or null if it looks past it. */
  onLevel(x: number, y: number, height: number): Vec3 | null {
    return this.onPlane(x, y, new THREE.Plane(new THREE.Vector3(0, 1, 0), -height));
  }

  /** Point under the pointer on the upright plane through a point, facing the viewer. */
  onUpright(x: number, y: number, through: Vec3): Vec3 | null {
    const normal = this.views.camera.getWorldDirection(new THREE.Vector3()).setY(0);
    if (normal.lengthSq() < 1e-6) return null;
    const plane = new THREE.Plane().setFromNormalAndCoplanarPoint(
      normal.normalize(),
      new THREE.Vector3(...through),
    );
    return this.onPlane(x, y, plane);
  }

  /** Position on the screen; null behind the viewer. */
  toScreen(place: Vec3): ScreenPlace | null {
    const { clientWidth, clientHeight } = this.canvas;
    const p = new THREE.Vector3(...place).project(this.views.camera);
    // Nor is there a place before the view knows what it is of, and how wide it is.
    if (!(p.z <= 1) || Number.isNaN(p.x + p.y)) return null;
    return { x: ((p.x + 1) / 2) * clientWidth, y: ((1 - p.y) / 2) * clientHeight };
  }

  /** Pixels from the pointer to where a place is drawn; infinite behind the viewer. */
  distanceTo(place: Vec3, x: number, y: number): number {
    const at = this.toScreen(place);
    return at === null ? Infinity : Math.hypot(at.x - x, at.y - y);
  }

  /** Pixels from the pointer to a line of places, x, y, z of each in turn. */
  distanceToLine(line: Float32Array, x: number, y: number): number {
    let best = Infinity;
    let before: ScreenPlace | null = null;
    for (let i = 0; i < line.length; i += 3) {
      const here = this.toScreen([line[i], line[i + 1], line[i + 2]]);
      if (here && before) best = Math.min(best, distanceToSegment(x, y, before, here));
      before = here;
    }
    return best;
  }

  /** The thing drawn nearest to the pointer, within a radius in pixels. */
  nearestOf<T extends { readonly position: Vec3 }>(
    things: readonly T[],
    x: number,
    y: number,
    pixels: number,
  ): T | null {
    let best: { thing: T; distance: number } | null = null;
    for (const thing of things) {
      const distance = this.distanceTo(thing.position, x, y);
      if (distance <= pixels && (best === null || distance < best.distance)) best = { thing, distance };
    }
    return best?.thing ?? null;
  }

  private onPlane(x: number, y: number, plane: THREE.Plane): Vec3 | null {
    const hit = this.rayAt(x, y).ray.intersectPlane(plane, new THREE.Vector3());
    return hit === null ? null : [hit.x, hit.y, hit.z];
  }
}

function distanceToSegment(x: number, y: number, a: ScreenPlace, b: ScreenPlace): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const t = square > 0 ? Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / square)) : 0;
  return Math.hypot(x - a.x - t * dx, y - a.y - t * dy);
}
