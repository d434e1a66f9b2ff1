import {
  Document,
  Format,
  GLB_BUFFER,
  Logger,
  PropertyType,
  type Accessor,
  type Animation,
  type AnimationSampler,
  type GLTF,
} from '@gltf-transform/core';
import { prune, unpartition } from '@gltf-transform/functions';
import type { SampledShot } from '../shot/bake/sample-shot.js';
import type { Shot } from '../document/shot.js';
import type { PlacedDressing } from '../effects/dressing/placed-dressings.js';
import { changesIn } from './channel-samples.js';
import { composeShot, type AnimationChannel, type ZoomedCamera } from './compose-shot.js';
import { ModelInstancers } from './model-instancer.js';
import { addDressing } from './glb-dressing.js';
import { packGlb } from './glb-pack.js';
import { gltfIo } from './model-read.js';
import { restoreNames } from './node-names.js';
import { riderNames } from './rider-names.js';
import { thinningFacts, type ThinningFacts } from './thin-errors.js';
import { keysInWorld } from './thin-world.js';

/** How a shot is written as GLB. */
export interface GlbChoice {
  /** How far any place in the world may be off where keys are left out, metres; 0 writes every frame. */
  readonly within?: number;
  /** The same for rotations, radians; by default as many as `within` has metres. */
  readonly turns?: number;
  /** Whether the models' own clips come along. */
  readonly clips?: 'keep' | 'drop';
}

/**
 * A baked shot as GLB: each rider a node at the root that carries its model, and one animation, named as the shot, that moves those
 * nodes frame by frame.
 *
 * @param models by the document's model ids: what {@link readModel} gave; each is left unchanged
 */
export async function writeGlb(
  sampled: SampledShot,
  models: ReadonlyMap<string, Document>,
  choice: GlbChoice = {},
): Promise<Uint8Array> {
  return (await glbWithFacts(sampled, models, choice, false)).bytes;
}

/** The same, with what leaving keys out came to. */
export async function describeGlb(
  sampled: SampledShot,
  models: ReadonlyMap<string, Document>,
  choice: GlbChoice = {},
): Promise<ThinningFacts & { bytes: number }> {
  const { bytes, facts } = await glbWithFacts(sampled, models, choice, true);
  return { keys: 0, of: 0, metres: 0, turn: 0, ...facts, bytes: bytes.byteLength };
}

async function glbWithFacts(
  sampled: SampledShot,
  models: ReadonlyMap<string, Document>,
  { within = 0, turns = within, clips = 'keep' }: GlbChoice,
  asked: boolean,
): Promise<{ bytes: Uint8Array; facts: ThinningFacts | null }> {
  const { shot } = sampled;
  const composed = composeShot(sampled, models, true);
  const { document, scene, channels, zooms } = composed;
  if (clips === 'drop') dropClips(document);
  if (sampled.cuts.length > 0) scene.setExtras({ cuts: cutsByTime(sampled) });
  const ride = new RideWriter(document, shot, sampled);
  const kept = keysInWorld(scene, channels, { within, turns });
  const facts = asked ? thinningFacts(scene, channels, kept, sampled.frames) : null;
  channels.forEach((channel, i) => ride.add(channel, kept[i]));
  const zoomed = zooms.map((zoom) => ride.addZoom(zoom));
  const animation = ride.close();
  await tidied(document, composed.instancers);
  const { json, resources } = await gltfIo().writeJSON(document, { format: Format.GLB });
  if (animation)
    pointAtCameras(
      json,
      document.getRoot().listAnimations().indexOf(animation),
      zoomed.map((sampler, i) => ({
        sampler: animation.listSamplers().indexOf(sampler),
        camera: document.getRoot().listCameras().indexOf(zooms[i].lens),
      })),
    );
  return { bytes: packGlb(json, resources[GLB_BUFFER]), facts };
}

/** Dressing alone as a GLB, at its positions in the shot. */
export async function writeDressingGlb(
  name: string,
  laid: readonly PlacedDressing[],
  models: ReadonlyMap<string, Document>,
): Promise<Uint8Array> {
  const target = new Document();
  const scene = target.createScene(name);
  target.getRoot().setDefaultScene(scene);
  target.createBuffer();
  const instancers = new ModelInstancers(target, models);
  addDressing(target, scene, laid, instancers);
  // Nothing moves in it, so clips of the pieces' models have no use.
  dropClips(target);
  await tidied(target, instancers);
  return gltfIo().writeBinary(target);
}

function dropClips(document: Document): void {
  for (const clip of document.getRoot().listAnimations()) clip.dispose();
}

