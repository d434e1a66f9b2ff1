import { Document, WebIO } from '@gltf-transform/core';
import { EXTMeshoptCompression, KHRMeshQuantization } from '@gltf-transform/extensions';
import { quantize } from '@gltf-transform/functions';
import { zipSync } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { MeshoptEncoder } from 'meshoptimizer';
import { glbOf } from '../../../test/odd-models.js';
import { gltfIo, readModelDocument } from '../model-read.js';
import { numbersOf } from '../gltf-scene.js';
import { takeModel, takeModelWithFacts } from './take-model.js';
import type { GivenFile } from './given-files.js';

const text = (value: string) => new TextEncoder().encode(value);
const PICTURE = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3, 4]);

/** A plate of 2 × 3 m with a picture. */
function plate(): Document {
  const model = new Document();
  const buffer = model.createBuffer('plate').setURI('data/plate one.bin');
  const accessor = (type: 'VEC2' | 'VEC3', values: number[]) =>
    model.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(buffer);
  const picture = model.createTexture('paint').setURI('paint.png').setImage(PICTURE).setMimeType('image/png');
  const primitive = model
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', [0, 0, 0, 2, 0, 0, 2, 0, 3, 0, 0, 0, 2, 0, 3, 0, 0, 3]))
    .setAttribute('TEXCOORD_0', accessor('VEC2', [0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]))
    .setMaterial(model.createMaterial('paint').setBaseColorTexture(picture));
  const node = model.createNode('plate').setMesh(model.createMesh('plate').addPrimitive(primitive));
  model.createScene().addChild(node);
  return model;
}

/** The same as several files, in a folder. */
async function inFiles(folder = ''): Promise<GivenFile[]> {
  const { json, resources } = await new WebIO().writeJSON(plate());
  return [
    { name: `${folder}plate.gltf`, bytes: text(JSON.stringify(json)) },
    ...Object.entries(resources).map(([name, bytes]) => ({ name: `${folder}${name}`, bytes })),
  ];
}

const high = (document: Document): number[] => {
  const places = numbersOf(
    document.getRoot().listMeshes()[0].listPrimitives()[0].getAttribute('POSITION') ?? fail(),
  );
  return [0, 1, 2].map((k) => Math.max(...[...places].filter((_, i) => i % 3 === k)));
};
const fail = (): never => {
  throw new Error('no positions');
};

describe('a model in several files', () => {
  it.each([
    ['files', (files: GivenFile[]) => files],
    ['files in any order', (files: GivenFile[]) => [...files].reverse()],
    [
      'files without their folders',
      (files: GivenFile[]) => files.map((file) => ({ ...file, name: file.name.replace(/^.*\//, '') })),
    ],
    [
      'a zip',
      (files: GivenFile[]) => [
        {
          name: 'plate.zip',
          bytes: zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes]))),
        },
      ],
    ],
  ])('comes as %s and is kept as one valid file', async (_, given) => {
    const { document, glb, fileName } = await takeModel(given(await inFiles('Plate/')));
    expect(high(document)).toEqual([2, 0, 3]);
    expect(fileName).toBe('plate.glb');
    expect((await validateBytes(glb as Uint8Array)).issues.numErrors).toBe(0);
    const kept = await new WebIO().readBinary(glb as Uint8Array);
    expect(kept.getRoot().listTextures()[0].getImage()).toEqual(PICTURE);
  });

  it('says which files are missing, and what a set is that holds no model or two', async () => {
    const [main, ...others] = await inFiles();
    await expect(takeModel([main])).rejects.toThrow(
      /plate\.gltf: needs other files \("data\/plate one\.bin" and 1 more\); expected them to be given together/,
    );
    await expect(takeModel(others)).rejects.toThrow(/2 files: holds no model; expected one of \.glb/);
    await expect(takeModel([main, { ...main, name: 'b.gltf' }, ...others])).rejects.toThrow(
      /4 files: holds 2 models \(plate\.gltf, b\.gltf\); expected one at a time/,
    );
    const broken = zipSync({ 'a.glb': new Uint8Array(400) }).slice(0, 90);
    await expect(takeModel([{ name: 'a.zip', bytes: broken }])).rejects.toThrow(/a\.zip: is a broken zip/);
  });

  it('one file that has all inside is kept as it is', async () => {
    const bytes = await new WebIO().writeBinary(plate());
    expect((await takeModel([{ name: 'plate.glb', bytes }])).glb).toBeNull();
  });
});

