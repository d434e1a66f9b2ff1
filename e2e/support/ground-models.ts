import { Document, WebIO } from '@gltf-transform/core';
import type { TestFile } from './files.js';

/** Ground of 60 × 60 m with a gap of 8 m across it. */
export async function holedGround(): Promise<TestFile> {
  const document = new Document();
  const buffer = document.createBuffer();
  const corners = [-30, 20, 28, 90].flatMap((z) => [-30, 30].flatMap((x) => [x, 0, z]));
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document.createAccessor().setType('VEC3').setArray(new Float32Array(corners)).setBuffer(buffer),
    )
    .setIndices(
      document
        .createAccessor()
        .setType('SCALAR')
        .setArray(new Uint16Array([0, 2, 1, 1, 2, 3, 4, 6, 5, 5, 6, 7]))
        .setBuffer(buffer),
    );
  const field = document.createNode('field').setMesh(document.createMesh('field').addPrimitive(primitive));
  document.createScene('scene').addChild(field);
  const bytes = await new WebIO().writeBinary(document);
  return { name: 'holed.glb', mimeType: 'model/gltf-binary', buffer: Buffer.from(bytes) };
}
