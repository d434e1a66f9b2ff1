import { LOCAL, type WheelJoint, type SampledParts } from '@fleet-rail/core';
import * as THREE from 'three';

/** A node's rest transform and parent. */
interface Stood {
  readonly parent: THREE.Object3D | null;
  readonly position: THREE.Vector3;
  readonly quaternion: THREE.Quaternion;
  readonly scale: THREE.Vector3;
  readonly weights: readonly number[];
}

/** Pose of a figure before it was moved, to restore it. */
interface Posed {
  readonly key: string;
  readonly model: THREE.Object3D | undefined;
  readonly nodes: readonly (THREE.Object3D | undefined)[];
  readonly joints: readonly THREE.Object3D[];
  readonly stood: ReadonlyMap<THREE.Object3D, Stood>;
}

/** The model's own name of a node; the loader makes names over. */
export function nameOf(node: THREE.Object3D): string {
  return (node.userData.name as string | undefined) ?? node.name;
}

/** Whether a node was put in for a wheel, and is none of the model's. */
export function isJoint(node: THREE.Object3D): boolean {
  return node.userData.joint === true;
}

/** Puts the parts of a figure where they are at a (fractional) sample. */
export function poseParts(group: THREE.Group, parts: SampledParts, sample: number): void {
  const before = group.userData.posed as Posed | undefined;
  const model = group.children[0] as THREE.Object3D | undefined;
  const key = keyOf(parts);
  if (before?.key !== key || before.model !== model) {
    if (before) putBack(before);
    group.userData.posed = bind(group, parts, key);
  }
  const { nodes } = group.userData.posed as Posed;
  const { size, values } = parts;
  if (size === 0) return;
  const last = values.length / size - 1;
  const held = Math.min(last, Math.max(0, sample));
  const i = Math.floor(held + 1e-9);
  const next = Math.min(last, i + 1);
  const t = Math.max(0, held - i);
  parts.nodes.forEach(({ at, weights }, n) => {
    const node = nodes[n];
    if (!node) return;
    const from = i * size + at;
    const to = next * size + at;
    const mix = (k: number) => values[from + k] + t * (values[to + k] - values[from + k]);
    node.position.set(mix(0), mix(1), mix(2));
    node.quaternion.fromArray(values, from + LOCAL.rotation);
    if (t > 0) node.quaternion.slerp(scratch.fromArray(values, to + LOCAL.rotation), t);
    node.scale.set(mix(LOCAL.scale), mix(LOCAL.scale + 1), mix(LOCAL.scale + 2));
    if (weights > 0) setWeights(node, (k) => mix(LOCAL.size + k), weights);
  });
}

const scratch = new THREE.Quaternion();
const keys = new WeakMap<SampledParts, string>();

/** Structure of the moved parts: equal for evaluations of one rider until its rig changes. */
function keyOf(parts: SampledParts): string {
  const key = keys.get(parts) ?? JSON.stringify([parts.joints, parts.nodes]);
  keys.set(parts, key);
  return key;
}

function bind(group: THREE.Group, parts: SampledParts, key: string): Posed {
  const byName = new Map<string, THREE.Object3D>();
  group.traverse((node) => {
    if (node !== group && !byName.has(nameOf(node))) byName.set(nameOf(node), node);
  });
  const stood = new Map<THREE.Object3D, Stood>();
  const stands = (node: THREE.Object3D) => {
    if (stood.has(node)) return;
    stood.set(node, {
      parent: node.parent,
      position: node.position.clone(),
      quaternion: node.quaternion.clone(),
      scale: node.scale.clone(),
      weights: [...(meshesOf(node)[0]?.morphTargetInfluences ?? [])],
    });
  };
  const model = group.children[0] as THREE.Object3D | undefined;
  const joints = parts.joints.flatMap((joint) => putIn(group, joint, byName, stands));
  const nodes = parts.nodes.map(({ name }) => {
    const node = byName.get(name);
    if (node && !isJoint(node)) stands(node);
    return node;
  });
  return { key, model, nodes, joints, stood };
}

function putIn(
  group: THREE.Group,
  { name, takes, under, translation, held }: WheelJoint,
  byName: Map<string, THREE.Object3D>,
  stands: (node: THREE.Object3D) => void,
): THREE.Object3D[] {
  const wheel = byName.get(takes);
  const parent = under === null ? group : byName.get(under);
  if (!wheel || !parent) return [];
  stands(wheel);
  const joint = new THREE.Group();
  joint.name = name;
  joint.userData.joint = true;
  joint.position.set(...translation);
  parent.add(joint);
  joint.add(wheel);
  wheel.position.set(...held.translation);
  wheel.quaternion.set(...held.rotation);
  wheel.scale.set(...held.scale);
  byName.set(name, joint);
  return [joint];
}

function putBack({ stood, joints }: Posed): void {
  for (const [node, { parent, position, quaternion, scale, weights }] of stood) {
    if (parent !== null && node.parent !== parent) parent.add(node);
    node.position.copy(position);
    node.quaternion.copy(quaternion);
    node.scale.copy(scale);
    setWeights(node, (k) => weights[k], weights.length);
  }
  joints.forEach((joint) => joint.removeFromParent());
}

function setWeights(node: THREE.Object3D, weight: (k: number) => number, count: number): void {
  for (const mesh of meshesOf(node))
    for (let k = 0; k < count; k++) if (mesh.morphTargetInfluences) mesh.morphTargetInfluences[k] = weight(k);
}

/** The meshes a node of the model was loaded as: itself, or one for each of its materials. */
function meshesOf(node: THREE.Object3D): THREE.Mesh[] {
  return [node, ...node.children].filter(
    (part): part is THREE.Mesh => part instanceof THREE.Mesh && part.morphTargetInfluences !== undefined,
  );
}