it('packed meshes are unpacked, and small whole numbers stay what they are', async () => {
  await MeshoptEncoder.ready;
  const model = plate();
  await model.transform(quantize());
  model.createExtension(EXTMeshoptCompression).setRequired(true);
  const io = gltfIo().registerDependencies({ 'meshopt.encoder': MeshoptEncoder });
  const bytes = await io.writeBinary(model);
  // Without what unpacks it, it is refused.
  await expect(readModelDocument(bytes, 'plate.glb')).rejects.toThrow(/requires .*EXT_meshopt_compression/);
  const { glb } = await takeModel([{ name: 'plate.glb', bytes }]);
  const { issues } = await validateBytes(glb as Uint8Array);
  expect(issues.numErrors).toBe(0);
  const { facts } = await takeModelWithFacts([{ name: 'plate.glb', bytes: glb as Uint8Array }]);
  expect(facts.low).toEqual([0, 0, 0].map((value) => expect.closeTo(value, 3)));
  expect(facts.high).toEqual([2, 0, 3].map((value) => expect.closeTo(value, 3)));
  const kept = (await readModelDocument(glb as Uint8Array, 'plate.glb')).getRoot();
  expect(kept.listExtensionsUsed().map(({ extensionName }) => extensionName)).toEqual([
    KHRMeshQuantization.EXTENSION_NAME,
  ]);
});

it('a mesh from elsewhere is a model: OBJ with its materials, STL, PLY', async () => {
  const obj = [
    'mtllib paints.mtl',
    'o Hull',
    'v 0 0 0',
    'v 4 0 0',
    'v 4 1 0',
    'vt 0 0',
    'vt 1 0',
    'vt 1 1',
    'usemtl red',
    'f 1/1 2/2 3/3',
    'o Mast',
    'v 0 0 9',
    'usemtl glass',
    'f 1 2 4',
  ].join('\n');
  const mtl = 'newmtl red\nKd 1 0 0\nmap_Kd -s 1 1 1 paint.png\nnewmtl glass\nKd 0.5 0.5 0.5\nd 0.25\n';
  const { document } = await takeModel([
    { name: 'boat.obj', bytes: text(obj) },
    { name: 'paints.mtl', bytes: text(mtl) },
    { name: 'paint.png', bytes: PICTURE },
  ]);
  const root = document.getRoot();
  expect(root.listNodes().map((node) => node.getName())).toEqual(['Hull', 'Mast']);
  const [red, glass] = root.listMeshes().map((mesh) => mesh.listPrimitives()[0].getMaterial());
  expect(red?.getBaseColorTexture()?.getImage()).toEqual(PICTURE);
  expect(glass?.getAlphaMode()).toBe('BLEND');
  // Half as bright on a screen is 0.214 of the light (IEC 61966-2-1).
  expect(glass?.getBaseColorFactor()).toEqual([0.214, 0.214, 0.214, 0.25].map((v) => expect.closeTo(v, 3)));
  // Measured from the lower edge there.
  const st = root.listMeshes()[0].listPrimitives()[0].getAttribute('TEXCOORD_0');
  expect([...(st?.getArray() ?? [])]).toEqual([0, 1, 1, 1, 1, 0]);

  const stl =
    'solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 5 0 0\nvertex 0 6 0\nendloop\nendfacet\nendsolid a\n';
  expect(high((await takeModel([{ name: 'a.stl', bytes: text(stl) }])).document)).toEqual([5, 6, 0]);
  const ply =
    'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_index\nend_header\n0 0 0\n7 0 0\n0 8 0\n3 0 1 2\n';
  expect(high((await takeModel([{ name: 'a.ply', bytes: text(ply) }])).document)).toEqual([7, 8, 0]);
  await expect(takeModel([{ name: 'line.obj', bytes: text('v 0 0 0\nv 1 0 0\nl 1 2\n') }])).rejects.toThrow(
    /line\.obj: holds no face; expected a mesh to see/,
  );
});

it('a buffer that is not there is one sentence at once', async () => {
  const json = {
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0 }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    accessors: [{ componentType: 5126, count: 3, type: 'VEC3', bufferView: 0 }],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    buffers: [{ byteLength: 36 }],
  };
  await expect(takeModel([{ name: 'empty.glb', bytes: glbOf(json) }])).rejects.toThrow(
    'empty.glb: has buffers[0] without its 36 bytes; expected them in the file.',
  );
});
