import {
  curvatureComb,
  type CompiledPath,
  type ControlPolygon,
  type PathFacts,
  type Vec3,
} from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';
import { dots, placeDots, setTriples } from './dots';

/** A handle that can be taken hold of. */
export interface HandleEnd {
  readonly index: number;
  readonly side: 'in' | 'out';
  readonly position: Vec3;
}

type Segments = THREE.LineSegments<THREE.BufferGeometry, THREE.LineBasicMaterial>;

/** The longest tooth of the comb is drawn this many pixels long. */
const COMB_PIXELS = 60;

/** Overlay of the selected path: control polygon and handles, curvature comb, kinks, marks. */
export class CurveOverlay {
  readonly object = new THREE.Group();
  handles: readonly HandleEnd[] = [];
  marks: readonly { readonly id: string; readonly position: Vec3 }[] = [];
  private readonly polygon = segments();
  private readonly comb = segments();
  private readonly handleDots = dots(8, 'disc');
  /** Rings around the points of kinks. */
  private readonly kinkDots = dots(22, 'ring');
  private readonly markDots = dots(13, 'ring');
  private teeth: ReturnType<typeof curvatureComb> | null = null;
  private toothLength = 0;

  constructor() {
    for (const part of [this.comb, this.polygon, this.handleDots, this.kinkDots, this.markDots]) {
      part.frustumCulled = false;
      part.renderOrder = ORDER.curve;
      this.object.add(part);
    }
    this.polygon.material.opacity = 0.8;
    this.comb.material.opacity = 0.55;
  }

  /** The polygon with the handles of chosen points, or of all where they are few. */
  showPolygon(polygon: ControlPolygon | null, chosen: ReadonlySet<number>, theme: Theme): void {
    this.polygon.visible = this.handleDots.visible = polygon !== null;
    if (polygon === null) {
      this.handles = [];
      return;
    }
    const ends = polygon.handles.flatMap((pair, index): HandleEnd[] =>
      pair === null || !chosen.has(index)
        ? []
        : [
            { index, side: 'in', position: pair[0] },
            { index, side: 'out', position: pair[1] },
          ],
    );
    this.handles = ends;
    setTriples(this.polygon.geometry, 'position', polygon.runs.flat(2));
    placeDots(
      this.handleDots,
      ends.map(({ position }) => position),
      ends.map(() => theme.signal),
    );
    this.polygon.material.color.set(theme.quiet);
  }

  showComb(curve: CompiledPath | null, theme: Theme): void {
    this.teeth = curve === null ? null : curvatureComb(curve);
    this.toothLength = -1;
    this.comb.visible = this.teeth !== null;
    this.comb.material.color.set(theme.attention);
  }

  showKinks(curve: CompiledPath | null, facts: PathFacts | null, theme: Theme): void {
    const places =
      curve === null ? [] : (facts?.kinks ?? []).map(({ distance }) => positionAt(curve, distance));
    placeDots(
      this.kinkDots,
      places,
      places.map(() => theme.attention),
    );
  }

  showMarks(
    curve: CompiledPath | null,
    marks: readonly { readonly id: string; readonly distance: number }[],
    theme: Theme,
  ): void {
    this.marks =
      curve === null ? [] : marks.map(({ id, distance }) => ({ id, position: positionAt(curve, distance) }));
    placeDots(
      this.markDots,
      this.marks.map(({ position }) => position),
      this.marks.map(() => theme.ink),
    );
  }

  /** Sets the comb's teeth for the present view, so that their length on screen stays. */
  update(metresPerPixel: number): void {
    if (this.teeth === null || this.toothLength === metresPerPixel) return;
    this.toothLength = metresPerPixel;
    const { feet, teeth, most } = this.teeth;
    const scale = most > 0 ? (COMB_PIXELS * metresPerPixel) / most : 0;
    const count = feet.length / 3;
    const lines: number[] = [];
    const tip = (i: number, k: number) => feet[3 * i + k] + scale * teeth[3 * i + k];
    for (let i = 0; i < count; i++) {
      for (let k = 0; k < 3; k++) lines.push(feet[3 * i + k]);
      for (let k = 0; k < 3; k++) lines.push(tip(i, k));
      if (i === 0) continue;
      for (let k = 0; k < 3; k++) lines.push(tip(i - 1, k));
      for (let k = 0; k < 3; k++) lines.push(tip(i, k));
    }
    setTriples(this.comb.geometry, 'position', lines);
  }

  dispose(): void {
    for (const part of [this.comb, this.polygon, this.handleDots, this.kinkDots, this.markDots]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }
}

function segments(): Segments {
  return new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ depthTest: false, transparent: true }),
  );
}

function positionAt(curve: CompiledPath, distance: number): Vec3 {
  const place: Vec3 = [0, 0, 0];
  curve.position(distance, place);
  return place;
}
