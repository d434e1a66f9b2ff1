import { Document } from '@gltf-transform/core';
import { unzipSync } from 'fflate';
import * as THREE from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { parseUsda, primsByPath, type UsdaPrim, type UsdaProperty } from '../../../test/usda-grammar.js';
import { sampleShot, type SampleChoice } from '../../shot/bake/sample-shot.js';
import { newShot } from '../../document/new-shot.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { assetsOf } from '../assets-read.js';
import { writeCsv } from '../csv-write.js';
import { writeGlb } from '../glb-write.js';
import { packUsdz } from './usd-package.js';
import { writeUsd, type UsdChoice } from './usd-write.js';

async function written(
  shot: Shot,
  models: ReadonlyMap<string, Document>,
  choice: SampleChoice & UsdChoice = {},
) {
  const evaluated = evaluateShot(shot, await assetsOf(shot, models));
  const files = writeUsd(sampleShot(evaluated, choice), models, choice);
  const layer = parseUsda(files.layer.join(''));
  const prims = primsByPath(layer.prims);
  for (const prim of prims.values()) expectWhole(prim, prims);
  return { evaluated, files, layer, prims };
}

/** Faults that a reader would stop at: paths that lead nowhere, lists of other lengths than declared. */
function expectWhole(prim: UsdaPrim, prims: ReadonlyMap<string, UsdaPrim>): void {
  for (const [name, { type, value, connect, metadata }] of prim.properties) {
    if (type === 'rel') for (const target of [value].flat()) expect(prims.has(target as string)).toBe(true);
    if (connect !== undefined) {
      const [path, output] = connect.split('.');
      expect(prims.get(path)?.properties.has(output)).toBe(true);
    }
    if (name === 'faceVertexIndices') {
      const points = prim.properties.get('points')?.value as number[][];
      expect(Math.max(...(value as number[]))).toBeLessThan(points.length);
    }
    if (metadata.interpolation === 'vertex' && Array.isArray(value) && prim.properties.has('points')) {
      const points = prim.properties.get('points')?.value as number[][];
      expect(value).toHaveLength(points.length * ((metadata.elementSize as number) ?? 1));
    }
  }
  if (typeof prim.metadata.inherits === 'string')
    expect(prims.get(prim.metadata.inherits)?.kind).toBe('class');
}

const property = (prims: ReadonlyMap<string, UsdaPrim>, path: string, name: string): UsdaProperty => {
  const found = prims.get(path)?.properties.get(name);
  if (!found) throw new Error(`no ${path}.${name}; there are ${[...prims.keys()].join(' ')}`);
  return found;
};

const range = { first: 101, last: 125 };
const straight = {
  id: 'p',
  name: 'P',
  basis: 'polyline' as const,
  points: [{ position: [0, 0, 0] as const }, { position: [0, 0, 12] as const }],
};
const steady = {
  path: 'p',
  pace: {
    keys: [
      { frame: 101, value: 0 },
      { frame: 125, value: 1 },
    ],
  },
};
const shotOf = (fields: object): Shot =>
  newShot({ name: '4 × Büßer', range, paths: [straight], ...fields } as unknown as Parameters<
    typeof newShot
  >[0]);

/** A square with a picture on it, under two nodes of one name. */
function signModel(): Document {
  const model = new Document();
  const buffer = model.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3', values: number[]) =>
    model.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(buffer);
  const picture = model
    .createTexture('face/a')
    .setImage(Uint8Array.from([1, 2, 3]))
    .setMimeType('image/png');
  const material = model.createMaterial('Sign').setBaseColorTexture(picture).setDoubleSided(true);
  const primitive = model
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', [0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0]))
    .setAttribute('NORMAL', accessor('VEC3', [0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1]))
    .setAttribute('TEXCOORD_0', accessor('VEC2', [0, 1, 1, 1, 1, 0, 0, 0.25]))
    .setMode(6)
    .setMaterial(material);
  const mesh = model.createMesh('sign').addPrimitive(primitive);
  const scene = model.createScene();
  for (const side of [0, 1])
    scene.addChild(model.createNode('sign').setTranslation([side, 0, 0]).setMesh(mesh));
  return model;
}

