import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { EvaluatedPath } from '../../workers/evaluation/evaluation';

const VERTEX = /* glsl */ `
  attribute vec3 side;
  attribute vec2 place;
  attribute float heat;
  uniform float halfWidth;
  uniform float lift;
  varying vec2 vPlace;
  varying float vHeat;
  void main() {
    vPlace = place;
    vHeat = heat;
    vec3 at = position + side * halfWidth + vec3(0.0, lift, 0.0);
    gl_Position = projectionMatrix * modelViewMatrix * vec4(at, 1.0);
  }
`;

const FRAGMENT = /* glsl */ `
  uniform vec3 color;
  uniform vec3 mark;
  uniform float halfWidth;
  uniform float opacity;
  uniform float hatched;
  varying vec2 vPlace;
  varying float vHeat;
  // From still to most: three colours that differ in lightness too.
  vec3 warmth(float h) {
    vec3 cold = vec3(0.13, 0.32, 0.42);
    vec3 warm = vec3(0.86, 0.62, 0.16);
    vec3 hot = vec3(0.72, 0.10, 0.06);
    return h < 0.5 ? mix(cold, warm, h * 2.0) : mix(warm, hot, h * 2.0 - 1.0);
  }
  void main() {
    // Chevrons: lines of even distance, drawn back towards the edges so that they point along the path.
    float spacing = halfWidth * 14.0;
    float along = vPlace.x + abs(vPlace.y) * halfWidth * 1.1;
    float cell = mod(along, spacing) / halfWidth;
    float edge = fwidth(along) / halfWidth;
    float inside = smoothstep(0.0, edge, cell) * (1.0 - smoothstep(1.0, 1.0 + edge, cell));
    inside *= 1.0 - smoothstep(0.72, 0.8, abs(vPlace.y));
    vec3 base = vHeat < 0.0 ? color : warmth(vHeat);
    // Slanted bars show that a frozen rider follows its bake, not this path.
    float slant = vPlace.x / halfWidth + vPlace.y;
    float bar = abs(fract(slant * 0.45) - 0.5) * 2.0;
    float soft = fwidth(slant) * 0.9;
    base = mix(base, mark, hatched * 0.55 * smoothstep(0.55 - soft, 0.55 + soft, bar));
    gl_FragColor = vec4(mix(base, mark, inside), opacity);
    #include <colorspace_fragment>
  }
`;

/** A path as a ribbon that lies flat, with chevrons for its direction and a round plate at its start. */
export class Ribbon {
  readonly object = new THREE.Group();
  /** Centre line, x, y, z a place, for picking. */
  readonly line: Float32Array;
  private heat: Float32Array | null = null;
  private readonly material: THREE.ShaderMaterial;
  private readonly geometry = new THREE.BufferGeometry();
  /** Seen edge-on a flat ribbon vanishes; this line stays. */
  private readonly thread: THREE.Line<THREE.BufferGeometry, THREE.LineBasicMaterial>;
  private readonly plate: THREE.Mesh<THREE.CircleGeometry, THREE.MeshBasicMaterial>;
  private readonly rim: THREE.Mesh<THREE.RingGeometry, THREE.MeshBasicMaterial>;

  constructor(path: EvaluatedPath) {
    const { frames, length } = path;
    const count = frames.length / 12;
    const positions = new Float32Array(6 * count);
    const sides = new Float32Array(6 * count);
    const places = new Float32Array(4 * count);
    this.line = new Float32Array(3 * count);
    for (let i = 0; i < count; i++) {
      for (let k = 0; k < 3; k++) {
        this.line[3 * i + k] = frames[12 * i + k];
        for (const [n, sign] of [
          [0, 1],
          [1, -1],
        ]) {
          positions[6 * i + 3 * n + k] = frames[12 * i + k];
          sides[6 * i + 3 * n + k] = sign * frames[12 * i + 3 + k];
        }
      }
      const along = (length * i) / (count - 1);
      places.set([along, 1, along, -1], 4 * i);
    }
    const triangles: number[] = [];
    for (let i = 0; i + 1 < count; i++)
      triangles.push(2 * i, 2 * i + 2, 2 * i + 1, 2 * i + 1, 2 * i + 2, 2 * i + 3);
    this.geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
    this.geometry.setAttribute('side', new THREE.BufferAttribute(sides, 3));
    this.geometry.setAttribute('place', new THREE.BufferAttribute(places, 2));
    this.geometry.setAttribute('heat', new THREE.BufferAttribute(new Float32Array(2 * count).fill(-1), 1));
    this.geometry.setIndex(triangles);
    this.material = new THREE.ShaderMaterial({
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      side: THREE.DoubleSide,
      transparent: true,
      uniforms: {
        color: { value: new THREE.Color() },
        mark: { value: new THREE.Color() },
        halfWidth: { value: 0.2 },
        lift: { value: 0.03 },
        opacity: { value: 1 },
        hatched: { value: 0 },
      },
    });
    const mesh = new THREE.Mesh(this.geometry, this.material);
    mesh.frustumCulled = false;
    mesh.renderOrder = ORDER.ribbon;
    const threadGeometry = new THREE.BufferGeometry();
    threadGeometry.setAttribute('position', new THREE.BufferAttribute(this.line, 3));
    this.thread = new THREE.Line(threadGeometry, new THREE.LineBasicMaterial());
    this.thread.frustumCulled = false;
    this.plate = new THREE.Mesh(
      new THREE.CircleGeometry(1, 28),
      new THREE.MeshBasicMaterial({ transparent: true }),
    );
    this.rim = new THREE.Mesh(
      new THREE.RingGeometry(0.72, 1, 28),
      new THREE.MeshBasicMaterial({ transparent: true }),
    );
    this.plate.renderOrder = ORDER.plate;
    this.rim.renderOrder = ORDER.rim;
    for (const disc of [this.plate, this.rim]) {
      disc.rotation.x = -Math.PI / 2;
      disc.position.set(frames[0], frames[1] + 0.05, frames[2]);
    }
    this.rim.position.y += 0.01;
    this.object.add(mesh, this.thread, this.plate, this.rim);
  }

  /** @param hatched whether who rides it is frozen */
  paint(color: string, plate: string, selected: boolean, hatched: boolean): void {
    const { uniforms } = this.material;
    uniforms.hatched.value = hatched ? 1 : 0;
    uniforms.color.value.set(color);
    uniforms.mark.value.set('#FFFFFF');
    uniforms.opacity.value = selected ? 1 : 0.75;
    this.thread.material.color.set(color);
    this.plate.material.color.set(plate);
    this.rim.material.color.set(color);
  }

  /** Colours the ribbon place by place, from 0 to 1; null, or −1, leaves it its own colour. */
  setHeat(values: Float32Array | null): void {
    if (values === this.heat) return;
    this.heat = values;
    const attribute = this.geometry.getAttribute('heat') as THREE.BufferAttribute;
    for (let i = 0; i < attribute.count; i++) attribute.setX(i, values?.[i >> 1] ?? -1);
    attribute.needsUpdate = true;
  }

  /** Half the ribbon's width, metres. */
  setHalfWidth(halfWidth: number): void {
    this.material.uniforms.halfWidth.value = halfWidth;
    this.plate.scale.setScalar(halfWidth * 2);
    this.rim.scale.setScalar(halfWidth * 2);
  }

  dispose(): void {
    this.geometry.dispose();
    this.material.dispose();
    for (const part of [this.thread, this.plate, this.rim]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }
}
