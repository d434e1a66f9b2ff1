import type { Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';
import { dots, placeDots, setTriples } from './dots';

/** Grips of a control point: its foot on the ground, the point itself, or its head. */
export type Grip = 'foot' | 'point' | 'head';

/** Pixels from a point up to the head that lifts it. */
const HEAD_PIXELS = 26;

/** Control points of the selected path: each with a plumb line down to the ground, and a head above it to lift it by. */
export class PlumbLines {
  readonly object = new THREE.Group();
  positions: readonly Vec3[] = [];
  private readonly feet = dots(7, 'ring');
  private readonly points = dots(11, 'disc');
  private readonly heads = dots(12, 'lozenge');
  private readonly plumb = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ depthTest: false, transparent: true }),
  );
  private headColors: readonly string[] = [];

  constructor() {
    this.object.renderOrder = ORDER.plumb;
    for (const part of [this.plumb, this.feet, this.points, this.heads]) {
      part.renderOrder = ORDER.plumb;
      part.frustumCulled = false;
    }
    this.object.add(this.plumb, this.feet, this.points, this.heads);
  }

  show(places: readonly Vec3[], off: readonly boolean[], chosen: ReadonlySet<number>, theme: Theme): void {
    this.positions = places;
    this.headColors = places.map((_, i) => (chosen.has(i) ? theme.signal : theme.quiet));
    const pointColor = (i: number) => (chosen.has(i) ? theme.signal : off[i] ? theme.hairline : theme.ink);
    placeDots(
      this.points,
      places,
      places.map((_, i) => pointColor(i)),
    );
    placeDots(
      this.feet,
      places.map(([x, , z]): Vec3 => [x, 0, z]),
      places.map(() => theme.quiet),
    );
    this.plumb.material.color.set(theme.quiet);
  }

  /** Sets the heads for the present view; from above they would only cover the points. */
  update(metresPerPixel: (place: Vec3) => number, lifts: boolean): void {
    this.heads.visible = lifts;
    const tops = this.positions.map((place) => this.headOf(place, metresPerPixel));
    placeDots(this.heads, tops, this.headColors);
    const lines = this.positions.flatMap((place, i) => [place[0], 0, place[2], ...(lifts ? tops[i] : place)]);
    setTriples(this.plumb.geometry, 'position', lines);
  }

  /** Positions of each point's grips. */
  gripPlace(index: number, grip: Grip, metresPerPixel: (place: Vec3) => number): Vec3 {
    const place = this.positions[index];
    if (grip === 'foot') return [place[0], 0, place[2]];
    return grip === 'point' ? place : this.headOf(place, metresPerPixel);
  }

  dispose(): void {
    for (const part of [this.plumb, this.feet, this.points, this.heads]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }

  private headOf(place: Vec3, metresPerPixel: (place: Vec3) => number): Vec3 {
    return [place[0], place[1] + HEAD_PIXELS * metresPerPixel(place), place[2]];
  }
}
