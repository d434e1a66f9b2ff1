import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { Document, WebIO } from '@gltf-transform/core';
import fc from 'fast-check';
import { validateBytes } from 'gltf-validator';
import * as THREE from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { sampleShot } from '../shot/bake/sample-shot.js';
import { newShot } from '../document/new-shot.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { newAttachment } from '../motion/ride/new-attachment.js';
import { writeCsv } from './csv-write.js';
import { writeGlb } from './glb-write.js';
import { hierarchyOf } from './hierarchy-read.js';
import { readModel } from './model-read.js';

/** A painted, skinned figure of two joints with a clip, as a model from elsewhere would be. */
async function sampleModel(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (
    type: 'SCALAR' | 'VEC3' | 'VEC4' | 'MAT4',
    array: Float32Array | Uint8Array | Uint16Array,
  ) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as never)
      .setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0])))
    .setAttribute('JOINTS_0', accessor('VEC4', new Uint8Array([0, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0])))
    .setAttribute('WEIGHTS_0', accessor('VEC4', new Float32Array([1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0])))
    .setIndices(accessor('SCALAR', new Uint16Array([0, 1, 2])))
    .setMaterial(document.createMaterial('red paint').setBaseColorFactor([0.8, 0.1, 0.1, 1]));
  const hip = document.createNode('hip');
  const knee = document.createNode('knee').setTranslation([0, 1, 0]);
  hip.addChild(knee);
  const identity = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  const skin = document.createSkin('skin').addJoint(hip).addJoint(knee);
  skin.setInverseBindMatrices(accessor('MAT4', new Float32Array([...identity, ...identity])));
  const figure = document
    .createNode('figure')
    .setMesh(document.createMesh('figure').addPrimitive(primitive))
    .setSkin(skin);
  document.createScene('scene').addChild(hip).addChild(figure);
  const clip = document.createAnimation('walk');
  const sampler = document
    .createAnimationSampler()
    .setInput(accessor('SCALAR', new Float32Array([0, 1])))
    .setOutput(accessor('VEC4', new Float32Array([0, 0, 0, 1, 1, 0, 0, 0])));
  clip
    .addSampler(sampler)
    .addChannel(
      document.createAnimationChannel().setTargetNode(knee).setTargetPath('rotation').setSampler(sampler),
    );
  return new WebIO().writeBinary(document);
}

function sampleShotDocument(): Shot {
  const range = { first: 1, last: 97 };
  const points: Vec3[] = [
    [30, 0, 0],
    [10, 4, 25],
    [-40, 1, 8],
    [-12, 9, -30],
  ];
  const attachment = newAttachment('loop', range);
  const rider = { kind: 'vehicle' as const, model: 'figure' };
  return newShot({
    name: 'Two figures',
    fps: 24,
    range,
    paths: [
      {
        id: 'loop',
        name: 'Loop',
        basis: 'through',
        closed: true,
        points: points.map((position) => ({ position })),
      },
    ],
    models: [{ id: 'figure', name: 'Figure', source: { file: 'figure.glb' } }],
    riders: [
      {
        id: 'a',
        name: 'Ahead',
        ...rider,
        attachment: { ...attachment, offset: { ...attachment.offset, rise: 0.5, yaw: 20 } },
      },
      {
        id: 'b',
        name: 'Behind',
        ...rider,
        attachment: {
          ...attachment,
          facing: { ...attachment.facing, forward: '-x' },
          offset: { ...attachment.offset, along: -6 },
        },
      },
      { id: 'c', name: 'Onlooker', ...rider, rest: { translation: [1, 2, 3], scale: [2, 2, 2] } },
    ],
  });
}

async function baked(shot: Shot): Promise<Uint8Array> {
  const { document } = await readModel(await sampleModel(), 'figure.glb');
  return writeGlb(sampleShot(evaluateShot(shot, NO_ASSETS)), new Map([['figure', document]]));
}

const load = (bytes: Uint8Array) => new GLTFLoader().parseAsync(bytes.slice().buffer, '') as Promise<GLTF>;

/** By the arc tangent: the arc cosine of a dot product near 1 cannot tell angles under 1e-4 apart. */
function angleBetween(a: THREE.Quaternion, b: THREE.Quaternion): number {
  const between = a.clone().conjugate().multiply(b);
  return 2 * Math.atan2(Math.hypot(between.x, between.y, between.z), Math.abs(between.w));
}

let bytes: Uint8Array;
beforeAll(async () => {
  bytes = await baked(sampleShotDocument());
});

