import { PathError, compilePath, pathOutline, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { Line2 } from 'three/examples/jsm/lines/Line2.js';
import { LineGeometry } from 'three/examples/jsm/lines/LineGeometry.js';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { drawnPath } from '../../edits/path-edits';
import type { Theme } from '../../theme/theme';
import { dots, placeDots } from './dots';

/** The path in the making: the curve through the clicked places and the one under the pointer. */
export class DrawPreview {
  readonly object = new THREE.Group();
  private readonly curve = new Line2(
    new LineGeometry(),
    new LineMaterial({ linewidth: 3, depthTest: false, transparent: true }),
  );
  private readonly dots = dots(11, 'disc');
  private hover: Vec3 | null = null;
  private places: readonly Vec3[] | null = null;
  private theme: Theme | null = null;

  constructor() {
    for (const part of [this.curve, this.dots]) {
      part.frustumCulled = false;
      part.renderOrder = 12;
      this.object.add(part);
    }
  }

  show(places: readonly Vec3[] | null, theme: Theme): void {
    this.places = places;
    this.theme = theme;
    if (places === null) this.hover = null;
    this.object.visible = places !== null;
    this.curve.material.color.set(theme.signal);
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
    const clicked = this.places ?? [];
    placeDots(
      this.dots,
      clicked,
      clicked.map(() => this.theme?.ink ?? '#000000'),
    );
    const outline = outlineOf(this.hover ? [...clicked, this.hover] : clicked);
    this.curve.visible = outline !== null;
    if (outline === null) return;
    this.curve.geometry.dispose();
    this.curve.geometry = new LineGeometry().setPositions(outline);
  }
}

/** The curve so far, or null: one place, or two in one spot, make none yet. */
function outlineOf(places: readonly Vec3[]): Float32Array | null {
  try {
    return Float32Array.from(
      pathOutline(compilePath(drawnPath('preview', places, false)), 24 * Math.max(2, places.length)),
    );
  } catch (error) {
    if (error instanceof PathError) return null;
    throw error;
  }
}
