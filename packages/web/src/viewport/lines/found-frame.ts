import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';
import type { RiderFigures } from '../figures/rider-figures';

/** Corners of a frame are drawn this far along each edge, as a part of it. */
const CORNER = 0.28;

/** Corners around the rider of a finding, visible through everything before it: under the ground as well. */
export class FoundFrame {
  readonly object: THREE.LineSegments;
  private readonly material = new THREE.LineBasicMaterial({ depthTest: false, transparent: true });

  constructor() {
    this.object = new THREE.LineSegments(new THREE.BufferGeometry(), this.material);
    this.object.renderOrder = ORDER.found;
    this.object.frustumCulled = false;
    this.object.visible = false;
  }

  show(lookAt: DeskState['lookAt'], figures: RiderFigures, theme: Theme): void {
    const boxes = lookAt?.riders.flatMap((id) => figures.boxOf(id)?.expandByScalar(0.15) ?? []) ?? [];
    this.object.visible = boxes.length > 0;
    if (boxes.length === 0) return;
    this.material.color.set(theme.signal);
    this.object.geometry.setAttribute(
      'position',
      new THREE.Float32BufferAttribute(boxes.flatMap(cornersOf), 3),
    );
  }

  dispose(): void {
    this.object.geometry.dispose();
    this.material.dispose();
  }
}

/** From each corner of a box a little way along its three edges. */
function cornersOf({ min, max }: THREE.Box3): number[] {
  const size = [max.x - min.x, max.y - min.y, max.z - min.z];
  return [0, 1, 2, 3, 4, 5, 6, 7].flatMap((corner) => {
    const sign = [corner & 1 ? -1 : 1, corner & 2 ? -1 : 1, corner & 4 ? -1 : 1];
    const at = [corner & 1 ? max.x : min.x, corner & 2 ? max.y : min.y, corner & 4 ? max.z : min.z];
    return [0, 1, 2].flatMap((axis) => {
      const to = [...at];
      to[axis] += sign[axis] * CORNER * size[axis];
      return [...at, ...to];
    });
  });
}
