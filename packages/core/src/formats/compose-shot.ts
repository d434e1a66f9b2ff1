import type { Camera as GltfCamera, Node, Scene } from '@gltf-transform/core';
import { Document } from '@gltf-transform/core';
import { quat } from 'gl-matrix';
import type { PartBetween } from '../shot/bake/between-frames.js';
import type { SampledParts } from '../shot/bake/sampled-parts.js';
import type { SampledShot } from '../shot/bake/sample-shot.js';
import { axesOf } from '../document/rider-axes.js';
import type { Camera } from '../document/shot-camera.js';
import type { Rider } from '../document/shot-rider.js';
import { isMoving } from '../shot/evaluate/evaluate-shot.js';
import { LOCAL } from '../character/hierarchy/node-hierarchy.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import { POSE } from '../motion/pose/pose.js';
import { axesToTravel } from '../motion/pose/axes.js';
import { compileFocal, fieldOfView, focalAt } from '../motion/pose/camera.js';
import { sourceFrame } from '../motion/timing/retiming.js';
import { factsJoined } from './asset-facts.js';
import { ModelInstancers } from './model-instancer.js';
import { riderNames } from './rider-names.js';
import { addDressing } from './glb-dressing.js';
import { addSpray } from './glb-spray.js';

export type ChannelPath = 'translation' | 'rotation' | 'scale' | 'weights';

/** How a node of a composed shot moves. */
export interface AnimationChannel {
  readonly node: Node;
  readonly path: ChannelPath;
  readonly name: string;
  /** So many numbers a sample as the path has. */
  readonly values: Float64Array;
  /** Samples a frame; 1 but for wheels that turn fast. */
  readonly steps: number;
  /** Whether a value holds until the next. */
  readonly held: boolean;
}

/** A camera whose focal length changes. */
export interface ZoomedCamera {
  readonly lens: GltfCamera;
  readonly node: Node;
  readonly name: string;
  /** By frame the vertical field of view, radians, and the focal length, millimetres. */
  readonly views: Float64Array;
  readonly focals: Float64Array;
  readonly sensor: number;
}

/** A sampled shot put together from its models, before it is written as one format or another. */
export interface ComposedShot {
  readonly document: Document;
  readonly scene: Scene;
  readonly channels: readonly AnimationChannel[];
  readonly zooms: readonly ZoomedCamera[];
  readonly instancers: ModelInstancers;
}

/**
 * Composes a shot: each rider is a node at the root that carries its model unchanged (meshes, materials, hierarchy,
 * clips), with dressing, and the motion of all nodes. The ground belongs to the set and stays out.
 *
 * @param models  by the document's model ids: what {@link readModel} gave; each is left unchanged
 * @param sprays  whether particles are nodes; a format that has a way of its own for them leaves them out here
 */
export function composeShot(
  sampled: SampledShot,
  models: ReadonlyMap<string, Document>,
  sprays: boolean,
): ComposedShot {
  const { shot } = sampled;
  const document = new Document();
  const scene = document.createScene(shot.name);
  document.getRoot().setDefaultScene(scene);
  document.createBuffer();
  const channels: AnimationChannel[] = [];
  const zooms: ZoomedCamera[] = [];
  const instancers = new ModelInstancers(document, models);
  const names = riderNames(shot.riders);
  const add = (node: Node, path: ChannelPath, name: string, values: Float64Array) =>
    channels.push({ node, path, name, values, steps: 1, held: false });
  shot.riders.forEach((rider, r) => {
    const node = document.createNode(names[r]).setScale(rider.rest.scale);
    node.setExtras({ id: rider.id, badge: rider.badge });
    const poses = sampled.riders[r];
    node.setTranslation([...poses.subarray(0, 3)] as Vec3).setRotation([...poses.subarray(3, 7)] as Quat);
    scene.addChild(node);
    if (instancers.instantiate(node, rider.model, false, names[r]))
      addParts(document, channels, node, sampled.parts[r], sampled.between[r]);
    if (rider.camera) addCamera(document, sampled, node, rider, rider.camera, zooms);
    const place = column(poses, POSE.size, POSE.translation, 3);
    const turn = column(poses, POSE.size, POSE.rotation, 4);
    // A carried rider moves too if its carrier is not exported.
    if (isMoving(shot, rider) || moves(place, node.getTranslation()) || moves(turn, node.getRotation())) {
      add(node, 'translation', `${names[r]} translation`, place);
      add(node, 'rotation', `${names[r]} rotation`, turn);
    }
    const spray = sprays ? sampled.sprays[r] : null;
    if (spray) addSpray(document, scene, rider, spray, sampled, { add }, instancers);
    const seen = sampled.shown[r];
    if (seen) {
      // The format hides what has no size.
      const values = Float64Array.from(seen.flatMap((is) => (is ? rider.rest.scale : [0, 0, 0])));
      channels.push({ node, path: 'scale', name: `${names[r]} shown`, values, steps: 1, held: true });
    }
  });
  addDressing(document, scene, sampled.dressings, instancers);
  Object.assign(document.getRoot().getAsset(), factsJoined(sampled, models));
  return { document, scene, channels, zooms, instancers };
}

