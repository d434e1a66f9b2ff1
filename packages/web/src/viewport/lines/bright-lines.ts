import * as THREE from 'three';
import { Line2 } from 'three/examples/jsm/lines/Line2.js';
import { LineGeometry } from 'three/examples/jsm/lines/LineGeometry.js';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import type { Vec3 } from '@fleet-rail/core';
import { ORDER } from '../drawing/draw-order';
import { dots, placeDots } from './dots';

/** Lines with their points in the signal colour over everything: what would be, not what is. */
export class BrightLines {
  readonly object = new THREE.Group();
  private readonly material = new LineMaterial({ linewidth: 3, depthTest: false, transparent: true });
  private readonly points = dots(8, 'disc');
  private readonly lines = new THREE.Group();
  private shown: readonly ArrayLike<number>[] = [];

  constructor() {
    this.points.frustumCulled = false;
    this.points.renderOrder = ORDER.brightPoints;
    this.object.add(this.lines, this.points);
  }

  /** Shows lines, each x, y, z a place. */
  show(lines: readonly ArrayLike<number>[], color: string, places: readonly Vec3[] = []): void {
    this.material.color.set(color);
    if (lines === this.shown) return;
    this.shown = lines;
    this.clear();
    placeDots(
      this.points,
      places,
      places.map(() => color),
    );
    for (const line of lines) {
      if (line.length < 6) continue;
      const object = new Line2(new LineGeometry().setPositions(Float32Array.from(line)), this.material);
      object.frustumCulled = false;
      object.renderOrder = ORDER.bright;
      this.lines.add(object);
    }
  }

  dispose(): void {
    this.clear();
    this.material.dispose();
    this.points.geometry.dispose();
    this.points.material.dispose();
  }

  private clear(): void {
    for (const child of [...this.lines.children]) {
      (child as Line2).geometry.dispose();
      this.lines.remove(child);
    }
  }
}
