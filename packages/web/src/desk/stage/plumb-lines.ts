import type { Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import type { Theme } from '../../theme/theme';

/** What of a control point is taken hold of: its foot on the ground, the point itself, or its head. */
export type Grip = 'foot' | 'point' | 'head';

/** Pixels from a point up to the head that lifts it. */
const HEAD_PIXELS = 26;

/**
 * The control points of the selected path: each stands on a plumb line down to the ground, with a
 * head above it to lift it by.
 */
export class PlumbLines {
  readonly object = new THREE.Group();
  places: readonly Vec3[] = [];
  private readonly feet = dots(7, 'ring');
  private readonly points = dots(11, 'disc');
  private readonly heads = dots(12, 'lozenge');
  private readonly plumb = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ depthTest: false, transparent: true }),
  );
  private chosen: ReadonlySet<number> = new Set();
  private theme: Theme | null = null;

  constructor() {
    this.object.renderOrder = 10;
    for (const part of [this.plumb, this.feet, this.points, this.heads]) {
      part.renderOrder = 10;
      part.frustumCulled = false;
    }
    this.object.add(this.plumb, this.feet, this.points, this.heads);
  }

  show(places: readonly Vec3[], chosen: ReadonlySet<number>, theme: Theme): void {
    this.places = places;
    this.chosen = chosen;
    this.theme = theme;
    this.points.geometry.setAttribute('position', new THREE.Float32BufferAttribute(places.flat(), 3));
    const colors = places.flatMap((_, i) =>
      new THREE.Color(chosen.has(i) ? theme.signal : theme.ink).toArray(),
    );
    this.points.geometry.setAttribute('color', new THREE.Float32BufferAttribute(colors, 3));
    const feet = places.flatMap(([x, , z]) => [x, 0, z]);
    this.feet.geometry.setAttribute('position', new THREE.Float32BufferAttribute(feet, 3));
    const quiet = places.flatMap(() => new THREE.Color(theme.quiet).toArray());
    this.feet.geometry.setAttribute('color', new THREE.Float32BufferAttribute(quiet, 3));
    this.plumb.material.color.set(theme.quiet);
  }

  /** Sets the heads for the present view; from above they would only cover the points. */
  update(metresPerPixel: (place: Vec3) => number, lifts: boolean): void {
    this.heads.visible = lifts;
    const heads: number[] = [];
    const lines: number[] = [];
    const colors: number[] = [];
    this.places.forEach((place, i) => {
      const top = this.headOf(place, metresPerPixel);
      heads.push(...top);
      const above = lifts ? top : place;
      lines.push(place[0], 0, place[2], ...above);
      colors.push(...new THREE.Color(this.chosen.has(i) ? this.theme?.signal : this.theme?.quiet).toArray());
    });
    this.heads.geometry.setAttribute('position', new THREE.Float32BufferAttribute(heads, 3));
    this.heads.geometry.setAttribute('color', new THREE.Float32BufferAttribute(colors, 3));
    this.plumb.geometry.setAttribute('position', new THREE.Float32BufferAttribute(lines, 3));
  }

  /** Where each grip of a point is. */
  gripPlace(index: number, grip: Grip, metresPerPixel: (place: Vec3) => number): Vec3 {
    const place = this.places[index];
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

function dots(
  size: number,
  shape: 'ring' | 'disc' | 'lozenge',
): THREE.Points<THREE.BufferGeometry, THREE.PointsMaterial> {
  const material = new THREE.PointsMaterial({
    size: size * Math.min(2, window.devicePixelRatio),
    sizeAttenuation: false,
    vertexColors: true,
    map: dotTexture(shape),
    alphaTest: 0.4,
    depthTest: false,
    transparent: true,
  });
  return new THREE.Points(new THREE.BufferGeometry(), material);
}

function dotTexture(shape: 'ring' | 'disc' | 'lozenge'): THREE.Texture {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 64;
  const pen = canvas.getContext('2d') as CanvasRenderingContext2D;
  pen.fillStyle = pen.strokeStyle = '#fff';
  pen.lineWidth = 14;
  pen.beginPath();
  if (shape === 'lozenge') {
    pen.moveTo(32, 2);
    pen.lineTo(62, 32);
    pen.lineTo(32, 62);
    pen.lineTo(2, 32);
    pen.closePath();
  } else pen.arc(32, 32, shape === 'ring' ? 24 : 30, 0, 2 * Math.PI);
  if (shape === 'ring') pen.stroke();
  else pen.fill();
  return new THREE.CanvasTexture(canvas);
}
