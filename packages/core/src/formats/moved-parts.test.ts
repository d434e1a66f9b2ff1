import { Document, type Node } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import * as THREE from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { sampleBlocks, sampleShot } from '../shot/bake/sample-shot.js';
import { newShot, type Loose } from '../document/new-shot.js';
import type { Rider } from '../document/shot-rider.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { writeCsv } from './csv-write.js';
import { writeGlb } from './glb-write.js';
import { assetsOf } from './assets-read.js';

/**
 * A cart whose wheel hangs on a body that leans, under a node of uneven scale that its own scale undoes, turned; with a
 * mark on the rim, and a mesh of two shapes. So nothing about it is plain.
 */
function oddCart(): Document {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  const add = (name: string, parent: Node | null) => {
    const node = document.createNode(name);
    if (parent) parent.addChild(node);
    else scene.addChild(node);
    return node;
  };
  const accessor = (values: number[]) =>
    document.createAccessor().setType('VEC3').setArray(Float32Array.from(values)).setBuffer(buffer);
  const body = add('body', add('cart', null)).setTranslation([0, 0.2, 0]);
  const squeezed = add('squeezed', body).setScale([1, 2, 4]);
  // A quarter turn about X takes the wheel's own y to z.
  const wheel = add('wheel', squeezed)
    .setTranslation([0.8, 0.1, 0.25])
    .setRotation([Math.SQRT1_2, 0, 0, Math.SQRT1_2])
    .setScale([1, 0.25, 0.5]);
  // At rest the mark is on top: 0.4 m up, which is its own −z.
  add('mark', wheel).setTranslation([0, 0, -0.4]);
  const flag = document
    .createPrimitive()
    .setAttribute('POSITION', accessor([0, 0, 0, 1, 0, 0, 0, 1, 0]))
    .addTarget(
      document.createPrimitiveTarget().setAttribute('POSITION', accessor([0, 0, 1, 0, 0, 1, 0, 0, 1])),
    )
    .addTarget(
      document.createPrimitiveTarget().setAttribute('POSITION', accessor([0, 1, 0, 0, 1, 0, 0, 1, 0])),
    );
  const mesh = document.createMesh('flag').addPrimitive(flag).setWeights([0, 0]);
  add('flag', body).setMesh(mesh);
  return document;
}

const keys = [
  { frame: 1, value: 0, ease: 'smooth' as const },
  { frame: 25, value: 2 },
  { frame: 49, value: 8 },
];

async function baked(rider: Loose<Rider>, within = 0) {
  const shot = newShot({
    name: 'Odd',
    range: { first: 1, last: 49 },
    paths: [
      { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 20] }] },
    ],
    models: [{ id: 'm', name: 'M', source: { file: 'm.glb' } }],
    riders: [{ id: 'r', name: 'Cart', model: 'm', ...rider, attachment: { path: 'p', pace: { keys } } }],
  });
  const models = new Map([['m', oddCart()]]);
  const evaluated = evaluateShot(shot, await assetsOf(shot, models));
  const bytes = await writeGlb(sampleShot(evaluated), models, { within });
  const { scene, animations } = await new Promise<GLTF>((resolve, reject) => {
    new GLTFLoader().parse(bytes.slice().buffer, '', resolve, reject);
  });
  const mixer = new THREE.AnimationMixer(scene);
  mixer.clipAction(animations.find(({ name }) => name === 'Odd') as THREE.AnimationClip).play();
  const at = (frame: number, name: string): THREE.Object3D => {
    mixer.setTime((frame - 1) / 24);
    scene.updateMatrixWorld(true);
    const found = scene.getObjectByName(name);
    if (!found) throw new Error(`no ${name}`);
    return found;
  };
  const place = (frame: number, name: string): Vec3 =>
    at(frame, name).getWorldPosition(new THREE.Vector3()).toArray();
  const distance = (frame: number) => evaluated.motion(shot.riders[0])?.distance(frame) ?? NaN;
  return { bytes, evaluated, at, place, distance };
}

const wheels = [{ node: 'wheel', centre: [0.8, 0.4, 1] as Vec3, radius: 0.4, steers: true }];

