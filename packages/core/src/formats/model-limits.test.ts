import { boxesGlb, chainGlb, glbOf } from '../../test/odd-models.js';
import { readModel } from './model-read.js';

const read = (bytes: Uint8Array) => readModel(bytes, 'odd.glb');
const nodes = (count: number, part: object = {}) =>
  Array.from({ length: count }, (_, i) => ({ name: `part ${i}`, ...part }));
const scene = { scene: 0, scenes: [{ nodes: [0] }] };
const accessor = { componentType: 5126, count: 8, type: 'VEC3' };

describe('a model is refused before any of it is made', () => {
  const mesh = { meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }] };
  it.each<[string, Uint8Array, RegExp]>([
    ['nodes in a ring', glbOf({ ...scene, nodes: [{ children: [1] }, { children: [0] }] }), /in a ring/],
    [
      'a ring beside a tree',
      glbOf({ ...scene, nodes: [{}, { children: [2] }, { children: [1] }] }),
      /in a ring \(node 1/,
    ],
    ['a node on itself', glbOf({ ...scene, nodes: [{ children: [0] }] }), /in a ring/],
    [
      'a node on two others',
      glbOf({ ...scene, nodes: [{ children: [2] }, { children: [2] }, {}] }),
      /node 2 hang on two nodes/,
    ],
    ['a child that is not there', glbOf({ ...scene, nodes: [{ children: [7] }] }), /name no node: it has 1/],
    ['children that are no list', glbOf({ ...scene, nodes: [{ children: 3 }] }), /nodes\[0\]\.children/],
    ['nodes that are no list', glbOf({ ...scene, nodes: { a: 1 } }), /has nodes that are no list/],
    ['a node that is nothing', glbOf({ ...scene, nodes: [null] }), /nodes\[0\] that is no object/],
    [
      'more nodes than any model has',
      glbOf({ ...scene, nodes: nodes(50_001) }),
      /50,001 nodes; at most 50,000/,
    ],
    ['nodes deeper than any rope', chainGlb(2_001), /more than 2,000 nodes that hang on each other/],
    [
      'fifty million zeros',
      glbOf({ ...scene, ...mesh, nodes: [{ mesh: 0 }], accessors: [{ ...accessor, count: 50_000_000 }] }),
      /more than 60,000,000 numbers/,
    ],
    [
      'a mesh that stands too often',
      boxesGlb(nodes(30_000), [0], { accessors: [{ ...accessor, count: 1000 }] }),
      /30,000,000 vertices as it stands/,
    ],
    [
      'an accessor past its bytes',
      boxesGlb([{}], [0], { accessors: [{ ...accessor, bufferView: 0, count: 9 }] }),
      /accessors\[0\] reach past its bufferView: 108 of 96 bytes/,
    ],
    [
      'a view past its buffer',
      boxesGlb([{}], [0], { bufferViews: [{ buffer: 0, byteLength: 400 }] }),
      /bufferViews\[0\] reach past its buffer of 96 bytes/,
    ],
    [
      'a mesh of no accessor',
      boxesGlb([{}], [0], { meshes: [{ primitives: [{ attributes: { POSITION: 4 } }] }] }),
      /POSITION that names no accessor/,
    ],
  ])('%s', async (_, bytes, message) => {
    await expect(read(bytes)).rejects.toMatchObject({ name: 'FormatError' });
    await expect(read(bytes)).rejects.toThrow(message);
  });
});

it('a message never holds more than 200 characters of what was found', async () => {
  const long = 'x'.repeat(5_000);
  for (const part of [
    { extensionsRequired: [long] },
    { buffers: [{ uri: long, byteLength: 1 }] },
    { asset: { version: long } },
  ]) {
    const error = await read(glbOf({ ...scene, nodes: [{}], ...part })).catch((one: Error) => one);
    expect((error as Error).message.length).toBeLessThan(330);
  }
});

it('a chain of a thousand nodes stands where their steps add up to', async () => {
  const { facts } = await read(chainGlb(1_000));
  expect(facts.nodes).toHaveLength(1_000);
  expect(facts.places[999][2]).toBeCloseTo(10, 9);
  expect(facts.low[2]).toBeCloseTo(-0.99, 9);
  expect(facts.high[2]).toBeCloseTo(11, 9);
});

it('twenty thousand nodes are read', async () => {
  const spread = Array.from({ length: 20_000 }, (_, i) => ({
    name: `part ${i}`,
    translation: [2 * i, 0, 0],
  }));
  const { facts } = await read(
    boxesGlb(
      spread,
      spread.map((_, i) => i),
    ),
  );
  expect(facts.nodes).toHaveLength(20_000);
  expect(facts.low).toEqual([-0.5, 0, -1]);
  expect(facts.high).toEqual([39_998.5, 1, 1]);
  expect(facts.rig.wheels).toEqual([]);
});
