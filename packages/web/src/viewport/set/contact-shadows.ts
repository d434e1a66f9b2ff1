import type { GroundHeight } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';

/** Patch of a rider's body, or of a wheel or foot of it. */
export interface ContactPatch {
  /** Its lowest place in the scene. */
  readonly low: THREE.Vector3;
  /** Its length along and width across, metres, as the shadow has them. */
  readonly size: readonly [along: number, across: number];
  /** Its direction about up, radians: as a yaw from +Z. */
  readonly yaw: number;
  /** How far above the ground its shadow is gone, metres. */
  readonly reach: number;
  /** Darkness of the shadow on the ground, 0 to 1. */
  readonly darkness: number;
}

/** So far above the ground shadows lie, metres. */
const LIFT = 0.02;

const VERTEX = /* glsl */ `
  attribute float darkness;
  varying vec2 vPlace;
  varying float vDarkness;
  void main() {
    vPlace = position.xz * 2.0;
    vDarkness = darkness;
    gl_Position = projectionMatrix * modelViewMatrix * instanceMatrix * vec4(position, 1.0);
  }
`;

const FRAGMENT = /* glsl */ `
  uniform vec3 color;
  varying vec2 vPlace;
  varying float vDarkness;
  void main() {
    vec2 square = vPlace * vPlace;
    float away = sqrt(sqrt(dot(square, square)));
    gl_FragColor = vec4(color, vDarkness * (1.0 - smoothstep(0.45, 1.0, away)));
    #include <colorspace_fragment>
  }
`;

/** Soft dark patches under things on the ground, fainter and wider the higher they are: a cheap sign of contact. */
export class ContactShadows {
  readonly object = new THREE.Group();
  private readonly geometry = new THREE.PlaneGeometry(1, 1).rotateX(-Math.PI / 2);
  private readonly material = new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    transparent: true,
    depthWrite: false,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -2,
    uniforms: { color: { value: new THREE.Color('#141E22') } },
  });
  private drawn: THREE.InstancedMesh | null = null;
  private darkness = new THREE.InstancedBufferAttribute(new Float32Array(0), 1);

  /** To be called before a picture is drawn. */
  update(standing: readonly ContactPatch[], ground: GroundHeight): void {
    const drawn = this.room(standing.length);
    let count = 0;
    for (const one of standing) {
      const level = ground(one.low.x, one.low.z, one.low.y) ?? 0;
      const gap = Math.max(0, one.low.y - level);
      const part = 1 - gap / one.reach;
      // Sunk into the ground, or too high to tell.
      if (part <= 0 || level - one.low.y > one.reach) continue;
      drawn.setMatrixAt(count, placed(one, level, gap, ground));
      this.darkness.setX(count++, one.darkness * part * part);
    }
    drawn.count = count;
    drawn.instanceMatrix.needsUpdate = true;
    this.darkness.needsUpdate = true;
  }

  dispose(): void {
    this.drawn?.dispose();
    this.geometry.dispose();
    this.material.dispose();
  }

  private room(count: number): THREE.InstancedMesh {
    if (this.drawn !== null && this.darkness.count >= count) return this.drawn;
    this.drawn?.dispose();
    this.object.clear();
    const most = Math.max(16, 2 ** Math.ceil(Math.log2(count)));
    this.darkness = new THREE.InstancedBufferAttribute(new Float32Array(most), 1);
    this.geometry.setAttribute('darkness', this.darkness);
    this.drawn = new THREE.InstancedMesh(this.geometry, this.material, most);
    this.drawn.frustumCulled = false;
    this.drawn.renderOrder = ORDER.patches;
    this.object.add(this.drawn);
    return this.drawn;
  }
}

const matrix = new THREE.Matrix4();
const up = new THREE.Vector3();
const along = new THREE.Vector3();
const across = new THREE.Vector3();

/** A patch on the ground below something, as the ground slopes there. */
function placed(
  { low: { x, z }, size, yaw }: ContactPatch,
  level: number,
  gap: number,
  ground: GroundHeight,
) {
  const d = 0.3;
  const rise = (dx: number, dz: number) => (ground(x + dx, z + dz, level) ?? level) - level;
  const [dx, dz] = [rise(d, 0) - rise(-d, 0), rise(0, d) - rise(0, -d)];
  // A step is no slope.
  const steep = Math.hypot(dx, dz) > 4 * d;
  up.set(steep ? 0 : -dx, 2 * d, steep ? 0 : -dz).normalize();
  along.set(Math.sin(yaw), 0, Math.cos(yaw));
  across.crossVectors(up, along).normalize();
  along.crossVectors(across, up);
  const wider = 1 + 0.25 * gap;
  across.multiplyScalar(size[1] * wider);
  along.multiplyScalar(size[0] * wider);
  return matrix.makeBasis(across, up, along).setPosition(x, level + LIFT, z);
}