it('passes the validator with no error and no warning of its own', async () => {
  const { issues } = await validateBytes(bytes);
  expect(issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
});

it('keeps meshes, materials, hierarchy, skins and clips, the data once however many wear it', async () => {
  const root = (await new WebIO().readBinary(bytes)).getRoot();
  expect(root.listMeshes()).toHaveLength(1);
  expect(root.listMaterials().map((material) => material.getName())).toEqual(['red paint']);
  expect(root.listSkins()).toHaveLength(3);
  expect(
    root
      .listAnimations()
      .map((clip) => clip.getName())
      .sort(),
  ).toEqual(['Ahead walk', 'Behind walk', 'Onlooker walk', 'Two figures']);
  const scene = root.getDefaultScene();
  expect(scene?.listChildren().map((node) => node.getName())).toEqual(['Ahead', 'Behind', 'Onlooker']);
  for (const rider of scene?.listChildren() ?? []) {
    expect(rider.listChildren().map((node) => node.getName())).toEqual(['hip', 'figure']);
    const skin = rider.listChildren()[1].getSkin();
    expect(skin?.listJoints()[1].getParentNode()?.getParentNode()).toBe(rider);
  }
});

it('at whole frames equals the CSV after another library has read it', async () => {
  const shot = sampleShotDocument();
  const rows = writeCsv(evaluateShot(shot, NO_ASSETS))
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(','));
  const { scene, animations } = await load(bytes);
  const ride = animations.find((clip) => clip.name === 'Two figures') as THREE.AnimationClip;
  const mixer = new THREE.AnimationMixer(scene);
  mixer.clipAction(ride).play();
  const nodes: Record<string, THREE.Object3D | undefined> = {
    a: scene.getObjectByName('Ahead'),
    b: scene.getObjectByName('Behind'),
    c: scene.getObjectByName('Onlooker'),
  };
  expect(rows).toHaveLength(97 * 3);
  let [place, angle] = [0, 0];
  for (const [frame, time, rider, , ...numbers] of rows) {
    // The last key's time is the clip's end, where a looping mixer would begin again.
    mixer.setTime(Number(frame) === 97 ? Number(time) - 1e-7 : Number(time));
    const [x, y, z, qx, qy, qz, qw] = numbers.map(Number);
    const node = nodes[rider] as THREE.Object3D;
    place = Math.max(place, node.position.distanceTo(new THREE.Vector3(x, y, z)));
    angle = Math.max(angle, angleBetween(node.quaternion, new THREE.Quaternion(qx, qy, qz, qw)));
  }
  expect(place).toBeLessThan(1e-5);
  expect(angle).toBeLessThan(1e-5);
});

