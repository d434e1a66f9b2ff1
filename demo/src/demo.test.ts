import { WebIO, type Node } from '@gltf-transform/core';
import {
  checkShot,
  compiledPathOf,
  evaluateShot,
  parseShot,
  PathError,
  type CompiledPath,
  type Vec3,
} from '@fleet-rail/core';
import { validateBytes } from 'gltf-validator';
import { makeBarrel, makeDrone, makeKestrel } from './models/flyers.js';
import { makeHauler, makeTrailer } from './models/hauler.js';
import { makeOrchard } from './models/orchard.js';
import { makePicker } from './models/picker.js';
import { orchardShot } from './orchard-shot.js';
import { BRIDGE_HEIGHT, orchardPaths } from './paths.js';

const makers = {
  hauler: makeHauler,
  trailer: makeTrailer,
  kestrel: makeKestrel,
  drone: makeDrone,
  barrel: makeBarrel,
  picker: makePicker,
  orchard: () => makeOrchard(orchardPaths()[0]),
};
const nodesOf = (name: keyof typeof makers) =>
  makers[name]()
    .document.getRoot()
    .listNodes()
    .map((node) => node.getName());

it.each(Object.entries(makers))('%s is a valid model under 300 kB', async (_, make) => {
  const bytes = await make().glb();
  expect(bytes.byteLength).toBeLessThan(300_000);
  const { issues } = await validateBytes(bytes);
  expect(issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
});

it('wheels, wings, rotors and the gate are named', () => {
  const places = ['front_left', 'front_right', 'rear_left', 'rear_right'];
  expect(nodesOf('hauler')).toEqual(expect.arrayContaining(places.map((place) => `wheel_${place}`)));
  expect(nodesOf('trailer')).toEqual(expect.arrayContaining(places.map((place) => `wheel_${place}`)));
  expect(nodesOf('drone')).toEqual(expect.arrayContaining(places.map((place) => `rotor_${place}`)));
  expect(nodesOf('kestrel')).toEqual(expect.arrayContaining(['wing_left', 'wing_right']));
  expect(nodesOf('orchard')).toEqual(
    expect.arrayContaining(['footbridge', 'ramp', 'cider_barn', 'gate_left', 'gate_right', 'chute']),
  );
});

it('wheels stand on the ground, left ones at +x', () => {
  const root = makeHauler().document.getRoot();
  for (const node of root.listNodes().filter((other) => other.getName().startsWith('wheel_'))) {
    const [x, height] = node.getWorldTranslation();
    const low = node
      .getMesh()
      ?.listPrimitives()
      .flatMap((part) => [...(part.getAttribute('POSITION')?.getMin([]) ?? [])].slice(1, 2));
    expect(Math.min(...(low ?? [])) + height).toBeCloseTo(0, 2);
    expect(Math.sign(x)).toBe(node.getName().endsWith('left') ? 1 : -1);
  }
});

describe('the picker', () => {
  /** Where a foot's joint is at a sample of a clip, by turning the bones from the clip's own keys. */
  async function footPath(clipName: string, foot: string): Promise<{ time: number; place: Vec3 }[]> {
    const root = (await new WebIO().readBinary(await makePicker().glb())).getRoot();
    const clip = root.listAnimations().find((other) => other.getName() === clipName);
    const target = root.listNodes().find((node) => node.getName() === foot) as Node;
    const times = clip?.listSamplers()[0].getInput()?.getArray() as Float32Array;
    return [...times].map((time, i) => {
      for (const channel of clip?.listChannels() ?? []) {
        const values = channel.getSampler()?.getOutput();
        const value = values?.getElement(i, []) ?? [];
        if (channel.getTargetPath() === 'rotation') channel.getTargetNode()?.setRotation(value as never);
        else channel.getTargetNode()?.setTranslation(value as never);
      }
      return { time, place: target.getWorldTranslation() as Vec3 };
    });
  }

  it('has a skin and the clips walk and idle', () => {
    const root = makePicker().document.getRoot();
    expect(root.listAnimations().map((clip) => clip.getName())).toEqual(['walk', 'idle']);
    expect(root.listSkins()[0].listJoints()).toHaveLength(13);
  });

  it.each(['foot_left', 'foot_right'])(
    'plants %s at one height and moves it back by 1.4 m a cycle',
    async (foot) => {
      const path = await footPath('walk', foot);
      const planted = path.filter(({ place }) => place[1] < 0.085);
      expect(planted.length).toBeGreaterThan(10);
      const seconds = path.at(-1)?.time as number;
      let steps = 0;
      for (let i = 0; i + 1 < path.length; i++) {
        const [a, b] = [path[i], path[i + 1]];
        if (a.place[1] > 0.081 || b.place[1] > 0.081) continue;
        const backward = (a.place[2] - b.place[2]) / (b.time - a.time);
        expect(backward * seconds).toBeCloseTo(1.4, 2);
        steps++;
      }
      expect(steps).toBeGreaterThan(9);
    },
  );
});

describe('the shot', () => {
  const shot = orchardShot();
  const lane = compiledPathOf(shot.paths[0]) as CompiledPath;

  it('is accepted as a file, and nothing in it stands out', () => {
    expect(parseShot(JSON.parse(JSON.stringify(shot)))).toEqual(shot);
    expect(checkShot(evaluateShot(shot))).toEqual([]);
    expect(shot.paths.every((path) => !(compiledPathOf(path) instanceof PathError))).toBe(true);
  });

  it('sends the lane over and under itself with room for the hauler', () => {
    const crossings: number[] = [];
    const place: Vec3 = [0, 0, 0];
    for (let s = 0; s < lane.length; s += 0.05) {
      lane.position(s, place);
      if (Math.hypot(place[0], place[2]) < 0.1) crossings.push(place[1]);
    }
    expect(Math.min(...crossings)).toBeCloseTo(0, 2);
    expect(Math.max(...crossings)).toBeCloseTo(BRIDGE_HEIGHT, 1);
    expect(BRIDGE_HEIGHT).toBeGreaterThan(2.5);
  });
});
