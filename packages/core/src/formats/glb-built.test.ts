import { Document, WebIO, type Node } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import { sampleShot } from '../shot/bake/sample-shot.js';
import { newShot } from '../document/new-shot.js';
import { parseShot } from '../document/parse-shot.js';
import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { writeGlb, writeDressingGlb } from './glb-write.js';
import { MOST_IN_GLB } from '../effects/spray/spray.js';

/** A bar of a metre along Z under a node that is moved and turned, as models from elsewhere are. */
function bar(): Document {
  const model = new Document();
  const buffer = model.createBuffer();
  const vec3 = (values: number[]) =>
    model.createAccessor().setType('VEC3').setArray(Float32Array.from(values)).setBuffer(buffer);
  // Along X in its own space, eleven places; turned so that it lies along Z.
  const places = Array.from({ length: 11 }, (_, i) => [
    [-0.5 + i / 10, 0, 0],
    [-0.5 + i / 10, 0.1, 0],
  ]).flat(2);
  const ways = Array.from({ length: 22 }, () => [0, 0, 1]).flat();
  const indices = Array.from({ length: 10 }, (_, i) => [2 * i, 2 * i + 1, 2 * i + 2]).flat();
  const primitive = model
    .createPrimitive()
    .setAttribute('POSITION', vec3(places))
    .setAttribute('NORMAL', vec3(ways))
    .setIndices(
      model.createAccessor().setType('SCALAR').setArray(Uint16Array.from(indices)).setBuffer(buffer),
    );
  const half = Math.SQRT1_2;
  const node = model
    .createNode('bar')
    .setRotation([0, -half, 0, half])
    .setMesh(model.createMesh('bar').addPrimitive(primitive));
  model.createScene().addChild(node);
  return model;
}

const KAPPA = 0.5522847498;
const circle = {
  id: 'p',
  name: 'Round',
  basis: 'bezier',
  closed: true,
  points: [
    { position: [5, 0, 0], in: [0, 0, -KAPPA * 5], out: [0, 0, KAPPA * 5] },
    { position: [0, 0, 5], in: [KAPPA * 5, 0, 0], out: [-KAPPA * 5, 0, 0] },
    { position: [-5, 0, 0], in: [0, 0, KAPPA * 5], out: [0, 0, -KAPPA * 5] },
    { position: [0, 0, -5], in: [-KAPPA * 5, 0, 0], out: [KAPPA * 5, 0, 0] },
  ],
};

const shotWith = (fields: object) =>
  parseShot({
    ...newShot({ name: 'Built', range: { first: 1, last: 25 } }),
    paths: [circle],
    models: [{ id: 'bar', name: 'Bar', source: { file: 'bar.glb' } }],
    ...fields,
  });
const models = new Map([['bar', bar()]]);