it('a wheel rolls where it is, whatever it hangs on, while the body leans: three reads it back so', async () => {
  const { bytes, place, distance } = await baked({
    wheels,
    body: { node: 'body', pitchPerG: 30, settle: 0.1 },
  });
  expect((await validateBytes(bytes)).issues.numErrors).toBe(0);
  for (const frame of [1, 9, 20, 33, 48]) {
    const s = distance(frame);
    const turned = s / 0.4;
    const expected = [0.8, 0.4 + 0.4 * Math.cos(turned), 1 + s + 0.4 * Math.sin(turned)];
    place(frame, 'mark').forEach((value, k) => expect(Math.abs(value - expected[k])).toBeLessThan(1e-4));
    place(frame, 'wheel').forEach((value, k) => expect(value).toBeCloseTo([0.8, 0.4, 1 + s][k], 4));
  }
  // The body does lean meanwhile.
  const lean = Math.abs(place(12, 'body')[1] - 0.2);
  expect(lean).toBeGreaterThan(1e-3);
});

it('steering and spin are joints of their own, in the CSV by their names', async () => {
  const { evaluated } = await baked({ wheels });
  const rows = writeCsv(evaluated)
    .split('\n')
    .map((line) => line.split(','));
  const parts = new Set(rows.slice(1).map((cells) => cells[3]));
  expect([...parts].filter(Boolean).sort()).toEqual(['wheel', 'wheel steer']);
  // On a straight path the joint does not turn.
  const steer = rows
    .filter((cells) => cells[3] === 'wheel steer')
    .map((cells) => cells.slice(7, 11).map(Number));
  steer.forEach((turn) => expect(turn).toEqual([0, 0, 0, 1].map((value) => expect.closeTo(value, 6))));
});

it('shapes, slides and turns of cycles come out; thinned, none is off by more than was said', async () => {
  const cycles = [
    { node: 'flag', kind: 'morph' as const, morph: 1, amplitude: 0.5, rest: 0.5, rate: 1 },
    { node: 'flag', kind: 'slide' as const, axis: '+y' as const, amplitude: 0.3, rate: 0.5 },
    { node: 'flag', kind: 'turn' as const, axis: '+x' as const, amplitude: 40, rate: 0.5 },
  ];
  const whole = await baked({ cycles });
  const thin = await baked({ cycles }, 0.002);
  expect((await validateBytes(thin.bytes)).issues.numErrors).toBe(0);
  expect(thin.bytes.byteLength).toBeLessThan(whole.bytes.byteLength);
  for (const frame of [1, 8, 13, 31]) {
    const swing = (frame - 1) / 24;
    const weight = 0.5 + 0.5 * Math.sin(2 * Math.PI * swing);
    const slid = 0.3 * Math.sin(Math.PI * swing);
    for (const [file, within] of [
      [whole, 1e-5],
      [thin, 0.0021],
    ] as const) {
      const flag = file.at(frame, 'flag') as THREE.Mesh;
      expect(Math.abs((flag.morphTargetInfluences?.[1] ?? NaN) - weight)).toBeLessThan(within);
      expect(flag.morphTargetInfluences?.[0]).toBe(0);
      expect(Math.abs(flag.position.y - slid)).toBeLessThan(within);
      const turn = new THREE.Quaternion().setFromAxisAngle(
        new THREE.Vector3(1, 0, 0),
        ((40 * Math.PI) / 180) * Math.sin(Math.PI * swing),
      );
      expect(flag.quaternion.angleTo(turn)).toBeLessThan(within + 1e-3);
    }
  }
});

it('a ball comes out turned as it rolled', async () => {
  const { at, distance } = await baked({ ball: { node: 'cart', radius: 0.5 } });
  const s = distance(30);
  const turn = at(30, 'cart').getWorldQuaternion(new THREE.Quaternion());
  const expected = new THREE.Quaternion().setFromAxisAngle(new THREE.Vector3(1, 0, 0), s / 0.5);
  expect(Math.abs(turn.dot(expected))).toBeCloseTo(1, 6);
});

it('parts are the same in blocks, each lent in the place of the one before the last, as in one piece', async () => {
  const { evaluated } = await baked({
    wheels,
    cycles: [{ node: 'flag', kind: 'morph', morph: 1, amplitude: 0.5, rest: 0.5, rate: 1 }],
  });
  const whole = sampleShot(evaluated).parts[0];
  const blocks = Array.from(sampleBlocks(evaluated, 5 * whole.size), ({ frames, parts }) => ({
    frames,
    values: Array.from(parts[0].values),
  }));
  expect(blocks.length).toBeGreaterThan(5);
  expect(blocks.flatMap(({ values }) => values)).toEqual(Array.from(whole.values));
});
