import { Document, WebIO } from '@gltf-transform/core';

/** A file as a person would choose it. */
export interface TestFile {
  readonly name: string;
  readonly mimeType: string;
  readonly buffer: Buffer;
}

export function svgFile(name: string, inside: string): TestFile {
  const text = `<svg xmlns="http://www.w3.org/2000/svg">${inside}</svg>`;
  return { name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) };
}

/** A square lane of 10 m sides: 40 m round, its first side along +Z. */
export const squareLane = svgFile('square.svg', '<path id="square" d="M0 0 V10 H10 V0 Z"/>');

/** A straight lane of 48 m along +Z. */
export const straightLane = svgFile('straight.svg', '<path id="straight" d="M0 0 V48"/>');

/** A cart: a painted box of 1 × 1 × 2 m on the ground. */
export async function cartModel(name = 'cart.glb'): Promise<TestFile> {
  const document = new Document();
  const buffer = document.createBuffer();
  const corners: number[] = [];
  for (const x of [-0.5, 0.5]) for (const y of [0, 1]) for (const z of [-1, 1]) corners.push(x, y, z);
  const faces = [
    0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 5, 7, 1, 7,
    3,
  ];
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document.createAccessor().setType('VEC3').setArray(new Float32Array(corners)).setBuffer(buffer),
    )
    .setIndices(
      document.createAccessor().setType('SCALAR').setArray(new Uint16Array(faces)).setBuffer(buffer),
    )
    .setMaterial(document.createMaterial('blue paint').setBaseColorFactor([0.1, 0.2, 0.8, 1]));
  const node = document.createNode('cart').setMesh(document.createMesh('cart').addPrimitive(primitive));
  document.createScene('scene').addChild(node);
  const bytes = await new WebIO().writeBinary(document);
  return { name, mimeType: 'model/gltf-binary', buffer: Buffer.from(bytes) };
}

export function csvFile(name: string, rows: readonly string[]): TestFile {
  return { name, mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) };
}

/**
 * A wagon whose nose is +X: two axles 2.4 m apart of wheels with names of no meaning, a body 4 m long, a lamp
 * named for the front.
 */
export async function wagonModel(name = 'odd-wagon.glb'): Promise<TestFile> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('scene');
  const add = (part: string, place: [number, number, number], corners: number[]) => {
    const faces: number[] = [];
    for (let i = 0; i + 5 < corners.length / 3; i += 2) faces.push(i, i + 1, i + 2, i + 1, i + 3, i + 2);
    const primitive = document
      .createPrimitive()
      .setAttribute(
        'POSITION',
        document.createAccessor().setType('VEC3').setArray(new Float32Array(corners)).setBuffer(buffer),
      )
      .setIndices(
        document.createAccessor().setType('SCALAR').setArray(new Uint16Array(faces)).setBuffer(buffer),
      );
    const node = document.createNode(part).setTranslation(place);
    scene.addChild(node.setMesh(document.createMesh(part).addPrimitive(primitive)));
  };
  const box = (x: number, y: number, z: number) =>
    [-0.5, 0.5].flatMap((a) => [-0.5, 0.5].flatMap((b) => [-0.5, 0.5].flatMap((c) => [a * x, b * y, c * z])));
  // About Z: the axles lie across a nose of +X.
  const wheel = Array.from({ length: 13 }, (_, i) => (i * Math.PI) / 6).flatMap((a) =>
    [-0.1, 0.1].flatMap((z) => [0.4 * Math.cos(a), 0.4 * Math.sin(a), z]),
  );
  add('Shape.001', [0, 1, 0], box(4, 1, 1.6));
  add('front_lamp', [2, 1, 0], box(0.1, 0.2, 0.2));
  [1.2, -1.2].forEach((x, i) =>
    [0.8, -0.8].forEach((z, k) => add(`Shape.0${i + 2}${k}`, [x, 0.4, z], wheel)),
  );
  const bytes = await new WebIO().writeBinary(document);
  return { name, mimeType: 'model/gltf-binary', buffer: Buffer.from(bytes) };
}