it('a shot in which nothing moves has no ride, and is valid', async () => {
  const still = newShot({ name: 'Still', riders: [{ id: 'x', name: 'Carrier' }] });
  const glb = await baked(still);
  expect((await validateBytes(glb)).issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
  expect((await new WebIO().readBinary(glb)).getRoot().listAnimations()).toHaveLength(0);
});

describe('reading models', () => {
  it('tells what an animator asks for', async () => {
    const { facts } = await readModel(await sampleModel(), 'figure.glb');
    expect(facts).toMatchObject({
      nodes: ['hip', 'knee', 'figure'],
      clips: [{ name: 'walk', seconds: 1 }],
      triangles: 1,
      skinned: true,
    });
    // The third place follows the knee, a metre up, and is a metre above it.
    expect(facts.high).toEqual([1, 2, 0]);
  });

  const json = (value: object) => new TextEncoder().encode(JSON.stringify(value));
  const cut = async () => (await sampleModel()).slice(0, 300);
  const version1 = async () => {
    const changed = await sampleModel();
    changed[4] = 1;
    return changed;
  };
  const wild = async () => {
    const document = await new WebIO().readBinary(await sampleModel());
    document
      .getRoot()
      .listMeshes()[0]
      .listPrimitives()[0]
      .getIndices()
      ?.setArray(new Uint16Array([0, 1, 9]) as never);
    return new WebIO().writeBinary(document);
  };
  it.each<[string, () => Promise<Uint8Array> | Uint8Array, RegExp]>([
    ['too short', () => new Uint8Array(3), /x\.glb: has 3 bytes, too few/],
    [
      'a picture',
      () => Uint8Array.from([0x89, 0x50, 0x4e, 0x47, ...new Array(60).fill(1)]),
      /neither GLB nor glTF/,
    ],
    ['cut off', cut, /is cut off: 300 of \d+ bytes/],
    ['GLB version 1', version1, /is GLB version 1; expected version 2/],
    ['broken JSON', () => new TextEncoder().encode('{ "asset": { "version": '), /not valid JSON/],
    ['no version', () => json({ scenes: [], padding: '....' }), /has no asset.version/],
    ['glTF 1', () => json({ asset: { version: '1.0' } }), /is glTF 1.0; expected 2.0/],
    [
      'other files',
      () => json({ asset: { version: '2.0' }, buffers: [{ uri: 'a.bin', byteLength: 4 }] }),
      /needs other files \(a\.bin\)/,
    ],
    [
      'an unknown extension',
      () => json({ asset: { version: '2.0' }, extensionsRequired: ['KHR_draco_mesh_compression'] }),
      /requires KHR_draco_mesh_compression/,
    ],
    ['nothing to see', () => json({ asset: { version: '2.0' }, scenes: [{}] }), /no scene with nodes/],
    ['wild indices', wild, /points to a vertex it does not have/],
  ])('refuses %s with the reason', async (_, make, message) => {
    await expect(readModel(await make(), 'x.glb')).rejects.toThrow(message);
  });

  it('of a file with bytes gone wrong, the answer is a model or a FormatError in one line', async () => {
    const whole = await sampleModel();
    const flips = fc.array(fc.tuple(fc.nat(whole.length - 1), fc.integer({ min: 0, max: 255 })), {
      minLength: 1,
      maxLength: 6,
    });
    await fc.assert(
      fc.asyncProperty(flips, async (changes) => {
        const bytes = whole.slice();
        for (const [at, value] of changes) bytes[at] = value;
        try {
          await readModel(bytes, 'x.glb');
        } catch (error) {
          expect((error as Error).name).toBe('FormatError');
          expect((error as Error).message).not.toContain('\n');
        }
      }),
      { numRuns: 600 },
    );
  });
});

it('a camera rider is a camera that looks along its nose with its field of view', async () => {
  const shot = sampleShotDocument();
  const [, behind] = shot.riders;
  const camera = { focal: 50, sensor: 36, aspect: 1.6, near: 0.2, far: 300, framing: [0, 0], keys: [] };
  const filmed = newShot({ ...shot, riders: [{ ...behind, camera }] } as unknown as Shot);
  const file = await baked(filmed);
  expect((await validateBytes(file)).issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
  const { cameras, scene } = await load(file);
  const lens = cameras[0] as THREE.PerspectiveCamera;
  // 50 mm before a picture 36 mm wide and 22.5 mm high.
  expect(lens.fov).toBeCloseTo((2 * Math.atan(11.25 / 50) * 180) / Math.PI, 4);
  expect([lens.aspect, lens.near, lens.far]).toEqual([1.6, 0.2, 300].map((v) => expect.closeTo(v, 5)));
  scene.updateMatrixWorld(true);
  const looks = lens.getWorldDirection(new THREE.Vector3());
  const rider = scene.getObjectByName('Behind') as THREE.Object3D;
  // Its nose is the model's −X.
  const nose = new THREE.Vector3(-1, 0, 0).applyQuaternion(rider.quaternion);
  expect(looks.distanceTo(nose)).toBeLessThan(1e-6);
  const up = new THREE.Vector3(0, 1, 0).applyQuaternion(lens.getWorldQuaternion(new THREE.Quaternion()));
  expect(up.distanceTo(new THREE.Vector3(0, 1, 0).applyQuaternion(rider.quaternion))).toBeLessThan(1e-6);
});

it('a zoom is beside the camera, by frame', async () => {
  const shot = sampleShotDocument();
  const keys = [
    { frame: 1, value: 20, ease: 'linear' },
    { frame: 97, value: 68 },
  ];
  const zoomed = newShot({
    ...shot,
    riders: [{ ...shot.riders[0], camera: { keys } }],
    cuts: [{ frame: 49, camera: 'a' }],
  } as unknown as Shot);
  const bytes = await baked(zoomed);
  const { issues } = await validateBytes(bytes);
  expect(issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
  const io = new WebIO();
  const root = (await io.readBinary(bytes)).getRoot();
  const node = root.listNodes().find((other) => other.getCamera() !== null);
  // In words, since a list of numbers in a node's extras ends some readers.
  const told = node?.getExtras().focalMillimetres as string;
  const focals = JSON.parse(told) as number[];
  expect(focals).toHaveLength(97);
  expect(focals[48]).toBeCloseTo(44, 9);
  // The same as what a reader that knows animated pointers plays: 44 mm before 36 mm × 9 / 16.
  const { json, resources } = await io.binaryToJSON(bytes);
  const ride = json.animations?.find(({ name }) => name === 'Two figures');
  const channel = ride?.channels.find(({ target }) => (target.path as string) === 'pointer');
  expect(channel?.target).toEqual({
    path: 'pointer',
    extensions: { KHR_animation_pointer: { pointer: '/cameras/0/perspective/yfov' } },
  });
  expect(json.extensionsUsed).toContain('KHR_animation_pointer');
  const accessor = json.accessors?.[ride?.samplers[channel?.sampler ?? -1].output ?? -1];
  const view = json.bufferViews?.[accessor?.bufferView ?? -1];
  const at = (view?.byteOffset ?? 0) + (accessor?.byteOffset ?? 0);
  const data = resources['@glb.bin'].slice(at, at + 4 * 97);
  const fovs = new Float32Array(data.buffer);
  const aspect = zoomed.riders[0].camera?.aspect ?? 0;
  expect(fovs[48]).toBeCloseTo(2 * Math.atan(36 / aspect / 2 / 44), 6);
  // Frame 49 of 24 a second from frame 1 on.
  expect(root.getDefaultScene()?.getExtras()).toEqual({ cuts: [{ seconds: 2, camera: 'Ahead', id: 'a' }] });
});

it('a camera tells its focal length where it has no keys as well', async () => {
  const shot = sampleShotDocument();
  const steady = newShot({
    ...shot,
    riders: [{ ...shot.riders[0], camera: { focal: 28, sensor: 24 } }],
  } as unknown as Shot);
  const root = (await new WebIO().readBinary(await baked(steady))).getRoot();
  const node = root.listNodes().find((other) => other.getCamera() !== null);
  expect(node?.getExtras()).toEqual({ sensorMillimetres: 24, focalMillimetres: 28 });
});

it('parts that cues move are in the ride, at whole frames as in the CSV, from how they stand', async () => {
  const model = await readModel(await sampleModel(), 'figure.glb');
  const cue = (kind: 'turn' | 'move', axis: '+x' | '+z', value: number) => ({
    id: kind,
    name: kind,
    trigger: { kind: 'frame' as const },
    action: { kind, rider: 'x', node: 'knee', axis },
    keys: [
      { at: 1, value: 0, ease: 'linear' as const },
      { at: 25, value },
    ],
  });
  const shot = newShot({
    name: 'Gate',
    range: { first: 1, last: 25 },
    models: [{ id: 'm', name: 'M', source: { file: 'figure.glb' } }],
    riders: [{ id: 'x', name: 'Standing', model: 'm' }],
    cues: [cue('turn', '+x', 90), cue('move', '+z', 0.5)],
  });
  const models = new Map([['m', model.document]]);
  const hierarchies = new Map([['m', hierarchyOf(model.document)]]);
  const evaluated = evaluateShot(shot, { ground: null, hierarchies, physics: null });
  const bytes = await writeGlb(sampleShot(evaluated), models);
  expect((await validateBytes(bytes)).issues.numErrors).toBe(0);
  const { scene, animations } = await load(bytes);
  const mixer = new THREE.AnimationMixer(scene);
  mixer.clipAction(animations.find(({ name }) => name === 'Gate') as THREE.AnimationClip).play();
  const knee = scene.getObjectByName('knee') as THREE.Object3D;
  const rows = writeCsv(evaluated)
    .split('\n')
    .filter((line) => line.split(',')[3] === 'knee');
  expect(rows).toHaveLength(25);
  for (const frame of [1, 7, 13]) {
    mixer.setTime((frame - 1) / 24);
    const angle = ((frame - 1) / 24) * (Math.PI / 2);
    const moved = ((frame - 1) / 24) * 0.5;
    // It is a metre up; rotated about x first, it moves along its own z in its new direction.
    const turned = new THREE.Quaternion().setFromAxisAngle(new THREE.Vector3(1, 0, 0), angle);
    expect(angleBetween(knee.quaternion, turned)).toBeLessThan(1e-5);
    const place = [0, 1 - moved * Math.sin(angle), moved * Math.cos(angle)];
    knee.position.toArray().forEach((value, k) => expect(value).toBeCloseTo(place[k], 5));
    const [x, y, z] = rows[frame - 1].split(',').slice(4, 7).map(Number);
    [x, y, z].forEach((value, k) => expect(value).toBeCloseTo(place[k], 9));
  }
});
