import { axesOf } from '../document/rider-axes.js';
import type { Animation, Buffer, Node } from '@gltf-transform/core';
import { Document, Logger, PropertyType, type Accessor } from '@gltf-transform/core';
import { prune, unpartition } from '@gltf-transform/functions';
import { quat } from 'gl-matrix';
import { keysWithin, type SampledParts, type SampledShot } from '../bake/index.js';
import { LOCAL } from '../hierarchy/index.js';
import { frameTime } from '../document/frames.js';
import type { Camera } from '../document/shot-camera.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { isMoving } from '../evaluate/index.js';
import type { LaidThing } from '../laid/index.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { POSE, axesToTravel, compileFocal, fieldOfView, focalAt } from '../pose/index.js';
import { sourceFrame } from '../timing/index.js';
import { Wardrobe } from './glb-dresser.js';
import { addLaid } from './glb-laid.js';
import { addSpray } from './glb-spray.js';
import { gltfIo } from './model-read.js';

/**
 * A baked shot as GLB: each rider a node at the root that carries its model as it was made (meshes,
 * materials, hierarchy, clips), and one animation, named as the shot, that moves those nodes frame by
 * frame. The ground is the set's and stays out.
 *
 * @param models by the document's model ids: what {@link readModel} gave; each is left unchanged
 * @param within how far a value may be off where keys are left out, metres, radians or weight; 0 writes every frame
 */
export async function writeGlb(
  sampled: SampledShot,
  models: ReadonlyMap<string, Document>,
  within = 0,
): Promise<Uint8Array> {
  const { shot } = sampled;
  const target = new Document();
  const scene = target.createScene(shot.name);
  target.getRoot().setDefaultScene(scene);
  if (sampled.cuts.length > 0) scene.setExtras({ cuts: cutsByTime(shot, sampled.cuts) });
  const ride = target.createAnimation(shot.name);
  const buffer = target.createBuffer();
  const channels = new ChannelWriter(target, ride, buffer, sampled, within);
  const wardrobe = new Wardrobe(target, models);
  shot.riders.forEach((rider, r) => {
    const node = target.createNode(rider.name).setScale(rider.rest.scale);
    const poses = sampled.riders[r];
    node.setTranslation([...poses.subarray(0, 3)] as Vec3).setRotation([...poses.subarray(3, 7)] as Quat);
    scene.addChild(node);
    if (wardrobe.dress(node, rider.model)) animateParts(target, channels, node, sampled.parts[r]);
    if (rider.camera) node.addChild(cameraNode(target, sampled, rider, rider.camera));
    if (isMoving(shot, rider)) animate(channels, node, rider, poses);
    const seen = sampled.shown[r];
    const spray = sampled.sprays[r];
    if (spray) addSpray(target, scene, rider, spray, sampled, channels, wardrobe);
    if (seen) channels.addSteps(node, 'scale', `${rider.name} shown`, sizesOf(seen, rider.rest.scale));
  });
  addLaid(target, scene, sampled.laid, wardrobe);
  if (ride.listChannels().length === 0) ride.dispose();
  return written(target, wardrobe);
}

/** What is laid alone, as GLB, standing where it was laid. */
export async function writeLaidGlb(
  name: string,
  laid: readonly LaidThing[],
  models: ReadonlyMap<string, Document>,
): Promise<Uint8Array> {
  const target = new Document();
  const scene = target.createScene(name);
  target.getRoot().setDefaultScene(scene);
  target.createBuffer();
  const wardrobe = new Wardrobe(target, models);
  addLaid(target, scene, laid, wardrobe);
  // Nothing moves in it, so clips of the pieces' models have no use.
  target
    .getRoot()
    .listAnimations()
    .forEach((clip) => clip.dispose());
  return written(target, wardrobe);
}

async function written(target: Document, wardrobe: Wardrobe): Promise<Uint8Array> {
  if (wardrobe.close()) {
    target.setLogger(new Logger(Logger.Verbosity.WARN));
    const { MESH, PRIMITIVE, ACCESSOR } = PropertyType;
    await target.transform(prune({ propertyTypes: [MESH, PRIMITIVE, ACCESSOR], keepAttributes: true }));
  }
  await target.transform(unpartition());
  // A buffer that nothing lies in has no length, which the format does not allow.
  if (target.getRoot().listAccessors().length === 0)
    target
      .getRoot()
      .listBuffers()
      .forEach((empty) => empty.dispose());
  return gltfIo().writeBinary(target);
}

/**
 * What a camera rider sees, looking along its nose. A zoom is more than the format's cameras can do: the field of
 * view is that of the first frame, and focal lengths by frame are beside it in `extras`.
 */
function cameraNode(target: Document, { shot, frames }: SampledShot, rider: Rider, camera: Camera): Node {
  const { forward, up } = axesOf(rider);
  const toNose = quat.conjugate([0, 0, 0, 1], axesToTravel(forward, up));
  // Cameras of the format look along −Z.
  quat.rotateY(toNose, toNose, Math.PI);
  const { first } = shot.range;
  const lens = target
    .createCamera(rider.name)
    .setType('perspective')
    .setAspectRatio(camera.aspect)
    .setYFov(fieldOfView(camera, focalAt(camera, sourceFrame(shot, first))))
    .setZNear(camera.near)
    .setZFar(camera.far);
  const node = target
    .createNode(`${rider.name} camera`)
    .setRotation(toNose as Quat)
    .setCamera(lens);
  if (camera.keys.length === 0) return node;
  const focal = compileFocal(camera);
  const byFrame = Array.from({ length: frames }, (_, i) => focal(sourceFrame(shot, first + i)));
  return node.setExtras({ focalMillimetres: byFrame, sensorMillimetres: camera.sensor });
}