async function tidied(target: Document, instancers: ModelInstancers): Promise<void> {
  instancers.close();
  // Prune data that nothing references any more: of other scenes, dropped clips, and models without an instance.
  target.setLogger(new Logger(Logger.Verbosity.WARN));
  const { SKIN, MESH, PRIMITIVE, MATERIAL, TEXTURE, ACCESSOR } = PropertyType;
  await target.transform(
    prune({
      propertyTypes: [SKIN, MESH, PRIMITIVE, MATERIAL, TEXTURE, ACCESSOR],
      keepAttributes: true,
      keepIndices: true,
      keepSolidTextures: true,
    }),
  );
  restoreNames(target);
  await target.transform(unpartition());
  // A buffer that nothing lies in has no length, which the format does not allow.
  if (target.getRoot().listAccessors().length === 0)
    target
      .getRoot()
      .listBuffers()
      .forEach((empty) => empty.dispose());
}

/** From which second on which camera is looked through: the name of its rider's node, and the rider's id. */
function cutsByTime({ shot, first, cuts }: SampledShot): { seconds: number; camera: string; id: string }[] {
  const names = riderNames(shot.riders);
  const nameOf = (id: string) => names[shot.riders.findIndex((rider) => rider.id === id)] ?? id;
  return cuts.map(({ frame, camera }) => ({
    seconds: Math.max(0, (frame - first) / shot.fps),
    camera: nameOf(camera),
    id: camera,
  }));
}

/**
 * Zooms change a camera's field of view, which is no node's: `KHR_animation_pointer` can express that. Readers that
 * do not know it skip those channels.
 */
function pointAtCameras(
  json: GLTF.IGLTF,
  animation: number,
  zooms: readonly { sampler: number; camera: number }[],
): void {
  if (zooms.length === 0) return;
  const name = 'KHR_animation_pointer';
  json.extensionsUsed = [...new Set([...(json.extensionsUsed ?? []), name])];
  for (const { sampler, camera } of zooms) {
    const pointer = `/cameras/${camera}/perspective/yfov`;
    const target = { path: 'pointer', extensions: { [name]: { pointer } } };
    json.animations?.[animation].channels.push({ sampler, target } as unknown as GLTF.IAnimationChannel);
  }
}

const TYPES = { translation: 'VEC3', rotation: 'VEC4', scale: 'VEC3', weights: 'SCALAR' } as const;

/** Writes channels of one animation; those with every frame share their times. */
class RideWriter {
  private readonly ride: Animation;
  private readonly every = new Map<number, Accessor>();
  private readonly frames: number;

  constructor(
    private readonly document: Document,
    private readonly shot: Shot,
    { frames }: SampledShot,
  ) {
    this.ride = document.createAnimation(shot.name);
    this.frames = frames;
  }

  add({ node, path, name, values, steps, held }: AnimationChannel, thinned: readonly number[] | null): void {
    const samples = (this.frames - 1) * steps + 1;
    const width = values.length / samples;
    // If no keys can be left out, all channels share their times.
    const kept = held ? changesIn(values, width) : thinned?.length === samples ? null : thinned;
    const numbers = kept ? kept.flatMap((i) => [...values.subarray(i * width, (i + 1) * width)]) : values;
    const output = this.accessor(name, TYPES[path], Float32Array.from(numbers));
    const sampler = this.sampler(kept ? this.times(kept, steps) : this.everyTime(steps), output);
    if (held) sampler.setInterpolation('STEP');
    this.ride.addChannel(
      this.document.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler),
    );
  }

  /** Field of view of a camera, as a sampler without a node; focal lengths are in the extras. */
  addZoom({ node, name, views, focals, sensor }: ZoomedCamera): AnimationSampler {
    // A list of numbers here ends some readers.
    node.setExtras({ sensorMillimetres: sensor, focalMillimetres: JSON.stringify([...focals]) });
    const output = this.accessor(`${name} field of view`, 'SCALAR', Float32Array.from(views));
    return this.sampler(this.everyTime(1), output);
  }

  /** The animation; null, and gone, where nothing moves. */
  close(): Animation | null {
    if (this.ride.listChannels().length + this.ride.listSamplers().length > 0) return this.ride;
    this.ride.dispose();
    return null;
  }

  private sampler(input: Accessor, output: Accessor): AnimationSampler {
    const sampler = this.document.createAnimationSampler().setInput(input).setOutput(output);
    sampler.setInterpolation('LINEAR');
    this.ride.addSampler(sampler);
    return sampler;
  }

  private everyTime(steps: number): Accessor {
    const known = this.every.get(steps);
    if (known) return known;
    const all = Array.from({ length: (this.frames - 1) * steps + 1 }, (_, i) => i);
    const times = this.times(all, steps);
    this.every.set(steps, times);
    return times;
  }

  private times(kept: readonly number[], steps: number): Accessor {
    return this.accessor(
      'time',
      'SCALAR',
      Float32Array.from(kept, (i) => i / steps / this.shot.fps),
    );
  }

  private accessor(
    name: string,
    type: 'SCALAR' | 'VEC3' | 'VEC4',
    values: Float32Array<ArrayBuffer>,
  ): Accessor {
    const buffer = this.document.getRoot().listBuffers()[0];
    return this.document.createAccessor(name).setType(type).setArray(values).setBuffer(buffer);
  }
}
