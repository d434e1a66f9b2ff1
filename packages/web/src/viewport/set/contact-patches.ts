import type { Rider } from '@fleet-rail/core';
import * as THREE from 'three';
import { nameOf } from '../figures/pose-parts';
import type { ContactPatch } from './contact-shadows';

/** A wheel or foot of a figure. */
interface Sole {
  readonly node: THREE.Object3D;
  /** From the node down to where it meets the ground, metres; 0 for what is measured by its own box. */
  readonly radius: number;
  /** Of a foot, in its own space. */
  readonly box: THREE.Box3 | null;
}

/** Parts of a rider's figure that may touch the ground, found once in its model. */
export interface Soles {
  /** The figure in its rest pose, in its own space. */
  readonly body: THREE.Box3;
  readonly soles: readonly Sole[];
}

/** Parts of figures that may touch the ground, by rider, cached until its model or rig changes. */
export class KnownSoles {
  private readonly known = new Map<string, Soles & { readonly rig: readonly unknown[] }>();

  of(id: string, group: THREE.Object3D, rider: Rider | null): Soles {
    const rig = [rider?.wheels, rider?.gait];
    const before = this.known.get(id);
    if (before?.rig.every((part, i) => part === rig[i])) return before;
    const found = { ...solesOf(group, rider), rig };
    this.known.set(id, found);
    return found;
  }

  /** To be called when models came or went. */
  clear(): void {
    this.known.clear();
  }
}

function solesOf(group: THREE.Object3D, rider: Rider | null): Soles {
  const body = boxIn(group, group);
  const radii = new Map(rider?.wheels.map(({ node, radius }) => [node, radius]));
  const feet = new Set(rider?.gait?.feet.map(({ node }) => node));
  const soles: Sole[] = [];
  group.traverse((node) => {
    const name = nameOf(node);
    const radius = radii.get(name);
    if (radius !== undefined) soles.push({ node, radius, box: null });
    else if (feet.has(name)) soles.push({ node, radius: 0, box: boxIn(node, node) });
  });
  return { body, soles };
}

const low = new THREE.Vector3();
const size = new THREE.Vector3();

/** Patches under a figure, its wheels and feet; its matrices must be up to date. */
export function contactPatchesOf(group: THREE.Object3D, { body, soles }: Soles): ContactPatch[] {
  if (body.isEmpty()) return [];
  const { elements } = group.matrixWorld;
  const scale = Math.hypot(elements[4], elements[5], elements[6]);
  const yaw = Math.atan2(elements[8], elements[10]);
  body.getSize(size).multiply(group.scale);
  const [across, height, along] = size.toArray().map(Math.abs);
  const all: ContactPatch[] = [
    {
      low: lowest(body, group.matrixWorld),
      size: [along * 1.25, across * 1.25],
      yaw,
      reach: 6 + 3 * Math.max(along, across, height),
      darkness: 0.36,
    },
  ];
  for (const { node, radius, box } of soles) {
    const at = box
      ? lowest(box, node.matrixWorld)
      : low
          .setFromMatrixPosition(node.matrixWorld)
          .setY(low.y - radius * scale)
          .clone();
    const long = box ? 0.34 * scale : 1.3 * radius * scale;
    all.push({ low: at, size: [long, 0.5 * long], yaw, reach: Math.max(0.08, 0.4 * long), darkness: 0.6 });
  }
  return all;
}

/** The middle of a box's underside, or of that side of it that is lowest in the scene. */
function lowest(box: THREE.Box3, matrix: THREE.Matrix4): THREE.Vector3 {
  const middle = box.getCenter(new THREE.Vector3()).applyMatrix4(matrix);
  const { elements: m } = matrix;
  box.getSize(size);
  const half = (Math.abs(m[1]) * size.x + Math.abs(m[5]) * size.y + Math.abs(m[9]) * size.z) / 2;
  return middle.setY(middle.y - half);
}

/** The box around what hangs on a node, in the space of another. */
function boxIn(node: THREE.Object3D, space: THREE.Object3D): THREE.Box3 {
  space.updateWorldMatrix(true, true);
  const into = space.matrixWorld.clone().invert();
  const box = new THREE.Box3();
  node.traverse((part) => {
    if (!(part instanceof THREE.Mesh)) return;
    const { geometry } = part as THREE.Mesh<THREE.BufferGeometry>;
    if (geometry.boundingBox === null) geometry.computeBoundingBox();
    if (geometry.boundingBox)
      box.union(geometry.boundingBox.clone().applyMatrix4(into.clone().multiply(part.matrixWorld)));
  });
  return box;
}
