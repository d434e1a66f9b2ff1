import * as THREE from 'three';
import { Line2 } from 'three/examples/jsm/lines/Line2.js';
import { LineGeometry } from 'three/examples/jsm/lines/LineGeometry.js';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';

/** Lines in the signal colour over everything: what would be, not what is. */
export class BrightLines {
  readonly object = new THREE.Group();
  private readonly material = new LineMaterial({ linewidth: 3, depthTest: false, transparent: true });
  private shown: readonly ArrayLike<number>[] = [];

  /** Shows lines, each x, y, z a place. */
  show(lines: readonly ArrayLike<number>[], color: string): void {
    this.material.color.set(color);
    if (lines === this.shown) return;
    this.shown = lines;
    this.clear();
    for (const line of lines) {
      if (line.length < 6) continue;
      const object = new Line2(new LineGeometry().setPositions(Float32Array.from(line)), this.material);
      object.frustumCulled = false;
      object.renderOrder = 12;
      this.object.add(object);
    }
  }

  dispose(): void {
    this.clear();
    this.material.dispose();
  }

  private clear(): void {
    for (const child of [...this.object.children]) {
      (child as Line2).geometry.dispose();
      this.object.remove(child);
    }
  }
}