/** View of a camera rider, which looks along its nose; of a zoom, that of the first frame. */
function addCamera(
  document: Document,
  { shot, first, frames }: SampledShot,
  rider: Node,
  own: Rider,
  camera: Camera,
  zooms: ZoomedCamera[],
): void {
  const { forward, up } = axesOf(own);
  const toNose = quat.conjugate([0, 0, 0, 1], axesToTravel(forward, up));
  // Cameras of the format look along −Z.
  quat.rotateY(toNose, toNose, Math.PI);
  const name = rider.getName();
  const lens = document
    .createCamera(name)
    .setType('perspective')
    .setAspectRatio(camera.aspect)
    .setYFov(fieldOfView(camera, focalAt(camera, sourceFrame(shot, first))))
    .setZNear(camera.near)
    .setZFar(camera.far);
  const node = document
    .createNode(`${name} camera`)
    .setRotation(toNose as Quat)
    .setCamera(lens)
    .setExtras({ sensorMillimetres: camera.sensor, focalMillimetres: camera.focal });
  rider.addChild(node);
  if (camera.keys.length === 0) return;
  const focal = compileFocal(camera);
  const focals = Float64Array.from({ length: frames }, (_, i) => focal(sourceFrame(shot, first + i)));
  const views = focals.map((value) => fieldOfView(camera, value));
  zooms.push({ lens, node, name, views, focals, sensor: camera.sensor });
}

/** Moves the parts of an instanced rider, after joints were added for wheels. */
function addParts(
  document: Document,
  channels: AnimationChannel[],
  rider: Node,
  { nodes: moved, joints, size, values }: SampledParts,
  between: readonly PartBetween[],
): void {
  const nodes = new Map<string, Node>();
  rider.traverse((node) => {
    if (node !== rider && !nodes.has(node.getName())) nodes.set(node.getName(), node);
  });
  for (const { name, takes, under, translation, held } of joints) {
    const wheel = nodes.get(takes);
    const parent = under === null ? rider : nodes.get(under);
    if (!wheel || !parent) continue;
    const joint = document.createNode(name).setTranslation(translation);
    parent.addChild(joint);
    joint.addChild(wheel);
    wheel.setTranslation(held.translation).setRotation(held.rotation).setScale(held.scale);
    nodes.set(name, joint);
  }
  for (const { name, at, weights } of moved) {
    const node = nodes.get(name);
    if (!node) continue;
    const add = (path: ChannelPath, from: number, width: number, rest: readonly number[]) => {
      const fast = path === 'rotation' && between.find((one) => one.node === name);
      const own = fast ? fast.rotations : column(values, size, at + from, width);
      if (!moves(own, rest)) return;
      const steps = fast ? fast.steps : 1;
      channels.push({
        node,
        path,
        name: `${rider.getName()} ${name} ${path}`,
        values: own,
        steps,
        held: false,
      });
    };
    add('translation', LOCAL.translation, 3, node.getTranslation());
    add('rotation', LOCAL.rotation, 4, node.getRotation());
    add('scale', LOCAL.scale, 3, node.getScale());
    if (weights > 0) add('weights', LOCAL.size, weights, node.getWeights());
  }
}

/** Some numbers of every sample. */
function column(values: Float64Array, size: number, at: number, width: number): Float64Array {
  const out = new Float64Array((values.length / size) * width);
  for (let i = 0; i * size < values.length; i++)
    for (let k = 0; k < width; k++) out[i * width + k] = values[i * size + at + k];
  return out;
}

/** Whether a value ever differs from its node's rest transform. */
function moves(values: Float64Array, rest: readonly number[]): boolean {
  return values.some((value, i) => Math.abs(value - (rest[i % rest.length] ?? 0)) > 1e-9);
}
