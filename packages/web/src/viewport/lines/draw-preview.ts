import { pathOutline } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import { drawnPath, type DrawKind, type DrawPlace } from '../../edits/drawn-path';
import type { Theme } from '../../ui/theme/theme';
import { BrightLines } from './bright-lines';
import { dots, placeDots } from './dots';

/** The path in the making: the curve through the clicked places and the one under the pointer. */
export class DrawPreview {
  readonly object = new THREE.Group();
  private readonly curve = new BrightLines();
  private readonly dots = dots(11, 'disc');
  private hover: DrawPlace | null = null;
  private places: readonly DrawPlace[] | null = null;
  private kind: DrawKind = 'bezier';
  private theme: Theme | null = null;

  constructor() {
    this.dots.frustumCulled = false;
    this.dots.renderOrder = ORDER.bright;
    this.object.add(this.curve.object, this.dots);
  }

  show(places: readonly DrawPlace[] | null, kind: DrawKind, theme: Theme): void {
    this.places = places;
    this.kind = kind;
    this.theme = theme;
    if (places === null) this.hover = null;
    this.object.visible = places !== null;
    if (places !== null) this.rebuild();
  }

  /** Follows the pointer. */
  setHover(place: DrawPlace | null): void {
    this.hover = place;
    if (this.places !== null) this.rebuild();
  }

  dispose(): void {
    this.curve.dispose();
    this.dots.geometry.dispose();
    this.dots.material.dispose();
  }

  private rebuild(): void {
    const clicked = this.places ?? [];
    placeDots(
      this.dots,
      clicked.map(({ position }) => position),
      clicked.map(() => this.theme?.ink ?? '#000000'),
    );
    const places = this.hover ? [...clicked, this.hover] : clicked;
    // One place, or two in one spot, make no curve yet.
    const path = drawnPath('preview', places, false, this.kind);
    const outline = pathOutline(path, 24 * Math.max(2, places.length));
    this.curve.show(outline === null ? [] : [outline], this.theme?.signal ?? '#000000');
  }
}
