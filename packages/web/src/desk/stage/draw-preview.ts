import { PathError, compilePath, pathOutline, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { drawnPath } from '../../edits/path-edits';
import type { Theme } from '../../theme/theme';

/** The path in the making: the curve through the clicked places and the one under the pointer. */
export class DrawPreview {
  readonly object = new THREE.Group();
  private readonly curve = new THREE.Line(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ depthTest: false }),
  );
  private readonly dots = new THREE.Points(
    new THREE.BufferGeometry(),
    new THREE.PointsMaterial({ size: 8, sizeAttenuation: false, depthTest: false }),
  );
  private hover: Vec3 | null = null;
  private places: readonly Vec3[] | null = null;

  constructor() {
    for (const part of [this.curve, this.dots]) {
      part.frustumCulled = false;
      part.renderOrder = 12;
      this.object.add(part);
    }
  }

  show(places: readonly Vec3[] | null, theme: Theme): void {
    this.places = places;
    if (places === null) this.hover = null;
    this.object.visible = places !== null;
    this.curve.material.color.set(theme.signal);
    this.dots.material.color.set(theme.ink);
    this.rebuild();
  }

  /** Follows the pointer. */
  setHover(place: Vec3 | null): void {
    this.hover = place;
    this.rebuild();
  }

  dispose(): void {
    for (const part of [this.curve, this.dots]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }

  private rebuild(): void {
    const places = [...(this.places ?? []), ...(this.hover ? [this.hover] : [])];
    this.dots.geometry.setAttribute(
      'position',
      new THREE.Float32BufferAttribute((this.places ?? []).flat(), 3),
    );
    this.curve.geometry.setAttribute('position', new THREE.Float32BufferAttribute(outlineOf(places), 3));
  }
}

function outlineOf(places: readonly Vec3[]): ArrayLike<number> {
  try {
    return pathOutline(compilePath(drawnPath('preview', places, false)), 24 * Math.max(2, places.length));
  } catch (error) {
    // One place, or two in one spot, make no curve yet.
    if (error instanceof PathError) return [];
    throw error;
  }
}
