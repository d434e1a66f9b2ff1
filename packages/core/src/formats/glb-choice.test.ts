import { Document, WebIO, type Node } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import * as THREE from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { sampleShot, type SampleChoice } from '../shot/bake/sample-shot.js';
import { newShot, type Loose } from '../document/new-shot.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { assetsOf } from './assets-read.js';
import { writeCsv } from './csv-write.js';
import { writeGlb, type GlbChoice } from './glb-write.js';
import { gltfIo, readModelDocument } from './model-read.js';

const RADIUS = 0.25;

/** A cart of four wheels that the file calls alike, a lamp without a name, another scene, and who made it. */
async function cart(): Promise<Document> {
  const model = new Document();
  const buffer = model.createBuffer();
  const box = [-1, 1].flatMap((x) => [-1, 1].flatMap((y) => [-1, 1].map((z) => [x, y, z])));
  const corners = [...box, box[0]].flat();
  const mesh = (name: string, size: number) =>
    model.createMesh(name).addPrimitive(
      model.createPrimitive().setAttribute(
        'POSITION',
        model
          .createAccessor()
          .setType('VEC3')
          .setArray(Float32Array.from(corners, (value) => value * size))
          .setBuffer(buffer),
      ),
    );
  const scene = model.createScene();
  model.getRoot().setDefaultScene(scene);
  const body = model.createNode('body').setMesh(mesh('body', 0.5));
  scene.addChild(body);
  for (const [x, z] of [
    [0.6, 1],
    [-0.6, 1],
    [0.6, -1],
    [-0.6, -1],
  ])
    body.addChild(model.createNode('wheel').setTranslation([x, RADIUS, z]).setMesh(mesh('tyre', RADIUS)));
  body.addChild(model.createNode().setTranslation([0, 1, 1]));
  model.createScene('spare').addChild(model.createNode('crate').setMesh(mesh('crate', 3)));
  const clip = model.createAnimation('rattle');
  const accessor = (type: 'SCALAR' | 'VEC3', values: number[]) =>
    model.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(buffer);
  const sampler = model
    .createAnimationSampler()
    .setInput(accessor('SCALAR', [0, 1]))
    .setOutput(accessor('VEC3', [0, 0, 0, 0, 1, 0]));
  clip.addSampler(sampler);
  clip.addChannel(
    model.createAnimationChannel().setTargetNode(body).setTargetPath('translation').setSampler(sampler),
  );
  Object.assign(model.getRoot().getAsset(), { copyright: '2026 Millbrook', extras: { revision: 7 } });
  return readModelDocument(await gltfIo().writeBinary(model), 'cart.glb');
}

const WHEELS = ['wheel', 'wheel 2', 'wheel 3', 'wheel 4'];

/** Round a circle of 20 m in 24 frames, so 5.2 m a frame: 3.3 turns of a wheel. */
function shotOf(fields: Partial<Loose<Shot>> = {}, frames = 24): Shot {
  const k = 0.5522847498 * 20;
  const pace = {
    unit: 'laps',
    keys: [
      { frame: 1, value: 0, ease: 'linear' },
      { frame: frames + 1, value: 1 },
    ],
  };
  const wheels = WHEELS.map((node, i) => ({
    node,
    radius: RADIUS,
    centre: [i % 2 === 0 ? 0.6 : -0.6, RADIUS, i < 2 ? 1 : -1],
  }));
  const rider = { model: 'm', attachment: { path: 'p', pace }, wheels };
  return newShot({
    name: 'Round',
    loop: true,
    range: { first: 1, last: frames },
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'bezier',
        closed: true,
        points: [
          { position: [20, 0, 0], in: [0, 0, -k], out: [0, 0, k] },
          { position: [0, 0, 20], in: [k, 0, 0], out: [-k, 0, 0] },
          { position: [-20, 0, 0], in: [0, 0, k], out: [0, 0, -k] },
          { position: [0, 0, -20], in: [-k, 0, 0], out: [k, 0, 0] },
        ],
      },
    ],
    models: [{ id: 'm', name: 'Cart', source: { file: 'cart.glb' } }],
    riders: [
      { id: 'a', name: 'Cart', badge: 'C1', ...rider },
      { id: 'b', name: 'Cart', badge: 'C2', ...rider },
    ],
    ...fields,
  } as unknown as Parameters<typeof newShot>[0]);
}

