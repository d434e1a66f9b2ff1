import { POSE, type Rider } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { EvaluatedRider } from '../../workers/evaluation/evaluation';
import { poseAt } from '../../workers/evaluation/pose-at';
import { lineColor } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';

/** Led away by less than this nothing is drawn, metres. */
const LEAST = 0.02;
/** Sides of a ring. */
const SIDES = 72;
/** Height of a ring above its rider's position, so that it is not hidden by the ground, metres. */
const OVER = 0.05;

/**
 * Effect of a clearance: a pale curtain between the ride without it and with it, and rings around the riders it keeps
 * away from.
 */
export class ClearanceCurtain {
  readonly object = new THREE.Group();
  private readonly sheet = new THREE.Mesh(
    new THREE.BufferGeometry(),
    new THREE.MeshBasicMaterial({
      side: THREE.DoubleSide,
      transparent: true,
      opacity: 0.28,
      depthWrite: false,
    }),
  );
  private readonly rings = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ transparent: true, opacity: 0.8, depthWrite: false }),
  );
  private drawn: EvaluatedRider | null = null;
  private readonly pose = new Float64Array(POSE.size);

  constructor() {
    for (const part of [this.sheet, this.rings]) {
      part.frustumCulled = false;
      part.renderOrder = ORDER.curtain;
    }
    this.object.add(this.sheet, this.rings);
  }

  show(state: DeskState, shown: boolean): void {
    const { shot, riderId, evaluation } = state;
    const rider = shot.riders.find(({ id }) => id === riderId);
    const evaluated = evaluation?.riders.get(riderId ?? '');
    this.object.visible = shown && rider?.clearance != null && evaluated !== undefined;
    if (!this.object.visible || !rider || !evaluated) return;
    this.sheet.material.color.set(lineColor(rider.color));
    this.rings.material.color.set(lineColor(rider.color));
    if (this.drawn !== evaluated) this.drawSheet(evaluated);
    this.drawn = evaluated;
    this.drawRings(state, rider);
  }

  dispose(): void {
    for (const { geometry, material } of [this.sheet, this.rings]) {
      geometry.dispose();
      material.dispose();
    }
  }

  private drawSheet({ poses, away }: EvaluatedRider): void {
    const places: number[] = [];
    const corner = (i: number, led: boolean) =>
      [0, 1, 2].map((k) => poses[i * POSE.size + k] - (led ? 0 : away[3 * i + k]));
    const far = (i: number) => Math.hypot(away[3 * i], away[3 * i + 1], away[3 * i + 2]);
    for (let i = 0; i + 1 < away.length / 3; i++) {
      if (Math.max(far(i), far(i + 1)) < LEAST) continue;
      const [a, b, c, d] = [corner(i, false), corner(i, true), corner(i + 1, false), corner(i + 1, true)];
      places.push(...a, ...b, ...d, ...a, ...d, ...c);
    }
    this.sheet.geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
  }

  private drawRings({ evaluation, frame }: DeskState, { clearance }: Rider): void {
    const places = (clearance?.from ?? []).flatMap(({ rider: id, distance }) => {
      const other = evaluation?.riders.get(id);
      if (!other || !evaluation) return [];
      poseAt(evaluation, other, frame, this.pose);
      const [x, y, z] = this.pose;
      return Array.from({ length: SIDES }, (_, i) =>
        [i, i + 1].flatMap((side) => {
          const turn = (2 * Math.PI * side) / SIDES;
          return [x + distance * Math.cos(turn), y + OVER, z + distance * Math.sin(turn)];
        }),
      ).flat();
    });
    this.rings.geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
  }
}
