import type { Rider } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { EvaluatedPath } from '../../workers/evaluation/evaluation';
import { lineColor } from '../../ui/theme/theme';

/** The band in which a rider looks for ground, as a faint upright strip along its path. */
export class GroundBand {
  readonly object = new THREE.Group();
  private readonly wall = new THREE.Mesh(
    new THREE.BufferGeometry(),
    new THREE.MeshBasicMaterial({
      transparent: true,
      opacity: 0.16,
      side: THREE.DoubleSide,
      depthWrite: false,
    }),
  );
  private readonly edges = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ transparent: true, opacity: 0.7, depthWrite: false }),
  );
  private inputs: readonly unknown[] = [];

  constructor() {
    this.object.add(this.wall, this.edges);
    for (const part of this.object.children) {
      part.frustumCulled = false;
      part.renderOrder = ORDER.band;
    }
  }

  /** Shows the band of a rider that is set on the ground, or none. */
  show(rider: Rider | null, path: EvaluatedPath | null): void {
    const ground = rider?.attachment?.ground;
    const shown = ground?.mode === 'stick' && path !== null && path.frames.length > 0;
    this.object.visible = shown;
    const inputs = [ground, path, rider?.color];
    if (!shown || inputs.every((input, i) => input === this.inputs[i])) return;
    this.inputs = inputs;
    const { frames } = path;
    const walls: number[] = [];
    const edges: number[] = [];
    const at = (i: number, by: number) => [frames[i], frames[i + 1] + by, frames[i + 2]];
    for (let i = 0; i + 12 < frames.length; i += 12) {
      const [a, b] = [at(i, ground.up), at(i, -ground.down)];
      const [c, d] = [at(i + 12, ground.up), at(i + 12, -ground.down)];
      walls.push(...a, ...b, ...c, ...c, ...b, ...d);
      edges.push(...a, ...c, ...b, ...d);
    }
    for (const [part, places] of [
      [this.wall, walls],
      [this.edges, edges],
    ] as const) {
      part.geometry.dispose();
      part.geometry = new THREE.BufferGeometry();
      part.geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(places), 3));
      part.material.color.set(lineColor(rider?.color ?? 0));
    }
  }

  dispose(): void {
    for (const part of [this.wall, this.edges]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }
}
