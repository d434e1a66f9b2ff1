import type { Document, Mesh, Node, Scene } from '@gltf-transform/core';
import type { SampledShot } from '../shot/bake/sample-shot.js';
import type { Emitter } from '../document/shot-emitter.js';
import type { Rider } from '../document/shot-rider.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import {
  BIRTH,
  PARTICLE,
  aliveAt,
  everyInGlb,
  mostInGlb,
  particleAt,
  type Spray,
} from '../effects/spray/spray.js';
import type { ModelInstancers } from './model-instancer.js';
import { plainMaterial } from './glb-material.js';

/** Writes what a node does at every frame. */
export interface NodeWriter {
  add(node: Node, path: 'translation' | 'rotation' | 'scale', name: string, values: Float64Array): void;
}

/**
 * Adds particles of a rider: as many nodes as live together, reused in turn, of size 0 while unborn. Their parent's
 * extras give the number of particles, and of those written.
 */
export function addSpray(
  target: Document,
  scene: Scene,
  rider: Rider,
  spray: Spray,
  { frames, seconds, shot }: Pick<SampledShot, 'frames' | 'seconds' | 'shot'>,
  channels: NodeWriter,
  instancers: ModelInstancers,
): void {
  const { emitter } = rider;
  if (emitter === null || spray.count === 0) return;
  const most = mostInGlb(spray, shot.fps);
  const every = everyInGlb(spray, shot.fps);
  const kept = Math.ceil(spray.count / every);
  const slots = Math.min(kept, Math.ceil(most / every) + 1);
  const all = target
    .createNode(`${rider.name} spray`)
    .setExtras({ particles: spray.count, givenOut: kept, everyNth: every });
  scene.addChild(all);
  const mesh = emitter.model === null ? grainMesh(target, rider.name, emitter) : null;
  const columns = Array.from({ length: slots }, () => ({
    translation: new Float64Array(3 * frames),
    rotation: new Float64Array(4 * frames),
    scale: new Float64Array(3 * frames),
    lives: new Uint8Array(frames),
  }));
  const now = new Float64Array(PARTICLE.numbers);
  for (let i = 0; i < frames; i++)
    for (const { n, age } of aliveAt(spray, seconds[i])) {
      if (n % every !== 0) continue;
      const column = columns[(n / every) % slots];
      particleAt(spray, n, age, now);
      column.translation.set(now.subarray(0, 3), 3 * i);
      column.rotation.set(now.subarray(PARTICLE.rotation, PARTICLE.size), 4 * i);
      column.scale.fill(now[PARTICLE.size], 3 * i, 3 * i + 3);
      column.lives[i] = 1;
    }
  columns.forEach((column, k) => {
    const node = target.createNode(`particle ${k + 1}`);
    if (mesh) node.setMesh(mesh);
    else instancers.instantiate(node, emitter.model);
    all.addChild(node);
    waitWhereNext(column, spray, k * every);
    node
      .setTranslation([...column.translation.subarray(0, 3)] as Vec3)
      .setRotation([...column.rotation.subarray(0, 4)] as Quat)
      .setScale([...column.scale.subarray(0, 3)] as Vec3);
    const name = `${rider.name} particle ${k + 1}`;
    channels.add(node, 'translation', `${name} translation`, column.translation);
    channels.add(node, 'rotation', `${name} rotation`, column.rotation);
    channels.add(node, 'scale', `${name} scale`, column.scale);
  });
}

interface Column {
  readonly translation: Float64Array;
  readonly rotation: Float64Array;
  readonly lives: Uint8Array;
}

/** A node that is unborn is where it is seen next, or was last, so that it is nowhere on its way between two lives. */
function waitWhereNext({ translation, rotation, lives }: Column, { births }: Spray, n: number): void {
  let known = lives.lastIndexOf(1);
  for (let i = lives.length - 1; i >= 0; i--) {
    if (lives[i] === 1) {
      known = i;
      continue;
    }
    if (known < 0) {
      const at = BIRTH.numbers * n;
      translation.set(births.subarray(at + BIRTH.position, at + BIRTH.velocity), 3 * i);
      rotation.set(births.subarray(at + BIRTH.rotation, at + BIRTH.numbers), 4 * i);
      continue;
    }
    translation.copyWithin(3 * i, 3 * known, 3 * known + 3);
    rotation.copyWithin(4 * i, 4 * known, 4 * known + 4);
  }
}

/** Three squares that cross, a metre wide, or a grain of eight sides: seen from anywhere, they are something. */
export function grainMesh(target: Document, name: string, { look, color }: Emitter): Mesh {
  const h = 0.5;
  const quads = look === 'quads';
  const positions = quads
    ? [
        -h,
        -h,
        0,
        h,
        -h,
        0,
        h,
        h,
        0,
        -h,
        h,
        0,
        -h,
        0,
        -h,
        h,
        0,
        -h,
        h,
        0,
        h,
        -h,
        0,
        h,
        0,
        -h,
        -h,
        0,
        -h,
        h,
        0,
        h,
        h,
        0,
        h,
        -h,
      ]
    : [h, 0, 0, -h, 0, 0, 0, h, 0, 0, -h, 0, 0, 0, h, 0, 0, -h];
  const indices = quads
    ? [0, 4, 8].flatMap((i) => [i, i + 1, i + 2, i, i + 2, i + 3])
    : [0, 2, 4, 4, 2, 1, 1, 2, 5, 5, 2, 0, 4, 3, 0, 1, 3, 4, 5, 3, 1, 0, 3, 5];
  const buffer = target.getRoot().listBuffers()[0];
  const primitive = target
    .createPrimitive()
    .setAttribute(
      'POSITION',
      target.createAccessor(name).setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer),
    )
    .setIndices(
      target.createAccessor(name).setType('SCALAR').setArray(Uint16Array.from(indices)).setBuffer(buffer),
    )
    .setMaterial(plainMaterial(target, `${name} spray`, color).setDoubleSided(quads));
  return target.createMesh(`${name} spray`).addPrimitive(primitive);
}