it('time codes are frames, and riders stand where the CSV has them', async () => {
  const shot = shotOf({
    riders: [
      { id: 'a', name: 'Cart', attachment: steady },
      { id: 'b', name: 'Cart', rest: { translation: [1, 2, 3], scale: [2, 2, 2] } },
    ],
  });
  const { layer, prims, evaluated } = await written(shot, new Map());
  expect(layer.metadata).toMatchObject({
    defaultPrim: '_4_Bu_er',
    startTimeCode: 101,
    endTimeCode: 125,
    timeCodesPerSecond: 24,
    metersPerUnit: 1,
    upAxis: 'Y',
  });
  const rows = writeCsv(evaluated)
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(','));
  const places = property(prims, '/_4_Bu_er/Cart', 'xformOp:translate').samples ?? [];
  const turns = property(prims, '/_4_Bu_er/Cart', 'xformOp:orient').samples ?? [];
  const own = rows.filter(([, , id]) => id === 'a');
  expect(places.map(([code]) => code)).toEqual(own.map(([frame]) => Number(frame)));
  own.forEach((row, i) => {
    const [x, y, z, qx, qy, qz, qw] = row.slice(4, 11).map(Number);
    expect(places[i][1]).toEqual([x, y, z]);
    // The real part is first.
    expect(turns[i][1]).toEqual([qw, qx, qy, qz]);
  });
  // A metre in 24 frames, by hand.
  expect((places[6][1] as number[])[2]).toBeCloseTo(0.25, 9);
  const other = prims.get('/_4_Bu_er/Cart_2');
  expect(other?.metadata).toMatchObject({ displayName: 'Cart 2', customData: { id: 'b' } });
  expect(other?.properties.get('xformOp:translate')?.value).toEqual([1, 2, 3]);
  expect(other?.properties.get('xformOp:scale')?.value).toEqual([2, 2, 2]);
  expect(other?.properties.get('xformOpOrder')?.value).toEqual([
    'xformOp:translate',
    'xformOp:orient',
    'xformOp:scale',
  ]);
});

it('meshes, surfaces and pictures: shared ones once, faces as triangles, pictures from their lower edge', async () => {
  const shot = shotOf({
    models: [{ id: 'm', name: 'M', source: { file: 'm.glb' } }],
    riders: [{ id: 'a', name: 'Sign', model: 'm', attachment: steady }],
  });
  const { files, prims } = await written(shot, new Map([['m', signModel()]]), { folder: 'looks' });
  const root = '/_4_Bu_er';
  const shared = prims.get('/_Shared/sign');
  expect(shared?.kind).toBe('class');
  expect(shared?.properties.get('faceVertexIndices')?.value).toEqual([0, 1, 2, 0, 2, 3]);
  expect(shared?.properties.get('faceVertexCounts')?.value).toEqual([3, 3]);
  expect(shared?.properties.get('doubleSided')?.value).toBe(1);
  expect(shared?.properties.get('primvars:st')?.value).toEqual([
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 0.75],
  ]);
  const worn = prims.get(`${root}/Sign/sign_2/sign_mesh`);
  expect(worn?.metadata.inherits).toBe('/_Shared/sign');
  expect(worn?.properties.get('material:binding')?.value).toBe(`${root}/Materials/Sign`);
  const file = property(prims, `${root}/Materials/Sign/BaseColor`, 'inputs:file').value;
  expect(files.pictures).toEqual([{ name: 'looks/a.png', bytes: Uint8Array.from([1, 2, 3]) }]);
  expect(file).toBe('./looks/a.png');

  const packed = packUsdz(files, 'shot.usda');
  expect(Object.keys(unzipSync(packed))).toEqual(['shot.usda', 'looks/a.png']);
  const view = new DataView(packed.buffer);
  let at = 0;
  for (const size of [new TextEncoder().encode(files.layer.join('')).byteLength, 3]) {
    // Stored, its length before it, its bytes at a multiple of 64 (USDZ 1.3).
    expect(view.getUint32(at, true)).toBe(0x04034b50);
    expect([view.getUint16(at + 6, true) & 8, view.getUint16(at + 8, true)]).toEqual([0, 0]);
    expect(view.getUint32(at + 18, true)).toBe(size);
    const data = at + 30 + view.getUint16(at + 26, true) + view.getUint16(at + 28, true);
    expect(data % 64).toBe(0);
    at = data + size;
  }
});