async function readBack(bytes: Uint8Array): Promise<Document> {
  const report = await validateBytes(bytes);
  expect(report.issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
  return new WebIO().readBinary(bytes);
}

const named = (document: Document, name: string): Node => {
  const node = document
    .getRoot()
    .listNodes()
    .find((one) => one.getName() === name);
  if (!node) throw new Error(`no ${name}`);
  return node;
};

it('pieces are a node each with a mesh they share; a profile is one mesh', async () => {
  const shot = shotWith({
    dressing: [
      { id: 'ties', name: 'Ties', path: 'p', model: 'bar', every: 1, fit: true },
      {
        id: 'road',
        name: 'Road',
        path: 'p',
        kind: 'profile',
        color: '#ff0000',
        profile: [
          [1, 0],
          [-1, 0],
        ],
      },
    ],
  });
  const document = await readBack(await writeGlb(sampleShot(evaluateShot(shot, NO_ASSETS)), models));
  const ties = named(document, 'Ties').listChildren();
  expect(ties).toHaveLength(31);
  const meshes = new Set(ties.map((tie) => tie.listChildren()[0].getMesh()));
  expect(meshes.size).toBe(1);
  for (const tie of ties) {
    const [x, , z] = tie.getTranslation();
    expect(Math.hypot(x, z)).toBeCloseTo(5, 2);
  }
  const road = named(document, 'Road').getMesh()?.listPrimitives()[0];
  expect(road?.getMaterial()?.getBaseColorFactor()).toEqual([1, 0, 0, 1]);
  const places = road?.getAttribute('POSITION')?.getArray() ?? [];
  for (let i = 0; i < places.length; i += 3) {
    const radius = Math.hypot(places[i], places[i + 2]);
    expect(Math.min(Math.abs(radius - 4), Math.abs(radius - 6))).toBeLessThan(0.01);
  }
});

it('bent pieces follow the curve, and what is laid can be given out alone', async () => {
  const shot = shotWith({
    dressing: [
      {
        id: 'rail',
        name: 'Rail',
        path: 'p',
        model: 'bar',
        every: 1,
        bend: true,
        offset: { side: 2, rise: 0.5 },
      },
    ],
    riders: [{ id: 'r', name: 'Rider', model: 'bar' }],
  });
  const document = await readBack(
    await writeDressingGlb('Laid', evaluateShot(shot, NO_ASSETS).dressings(), models),
  );
  expect(
    document
      .getRoot()
      .listScenes()[0]
      .listChildren()
      .map((node) => node.getName()),
  ).toEqual(['Rail']);
  const pieces = named(document, 'Rail').listChildren();
  expect(pieces).toHaveLength(32);
  const bent = pieces[3].listChildren()[0].getMesh()?.listPrimitives()[0];
  const places = bent?.getAttribute('POSITION')?.getArray() ?? [];
  expect(places).toHaveLength(66);
  for (let i = 0; i < places.length; i += 3) {
    // Left of the way round is outside; all of the bar lies on the circle beside it, not on its chord.
    expect(Math.hypot(places[i], places[i + 2])).toBeCloseTo(7, 2);
    expect(Math.min(Math.abs(places[i + 1] - 0.5), Math.abs(places[i + 1] - 0.6))).toBeLessThan(1e-6);
  }
});

describe('sprays', () => {
  const emitter = { rate: 10, life: 0.5, spread: 0, speed: 2, size: [0.2, 0.4] };

  it('are as many nodes as live at once and a frame more, of size 0 while unborn', async () => {
    const shot = shotWith({ riders: [{ id: 'r', name: 'R', emitter }] });
    const document = await readBack(await writeGlb(sampleShot(evaluateShot(shot, NO_ASSETS)), models));
    const all = named(document, 'R spray');
    const slots = all.listChildren();
    expect(slots.length).toBeGreaterThanOrEqual(6);
    expect(slots.length).toBeLessThanOrEqual(8);
    expect(all.getExtras()).toEqual({ particles: 11, givenOut: 11, everyNth: 1 });
    const channel = (path: string) =>
      document
        .getRoot()
        .listAnimations()[0]
        .listChannels()
        .filter((one) => slots.includes(one.getTargetNode() as Node) && one.getTargetPath() === path);
    const values = channel('scale').map((one) => one.getSampler()?.getOutput()?.getArray() ?? []);
    for (let frame = 0; frame < 25; frame++) {
      // One each tenth of a second for half a second: five, but for the first of them.
      const seconds = frame / 24;
      const born = Math.floor(10 * seconds + 1e-9) + 1;
      const dead = Math.max(0, Math.floor(10 * (seconds - 0.5) + 1e-9) + 1);
      expect(values.filter((scales) => scales[3 * frame] > 0)).toHaveLength(born - dead);
    }
    // A node never goes from one life to the next without being nowhere in between.
    const places = channel('translation').map((one) => one.getSampler()?.getOutput()?.getArray() ?? []);
    places.forEach((list, k) => {
      for (let frame = 1; frame < 25; frame++) {
        if (values[k][3 * frame] === 0 || values[k][3 * (frame - 1)] === 0) continue;
        // At 2 m/s.
        expect(Math.abs(list[3 * frame + 1] - list[3 * (frame - 1) + 1])).toBeLessThan(2 / 24 + 1e-5);
      }
    });
  });

  it('of very many, every so-many-th is given out, and the file says so', async () => {
    const shot = shotWith({ riders: [{ id: 'r', name: 'R', emitter: { ...emitter, rate: 5000 } }] });
    const document = await readBack(await writeGlb(sampleShot(evaluateShot(shot, NO_ASSETS)), models));
    const all = named(document, 'R spray');
    expect(all.listChildren().length).toBeLessThanOrEqual(MOST_IN_GLB + 1);
    expect(all.getExtras()).toMatchObject({ particles: 5001, everyNth: 6 });
  });
});
