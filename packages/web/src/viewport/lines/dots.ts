import type { Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';

/** Dots of a constant size on screen, in one of three shapes. */
export type Dots = THREE.Points<THREE.BufferGeometry, THREE.PointsMaterial>;

/** Dots of a diameter in pixels, without positions; drawn over everything. */
export function dots(size: number, shape: 'ring' | 'disc' | 'lozenge'): Dots {
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

/** Places dots, each in its own colour. */
export function placeDots({ geometry }: Dots, places: readonly Vec3[], colors: readonly string[]): void {
  setTriples(geometry, 'position', places.flat());
  setTriples(
    geometry,
    'color',
    colors.flatMap((color) => new THREE.Color(color).toArray()),
  );
}

/** See {@link setNumbers}. */
export function setTriples(geometry: THREE.BufferGeometry, name: string, values: ArrayLike<number>): void {
  setNumbers(geometry, name, values, 3);
}

/**
 * Gives a geometry an attribute with a number of values each. Writes into the existing one if it fits: a replaced one
 * would keep its memory on the graphics card.
 */
export function setNumbers(
  geometry: THREE.BufferGeometry,
  name: string,
  values: ArrayLike<number>,
  each: number,
): void {
  const current = geometry.getAttribute(name);
  if (current?.array.length === values.length && current instanceof THREE.BufferAttribute) {
    current.array.set(values);
    current.needsUpdate = true;
    return;
  }
  if (current !== undefined) geometry.dispose();
  geometry.setAttribute(name, new THREE.Float32BufferAttribute(values, each));
}

function dotTexture(shape: 'ring' | 'disc' | 'lozenge'): THREE.Texture {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 64;
  // It becomes a texture immediately: drawn on the graphics side, the page would wait for it there.
  const pen = canvas.getContext('2d', { willReadFrequently: true }) as CanvasRenderingContext2D;
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