/** A skin of two joints, one rotated and one under a node that is none, bound away from their rest positions. */
function skinnedModel(): Document {
  const model = new Document();
  const buffer = model.createBuffer();
  const accessor = (type: 'VEC3' | 'VEC4' | 'MAT4', values: ArrayLike<number>, whole = false) =>
    model
      .createAccessor()
      .setType(type)
      .setArray(whole ? Uint8Array.from(values) : Float32Array.from(values))
      .setBuffer(buffer);
  const hip = model.createNode('hip').setTranslation([0, 1, 0]).setRotation([0.6, 0, 0, 0.8]);
  const sleeve = model.createNode('sleeve').setScale([1, 2, 1]).setTranslation([0, 0.1, 0]);
  const knee = model.createNode('knee').setTranslation([0, 0.3, 0.1]);
  hip.addChild(sleeve.addChild(knee));
  const bound = [
    new THREE.Matrix4().makeTranslation(0, -0.9, 0),
    new THREE.Matrix4().makeRotationX(0.3).setPosition(0.1, -1.4, 0),
  ];
  // The knee first: meshes count joints in the order of their skin.
  const skin = model.createSkin().addJoint(knee).addJoint(hip);
  skin.setInverseBindMatrices(accessor('MAT4', [...bound[1].elements, ...bound[0].elements]));
  const primitive = model
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', [0, 1, 0, 0.2, 1.2, 0, 0, 1.5, 0.1]))
    .setAttribute('JOINTS_0', accessor('VEC4', [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0], true))
    .setAttribute('WEIGHTS_0', accessor('VEC4', [1, 0, 0, 0, 0.25, 0.75, 0, 0, 1, 0, 0, 0]));
  const mesh = model.createMesh('skin').addPrimitive(primitive);
  const worn = model.createNode('figure').setMesh(mesh).setSkin(skin);
  model.createScene().addChild(hip).addChild(worn);
  return model;
}

it('a skin follows its skeleton as another library moves that of the GLB', async () => {
  const models = new Map([['m', skinnedModel()]]);
  const bends = [
    { at: 101, value: 0, ease: 'linear' },
    { at: 125, value: 90 },
  ];
  const shot = shotOf({
    models: [{ id: 'm', name: 'M', source: { file: 'm.glb' } }],
    riders: [{ id: 'a', name: 'Walker', model: 'm', attachment: steady, rest: { scale: [1.5, 1.5, 1.5] } }],
    cues: ['hip', 'knee'].map((node) => ({
      id: node,
      name: node,
      trigger: { kind: 'frame' },
      action: { kind: 'turn', rider: 'a', node, axis: '+x' },
      keys: bends,
    })),
  });
  const { evaluated, prims } = await written(shot, models);
  const bytes = await writeGlb(sampleShot(evaluated), models);
  const { scene, animations } = (await new GLTFLoader().parseAsync(bytes.slice().buffer, '')) as GLTF;
  const mixer = new THREE.AnimationMixer(scene);
  mixer.clipAction(animations.find(({ name }) => name === shot.name) as THREE.AnimationClip).play();
  let skin: THREE.SkinnedMesh | undefined;
  scene.traverse((object) => {
    if ((object as THREE.SkinnedMesh).isSkinnedMesh) skin ??= object as THREE.SkinnedMesh;
  });
  const root = '/_4_Bu_er/Walker';
  expect(prims.get(root)?.type).toBe('SkelRoot');
  const mesh = [...prims.values()].find(({ properties }) => properties.has('skel:skeleton')) as UsdaPrim;
  const skeleton = mesh.properties.get('skel:skeleton')?.value as string;
  const rest = scene.getObjectByName('Walker') as THREE.Object3D;
  for (const frame of [101, 108, 119]) {
    mixer.setTime((frame - 101) / 24);
    scene.updateMatrixWorld(true);
    const points = skinnedByUsd(prims, mesh, skeleton, frame);
    points.forEach((point, v) => {
      const there = (skin as THREE.SkinnedMesh).getVertexPosition(v, new THREE.Vector3());
      (skin as THREE.SkinnedMesh).localToWorld(there);
      // Points of a skeleton are in the space of its root: the rider's.
      expect(point.applyMatrix4(rest.matrixWorld).distanceTo(there)).toBeLessThan(1e-5);
    });
  }
});

