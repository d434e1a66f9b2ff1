import { Document, type Node } from '@gltf-transform/core';
import type { Vec3 } from '../../geometry/math/vec.js';
import { readModel } from '../../formats/model-read.js';
import { gltfIo } from '../../formats/model-read.js';

/** A drum about X, as triangles that fan out from its middle. */
function drum(radius: number, width: number, sides = 24): number[] {
  const rim = (i: number, x: number) => [
    x,
    radius * Math.sin((2 * Math.PI * i) / sides),
    radius * Math.cos((2 * Math.PI * i) / sides),
  ];
  return Array.from({ length: sides }, (_, i) =>
    [-width / 2, width / 2].flatMap((x) => [x, 0, 0, ...rim(i, x), ...rim(i + 1, x)]),
  ).flat();
}

function box([x, y, z]: Vec3): number[] {
  const corner = (i: number) => [i & 1 ? x : -x, i & 2 ? y : -y, i & 4 ? z : -z].map((v) => v / 2);
  return [0, 1, 2, 1, 3, 2, 4, 5, 6, 5, 7, 6].flatMap(corner);
}

/** A model whose nodes are made by a function; the result is what its file would give. */
async function rigOf(
  make: (node: (name: string, place: Vec3, shape?: number[], parent?: Node) => Node) => void,
) {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  make((name, place, shape, parent) => {
    const node = document.createNode(name).setTranslation(place);
    if (shape) {
      const position = document
        .createAccessor()
        .setType('VEC3')
        .setArray(Float32Array.from(shape))
        .setBuffer(buffer);
      const primitive = document.createPrimitive().setAttribute('POSITION', position);
      node.setMesh(document.createMesh(name).addPrimitive(primitive));
    }
    if (parent) parent.addChild(node);
    else scene.addChild(node);
    return node;
  });
  return (await readModel(await gltfIo().writeBinary(document), 'cart.glb')).facts.rig;
}

const corners: [string, Vec3][] = [
  ['n7', [0.8, 0.4, 1.4]],
  ['object_12', [-0.8, 0.4, 1.4]],
  ['Zylinder.003', [0.8, 0.4, -1.2]],
  ['x', [-0.8, 0.4, -1.2]],
];
const sorted = <T extends { node: string }>(list: readonly T[]) =>
  [...list].sort((a, b) => (a.node < b.node ? -1 : 1));

it('wheels are found by shape whatever they are called, deep in the hierarchy and under a scale', async () => {
  for (const scale of [1, 0.01]) {
    const rig = await rigOf((node) => {
      const root = node('root', [0, 0, 0]).setScale([scale, scale, scale]);
      const at = (place: Vec3) => place.map((value) => value / scale) as Vec3;
      node('front lamp', at([0, 1, 1.9]), box([0.4 / scale, 0.2 / scale, 0.1 / scale]), root);
      node('thing', at([0, 1, 0]), box([1.4 / scale, 0.8 / scale, 3.6 / scale]), root);
      const group = node('group', [0, 0, 0], undefined, root);
      for (const [name, place] of corners) node(name, at(place), drum(0.4 / scale, 0.2 / scale), group);
    });
    expect(sorted(rig.wheels)).toEqual(
      sorted(
        corners.map(([node, centre]) => ({
          node,
          centre: centre.map((value) => expect.closeTo(value, 4)),
          radius: expect.closeTo(0.4, 4),
          axle: '+x',
          steers: centre[2] > 0,
          drives: centre[2] < 0,
        })),
      ),
    );
    expect(rig.body).toBe('thing');
  }
});

it('a wheel of several meshes is one; a turned one and one of its own scale are found with their axle', async () => {
  const rig = await rigOf((node) => {
    node('front lamp', [0, 1, 1.9], box([0.4, 0.2, 0.1]));
    node('shell', [0, 1, 0], box([1.4, 0.8, 3.6]));
    for (const [name, place] of corners) {
      const turn = Math.SQRT1_2;
      const wheel = node(name, place).setRotation([0, 0, turn, turn]).setScale([2, 2, 2]);
      const sideways = (shape: number[]) =>
        shape.map((_, i) => [shape[i + 1], shape[i - 1], shape[i]][i % 3]);
      node(`${name} tyre`, [0, 0, 0], sideways(drum(0.2, 0.1)), wheel);
      node(`${name} hub`, [0, 0, 0], sideways(drum(0.12, 0.12)), wheel);
    }
  });
  expect(rig.wheels.map(({ node }) => node).sort()).toEqual(corners.map(([name]) => name).sort());
  for (const { radius, axle } of rig.wheels) expect([radius, axle]).toEqual([expect.closeTo(0.4, 4), '+x']);
});