/** From which second on which camera is looked through: the name of its rider's node. */
function cutsByTime(shot: Shot, cuts: SampledShot['cuts']): { seconds: number; camera: string }[] {
  const nameOf = (id: string) => shot.riders.find((rider) => rider.id === id)?.name ?? id;
  return cuts.map(({ frame, camera }) => ({ seconds: frameTime(shot, frame), camera: nameOf(camera) }));
}

/** The format hides what has no size. */
function sizesOf(seen: readonly boolean[], scale: Vec3): Float64Array {
  return Float64Array.from(seen.flatMap((is) => (is ? scale : [0, 0, 0])));
}

function animate(channels: ChannelWriter, node: Node, rider: Rider, poses: Float64Array): void {
  channels.add(
    node,
    'translation',
    `${rider.name} translation`,
    column(poses, POSE.size, POSE.translation, 3),
  );
  channels.add(node, 'rotation', `${rider.name} rotation`, column(poses, POSE.size, POSE.rotation, 4));
}

/** Moves the parts of a dressed rider that move by themselves, after joints were put in for wheels. */
function animateParts(
  target: Document,
  channels: ChannelWriter,
  rider: Node,
  { nodes: moved, joints, size, values }: SampledParts,
): void {
  const nodes: Node[] = [];
  rider.traverse((node) => nodes.push(node));
  const named = (name: string) => nodes.find((node) => node !== rider && node.getName() === name);
  for (const { name, takes, under, translation, held } of joints) {
    const wheel = named(takes);
    const parent = under === null ? rider : named(under);
    if (!wheel || !parent) continue;
    const joint = target.createNode(name).setTranslation(translation);
    parent.addChild(joint);
    joint.addChild(wheel);
    wheel.setTranslation(held.translation).setRotation(held.rotation).setScale(held.scale);
    nodes.push(joint);
  }
  for (const { name, at, weights } of moved) {
    const node = named(name);
    if (!node) continue;
    const add = (path: ChannelPath, from: number, width: number, rest: readonly number[]) => {
      const own = column(values, size, at + from, width);
      if (moves(own, rest)) channels.add(node, path, `${rider.getName()} ${name} ${path}`, own);
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

/** Whether a value is ever elsewhere than its node stands. */
function moves(values: Float64Array, rest: readonly number[]): boolean {
  return values.some((value, i) => Math.abs(value - (rest[i % rest.length] ?? 0)) > 1e-9);
}

const range = (count: number) => [...Array(count).keys()];

type ChannelPath = 'translation' | 'rotation' | 'scale' | 'weights';
const TYPES = { translation: 'VEC3', rotation: 'VEC4', scale: 'VEC3', weights: 'SCALAR' } as const;

/** Writes channels of one animation; those with every frame share their times. */
class ChannelWriter {
  private readonly seconds: Float32Array<ArrayBuffer>;
  private every: Accessor | null = null;

  constructor(
    private readonly target: Document,
    private readonly ride: Animation,
    private readonly buffer: Buffer,
    { shot, frames }: SampledShot,
    private readonly within: number,
  ) {
    this.seconds = Float32Array.from({ length: frames }, (_, i) => frameTime(shot, shot.range.first + i));
  }

  /** @param values by frame */
  add(node: Node, path: ChannelPath, name: string, values: Float64Array): void {
    const width = values.length / this.seconds.length;
    this.write(node, path, name, values, this.within > 0 ? keysWithin(values, width, this.within) : null);
  }

  /** Of values that hold until the next one only the changes. */
  addSteps(node: Node, path: ChannelPath, name: string, values: Float64Array): void {
    const width = values.length / this.seconds.length;
    const kept = [...this.seconds.keys()].filter(
      (i) => i === 0 || range(width).some((k) => values[i * width + k] !== values[(i - 1) * width + k]),
    );
    this.write(node, path, name, values, kept, 'STEP');
  }

  private write(
    node: Node,
    path: ChannelPath,
    name: string,
    values: Float64Array,
    kept: readonly number[] | null,
    interpolation: 'LINEAR' | 'STEP' = 'LINEAR',
  ): void {
    const width = values.length / this.seconds.length;
    const times = kept
      ? this.accessor(
          'time',
          'SCALAR',
          Float32Array.from(kept, (i) => this.seconds[i]),
        )
      : (this.every ??= this.accessor('time', 'SCALAR', this.seconds));
    const numbers = kept ? kept.flatMap((i) => [...values.subarray(i * width, (i + 1) * width)]) : values;
    const sampler = this.target
      .createAnimationSampler()
      .setInput(times)
      .setOutput(this.accessor(name, TYPES[path], Float32Array.from(numbers)))
      .setInterpolation(interpolation);
    this.ride.addSampler(sampler);
    this.ride.addChannel(
      this.target.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler),
    );
  }

  private accessor(
    name: string,
    type: 'SCALAR' | 'VEC3' | 'VEC4',
    values: Float32Array<ArrayBuffer>,
  ): Accessor {
    return this.target.createAccessor(name).setType(type).setArray(values).setBuffer(this.buffer);
  }
}
