import {
  PathError,
  compiledPathOf,
  nearestToRay,
  type NearestPoint,
  type ShotPath,
  type Vec3,
} from '@fleet-rail/core';
import * as THREE from 'three';
import type { ContactOverlay } from '../lines/contact-overlay';
import type { CurveOverlay, HandleEnd } from '../lines/curve-overlay';
import type { Grip, PlumbLines } from '../lines/plumb-lines';
import type { Ribbons } from '../lines/ribbons';
import type { RigGrip } from '../lines/rig-overlay';
import type { ScreenProjection } from '../labels/screen-projection';
import type { Views } from '../views/views';

const GRIP_PIXELS = 11;
const PATH_PIXELS = 14;

/** Pick of the stage under the pointer. */
export class StagePicks {
  constructor(
    private readonly views: Views,
    private readonly projection: ScreenProjection,
    private readonly plumb: PlumbLines,
    private readonly overlay: CurveOverlay,
    private readonly contact: ContactOverlay,
    private readonly ribbons: Ribbons,
  ) {}

  /** Whether a point is drawn within a number of pixels of the pointer. */
  isNear(place: Vec3, x: number, y: number, pixels: number): boolean {
    return this.projection.distanceTo(place, x, y) <= pixels;
  }

  /** The control point under the pointer, and what of it. */
  grip(x: number, y: number): { index: number; grip: Grip } | null {
    if (!this.plumb.object.visible) return null;
    const grips: Grip[] = this.views.current === 'plan' ? ['point'] : ['head', 'point', 'foot'];
    let best: { index: number; grip: Grip; distance: number } | null = null;
    this.plumb.positions.forEach((_, index) => {
      for (const grip of grips) {
        const distance = this.projection.distanceTo(this.plumb.gripPlace(index, grip, this.spanAt), x, y);
        if (distance <= GRIP_PIXELS && (best === null || distance < best.distance - 0.5))
          best = { index, grip, distance };
      }
    });
    return best;
  }

  /** The path nearest to the pointer, if one is near. */
  path(x: number, y: number): string | null {
    let best: { id: string; distance: number } | null = null;
    for (const [id, line] of this.ribbons.byPath()) {
      const distance = this.projection.distanceToLine(line, x, y);
      if (distance <= PATH_PIXELS && (best === null || distance < best.distance)) best = { id, distance };
    }
    return best?.id ?? null;
  }

  /** The handle under the pointer. */
  handle(x: number, y: number): HandleEnd | null {
    if (!this.overlay.object.visible) return null;
    // A handle that lies on its point would keep the point from being taken hold of.
    const free = this.overlay.handles.filter(({ index, position }) => {
      const point = this.projection.toScreen(this.plumb.positions[index]);
      const end = this.projection.toScreen(position);
      return point && end && Math.hypot(end.x - point.x, end.y - point.y) > GRIP_PIXELS / 2;
    });
    return this.projection.nearestOf(free, x, y, GRIP_PIXELS);
  }

  /** Grip of the selected rider's rig under the pointer. */
  rig(x: number, y: number): RigGrip | null {
    return this.projection.nearestOf(this.contact.grips, x, y, GRIP_PIXELS);
  }

  /** The mark of the selected path under the pointer. */
  mark(x: number, y: number): string | null {
    if (!this.overlay.object.visible) return null;
    return this.projection.nearestOf(this.overlay.marks, x, y, GRIP_PIXELS)?.id ?? null;
  }

  /** The control points inside a box on the screen. */
  pointsIn(x0: number, y0: number, x1: number, y1: number): number[] {
    const inside = (value: number, a: number, b: number) =>
      value >= Math.min(a, b) && value <= Math.max(a, b);
    return [...this.plumb.positions.keys()].filter((i) => {
      const at = this.projection.toScreen(this.plumb.positions[i]);
      return at !== null && inside(at.x, x0, x1) && inside(at.y, y0, y1);
    });
  }

  /** The place of a path nearest to the pointer; null where the pointer is not near, unless `anywhere`. */
  placeOnPath(path: ShotPath, x: number, y: number, anywhere = false): NearestPoint | null {
    const curve = compiledPathOf(path);
    if (curve instanceof PathError) return null;
    const { origin, direction } = this.projection.rayAt(x, y).ray;
    const place = nearestToRay(curve, origin.toArray(), direction.toArray());
    const here: Vec3 = [0, 0, 0];
    curve.position(place.distance, here);
    return anywhere || this.isNear(here, x, y, PATH_PIXELS) ? place : null;
  }

  private readonly spanAt = (place: Vec3): number => this.views.metresPerPixel(new THREE.Vector3(...place));
}