/** UsdSkel's rule: a point is the sum over its joints of weight × (joint now ⋅ joint when bound⁻¹) ⋅ point. */
function skinnedByUsd(
  prims: ReadonlyMap<string, UsdaPrim>,
  mesh: UsdaPrim,
  skeleton: string,
  frame: number,
): THREE.Vector3[] {
  const joints = property(prims, skeleton, 'joints').value as string[];
  const rows = property(prims, skeleton, 'bindTransforms').value as number[][][];
  // Row vectors: the rows are the columns of other books.
  const bind = rows.map((m) => new THREE.Matrix4().fromArray(m.flat()));
  const source = property(prims, skeleton, 'skel:animationSource').value as string;
  const now = (name: string) =>
    property(prims, source, name).samples?.find(([code]) => code === frame)?.[1] as number[][];
  const [places, turns, sizes] = [now('translations'), now('rotations'), now('scales')];
  const worlds: THREE.Matrix4[] = [];
  joints.forEach((joint, j) => {
    const [w, x, y, z] = turns[j];
    const local = new THREE.Matrix4().compose(
      new THREE.Vector3(...(places[j] as [number, number, number])),
      new THREE.Quaternion(x, y, z, w),
      new THREE.Vector3(...(sizes[j] as [number, number, number])),
    );
    const parent = joints.indexOf(joint.split('/').slice(0, -1).join('/'));
    expect(parent).toBeLessThan(j);
    worlds.push(parent < 0 ? local : worlds[parent].clone().multiply(local));
  });
  const moved = worlds.map((world, j) => world.clone().multiply(bind[j].clone().invert()));
  const of = mesh.properties.get('primvars:skel:jointIndices')?.value as number[];
  const weights = mesh.properties.get('primvars:skel:jointWeights')?.value as number[];
  const points = mesh.properties.get('points')?.value as [number, number, number][];
  return points.map((point, v) => {
    const sum = new THREE.Vector3();
    for (let k = 4 * v; k < 4 * v + 4; k++)
      if (weights[k] > 0)
        sum.addScaledVector(new THREE.Vector3(...point).applyMatrix4(moved[of[k]]), weights[k]);
    return sum;
  });
}

it('cameras have their lens, what is sprayed is instanced, and what is hidden is invisible', async () => {
  const shot = shotOf({
    riders: [
      {
        id: 'c',
        name: 'Lens',
        kind: 'camera',
        camera: {
          sensor: 36,
          aspect: 1.5,
          keys: [
            { frame: 101, value: 20, ease: 'linear' },
            { frame: 125, value: 68 },
          ],
        },
      },
      { id: 'e', name: 'Dust', emitter: { rate: 24, life: 0.5, speed: 2, spread: 0 } },
      { id: 's', name: 'Seen' },
    ],
    cues: [
      {
        id: 'q',
        name: 'Q',
        trigger: { kind: 'frame' },
        action: { kind: 'show', rider: 's' },
        keys: [
          { at: 101, value: 0 },
          { at: 113, value: 1 },
        ],
      },
    ],
  });
  const { prims } = await written(shot, new Map());
  const camera = [...prims.values()].find(({ type }) => type === 'Camera');
  const lens = camera?.properties;
  // 36 mm and 44 mm in tenths of a metre.
  expect(lens?.get('horizontalAperture')?.value).toBeCloseTo(0.36, 6);
  expect(lens?.get('verticalAperture')?.value).toBeCloseTo(0.24, 6);
  expect(lens?.get('focalLength')?.samples?.[12]).toEqual([113, expect.closeTo(0.44, 6)]);

  const dust = [...prims.values()].find(({ type }) => type === 'PointInstancer') as UsdaPrim;
  const now = (name: string, frame: number) =>
    dust.properties.get(name)?.samples?.find(([code]) => code === frame)?.[1] as number[];
  // One is born a frame and lives for twelve.
  expect(now('ids', 120)).toEqual([8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19]);
  expect(now('protoIndices', 120)).toHaveLength(12);
  const places = now('positions', 120) as unknown as number[][];
  // Straight up at 2 m/s: the one of frame 111 is 9 frames old.
  expect(places[2][1]).toBeCloseTo((2 * 9) / 24, 5);
  expect(prims.get(dust.properties.get('prototypes')?.value as string)?.type).toBe('Xform');

  const seen = prims.get('/_4_Bu_er/Seen')?.properties.get('visibility')?.samples ?? [];
  expect(seen[0]).toEqual([101, 'invisible']);
  expect(seen.at(-1)?.[1]).toBe('inherited');
});