async function baked(shot: Shot, choice: SampleChoice & GlbChoice = {}) {
  const models = new Map([['m', await cart()]]);
  const evaluated = evaluateShot(shot, await assetsOf(shot, models));
  const bytes = await writeGlb(sampleShot(evaluated, { between: true, ...choice }), models, choice);
  const { issues } = await validateBytes(bytes);
  expect(issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
  return { evaluated, bytes, root: (await new WebIO().readBinary(bytes)).getRoot() };
}

const rideOf = ({ root }: Awaited<ReturnType<typeof baked>>) => {
  const ride = root.listAnimations().find((one) => one.getName() === 'Round');
  if (!ride) throw new Error('no ride');
  return (name: string, path: string, below?: Node) => {
    const channel = ride
      .listChannels()
      .find(
        (one) =>
          one.getTargetPath() === path &&
          one.getTargetNode()?.getName() === name &&
          (!below || below.listChildren().includes(one.getTargetNode() as Node)),
      );
    const sampler = channel?.getSampler();
    return {
      times: [...(sampler?.getInput()?.getArray() ?? [])],
      values: [...(sampler?.getOutput()?.getArray() ?? [])],
    };
  };
};

it('a closing key stands one frame after the last, where the first does', async () => {
  const shot = shotOf();
  const [plain, closing] = [await baked(shot), await baked(shot, { closing: true })];
  for (const path of ['translation', 'rotation']) {
    const width = path === 'rotation' ? 4 : 3;
    expect(rideOf(plain)('Cart', path).times).toHaveLength(24);
    const { times, values } = rideOf(closing)('Cart', path);
    expect(times).toHaveLength(25);
    expect(times[24]).toBeCloseTo(1, 6);
    const [first, last] = [values.slice(0, width), values.slice(-width)];
    // Of two quaternions that are one rotation it is the one nearer to the key before it.
    const sign = width === 4 && first.reduce((sum, value, k) => sum + value * last[k], 0) < 0 ? -1 : 1;
    expect(last.map((value) => sign * value)).toEqual(first);
  }
  expect(plain.root.getAsset().extras).toMatchObject({ closingKey: false, first: 1, last: 24 });
  expect(closing.root.getAsset().extras).toMatchObject({ closingKey: true, first: 1, last: 24, loop: true });
  const rows = writeCsv(closing.evaluated, { closing: true }).trim().split('\n');
  const [first, last] = [
    rows.find((row) => row.startsWith('1,')),
    rows.findLast((row) => row.includes(',a,,')),
  ];
  expect(last?.split(',').slice(0, 2)).toEqual(['25', '1']);
  expect(last?.split(',').slice(4, 7)).toEqual(first?.split(',').slice(4, 7));
});

it('a wheel that turns fast has keys between frames, and another library turns it by its distance', async () => {
  const made = await baked(shotOf(), { closing: true });
  const { scene, animations } = (await new GLTFLoader().parseAsync(made.bytes.slice().buffer, '')) as GLTF;
  const mixer = new THREE.AnimationMixer(scene);
  mixer.clipAction(animations.find(({ name }) => name === 'Round') as THREE.AnimationClip).play();
  const wheel = scene.getObjectByName('wheel') as THREE.Object3D;
  const { times } = rideOf(made)('wheel', 'rotation');
  // 2π ⋅ 20 m a second around; its wheel is 0.6 m from the middle of the cart, on the inner side or the outer.
  const turns = (2 * Math.PI * 20.6) / (2 * Math.PI * RADIUS) / 24;
  expect(times.length - 1).toBeGreaterThanOrEqual(24 * Math.ceil(3 * (turns - 0.2)));
  const x = new THREE.Vector3(1, 0, 0);
  let before: THREE.Quaternion | null = null;
  let turned = 0;
  const steps = 24 * 16;
  for (let i = 0; i <= steps; i++) {
    mixer.setTime(Math.min(i / steps, 1 - 1e-7));
    const now = wheel.quaternion.clone();
    if (before) {
      const step = before.invert().multiply(now);
      const angle = 2 * Math.atan2(new THREE.Vector3(step.x, step.y, step.z).dot(x), step.w);
      turned += Math.atan2(Math.sin(angle), Math.cos(angle));
    }
    before = wheel.quaternion.clone();
  }
  const [inner, outer] = [19.4, 20.6].map((radius) => (2 * Math.PI * radius) / RADIUS);
  expect(Math.min(Math.abs(turned - inner), Math.abs(turned - outer))).toBeLessThan(0.5);
});

it('each rider has a name of its own, its id beside it, and its parts the names of their file', async () => {
  const { root } = await baked(shotOf());
  const scene = root.getDefaultScene();
  expect(scene?.listChildren().map((node) => [node.getName(), node.getExtras()])).toEqual([
    ['Cart', { id: 'a', badge: 'C1' }],
    ['Cart 2', { id: 'b', badge: 'C2' }],
  ]);
  const names: string[] = [];
  scene?.listChildren()[1].traverse((node) => names.push(node.getName()));
  expect(names.filter((name) => name === 'wheel')).toHaveLength(4);
  expect(names).toContain('');
  // Nothing of its other scene is left, and each clip says whose it is.
  expect(root.listScenes()).toHaveLength(1);
  expect(root.listMeshes().map((mesh) => mesh.getName())).not.toContain('crate');
  expect(
    root
      .listAnimations()
      .map((clip) => clip.getName())
      .sort(),
  ).toEqual(['Cart 2 rattle', 'Cart rattle', 'Round']);
  expect(root.getAsset()).toMatchObject({
    copyright: '2026 Millbrook',
    extras: { fps: 24, units: 'metres', models: [{ name: 'Cart', extras: { revision: 7 } }] },
  });
});

it('wheels that a file calls alike all turn', async () => {
  const made = await baked(shotOf({ range: { first: 1, last: 4 } }));
  const ride = made.root.listAnimations().find((one) => one.getName() === 'Round');
  const turned = ride
    ?.listChannels()
    .filter((one) => one.getTargetPath() === 'rotation')
    .map((one) => one.getTargetNode())
    .filter((node) => node?.getMesh()?.getName() === 'tyre');
  expect(new Set(turned).size).toBe(8);
});

it('only some riders, only some frames, no clips', async () => {
  const shot = shotOf();
  const made = await baked(shot, { riders: new Set(['b']), first: 7, last: 12, clips: 'drop' });
  const scene = made.root.getDefaultScene();
  expect(scene?.listChildren().map((node) => node.getExtras().id)).toEqual(['b']);
  expect(made.root.listAnimations()).toHaveLength(1);
  const { times, values } = rideOf(made)('Cart', 'translation');
  expect(times).toHaveLength(6);
  expect(times[0]).toBe(0);
  // Frame 7 is a quarter round.
  expect(values.slice(0, 3)).toEqual([expect.closeTo(0, 2), 0, expect.closeTo(20, 2)]);
  expect(made.root.getAsset().extras).toMatchObject({ first: 7, last: 12 });
});

it('what is thinned is nowhere in the world further off than was asked, down the whole chain', async () => {
  const shot = shotOf({}, 240);
  const within = 0.02;
  const [whole, thin] = [await baked(shot), await baked(shot, { within })];
  expect(thin.bytes.byteLength).toBeLessThan(whole.bytes.byteLength);
  const look = async (bytes: Uint8Array) => {
    const { scene, animations } = (await new GLTFLoader().parseAsync(bytes.slice().buffer, '')) as GLTF;
    const mixer = new THREE.AnimationMixer(scene);
    mixer.clipAction(animations.find(({ name }) => name === 'Round') as THREE.AnimationClip).play();
    return (seconds: number) => {
      mixer.setTime(seconds);
      scene.updateMatrixWorld(true);
      const corners: THREE.Vector3[] = [];
      scene.traverse((object) => {
        const places = (object as THREE.Mesh).geometry?.getAttribute('position');
        for (let i = 0; places && i < places.count; i++)
          corners.push(new THREE.Vector3().fromBufferAttribute(places, i).applyMatrix4(object.matrixWorld));
      });
      return corners;
    };
  };
  const [exact, near] = [await look(whole.bytes), await look(thin.bytes)];
  let worst = 0;
  for (let i = 0; i < 240; i++) {
    // The last key's time is the clip's end, where a looping mixer would begin again.
    const seconds = Math.min(i / 24, 239 / 24 - 1e-7);
    const [a, b] = [exact(seconds), near(seconds)];
    a.forEach((corner, k) => (worst = Math.max(worst, corner.distanceTo(b[k]))));
  }
  expect(worst).toBeLessThan(within);
  expect(worst).toBeGreaterThan(within / 50);
});

it('one that is carried moves though what carries it is not given out', async () => {
  const shot = shotOf();
  const carried = newShot({
    ...shot,
    riders: [shot.riders[0], { id: 'load', name: 'Load', badge: 'L', parent: 'a' }],
  } as unknown as Parameters<typeof newShot>[0]);
  const made = await baked(carried, { riders: new Set(['load']) });
  const { values } = rideOf(made)('Load', 'translation');
  expect(values.slice(0, 3)).toEqual([expect.closeTo(20, 2), 0, expect.closeTo(0, 2)]);
  expect(values.slice(18, 21)).toEqual([expect.closeTo(0, 2), 0, expect.closeTo(20, 2)]);
});