it('one mesh for both wheels of an axle counts as one in the middle', async () => {
  const rig = await rigOf((node) => {
    node('front lamp', [0, 1, 1.9], box([0.4, 0.2, 0.1]));
    node('shell', [0, 1, 0], box([1.2, 0.8, 3.6]));
    for (const [name, z] of [
      ['axle a', 1.4],
      ['axle b', -1.2],
    ] as const) {
      const pair = [0.8, -0.8].flatMap((x) =>
        drum(0.4, 0.2).map((value, i) => (i % 3 === 0 ? value + x : value)),
      );
      node(name, [0, 0.4, z], pair);
    }
  });
  expect(rig.wheels).toMatchObject([
    { node: 'axle a', centre: [0, expect.closeTo(0.4, 4), expect.closeTo(1.4, 4)], steers: true },
    { node: 'axle b', steers: false },
  ]);
});

it('a spare, a steering wheel and rotors are no wheels; the steering wheel turns about its thin axis', async () => {
  const rig = await rigOf((node) => {
    node('front lamp', [0, 1, 1.9], box([0.4, 0.2, 0.1]));
    node('cabin', [0, 1, 0], box([1.4, 0.8, 3.6]));
    node('spare wheel', [0, 0.4, -2], drum(0.4, 0.2));
    node('rotor', [0.9, 0.4, 0], drum(0.4, 0.05));
    const flat = drum(0.2, 0.03).map((_, i, all) => [all[i + 1], all[i + 1], all[i - 2]][i % 3]);
    node('steering wheel', [0.4, 1.4, 0.5], flat).setRotation([Math.sin(-0.2), 0, 0, Math.cos(-0.2)]);
    for (const [name, place] of corners) node(`wheel ${name}`, place, drum(0.4, 0.2));
  });
  expect(rig.wheels).toHaveLength(4);
  expect(rig.steering).toEqual({ node: 'steering wheel', axis: '-z' });
  expect(rig.body).toBe('cabin');
});

it('what is pulled at its front does not steer; what has no wheels has none', async () => {
  const trailer = await rigOf((node) => {
    node('front board', [0, 1, 1.8], box([1.2, 0.4, 0.1]));
    node('bed', [0, 1, 0], box([1.4, 0.4, 3.6]));
    node('hitch_front', [0, 0.5, 2.4]);
    for (const [name, place] of corners) node(name, place, drum(0.4, 0.2));
  });
  expect(trailer.wheels.map(({ steers }) => steers)).toEqual([false, false, false, false]);
  const crate = await rigOf((node) => void node('crate', [0, 0.5, 0], box([1, 1, 1])));
  expect(crate).toEqual({ wheels: [], steering: { node: null, axis: '+z' }, body: null, ball: null });
});

it('a barrel rolls about its length, a ball about its middle', async () => {
  const barrel = await rigOf((node) => void node('cask', [0, 0, 0], drum(0.35, 0.9)));
  expect(barrel.wheels).toMatchObject([
    { node: 'cask', radius: expect.closeTo(0.35, 4), axle: '+x', steers: false },
  ]);
  const places: number[] = [];
  for (let i = 0; i < 400; i++) {
    const [y, a] = [1 - (2 * i + 1) / 400, i * 2.399963];
    const r = Math.sqrt(1 - y * y);
    places.push(0.3 * r * Math.cos(a), 0.3 * y + 0.3, 0.3 * r * Math.sin(a));
  }
  const ball = await rigOf((node) => void node('ball', [0, 0, 0], places.slice(0, 1197)));
  expect(ball.ball).toMatchObject({ node: 'ball', radius: expect.closeTo(0.3, 2) });
  expect(ball.wheels).toEqual([]);
});

it('a knob, a lone drum and a tank are no wheels; a cube is no ball', async () => {
  const pad = await rigOf((node) => {
    node('case', [0, 0.05, 0], box([0.3, 0.1, 0.2]));
    for (const [name, place] of corners.slice(0, 2)) {
      // Knobs of 4 mm on a case of 30 cm that reach down to what it lies on.
      node(name, [place[0] / 10, 0.004, 0], drum(0.004, 0.003));
    }
  });
  expect(pad.wheels).toEqual([]);
  const tank = await rigOf((node) => {
    node('frame', [0, 1, 0], box([2, 0.2, 4]));
    node('drum', [0, 0.4, 1], drum(0.4, 1.8));
    node('disc', [0, 0.5, -1], drum(0.5, 0.1));
  });
  expect(tank.wheels).toEqual([]);
  const cube = await rigOf((node) => void node('crate', [0, 0, 0], box([1, 1, 1]).concat(box([1, 1, 1]))));
  expect(cube.ball).toBeNull();
  const places: number[] = [];
  for (let i = 0; i < 400; i++) {
    const [y, a] = [1 - (2 * i + 1) / 400, i * 2.399963];
    const r = Math.sqrt(1 - y * y);
    places.push(0.3 * r * Math.cos(a), 0.285 * y, 0.3 * r * Math.sin(a));
  }
  // Five per cent lower than wide is a bun.
  expect((await rigOf((node) => void node('bun', [0, 0, 0], places.slice(0, 1197)))).ball).toBeNull();
});
