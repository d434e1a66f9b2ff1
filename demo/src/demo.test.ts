import { NO_ASSETS, NO_SHAPES } from '@fleet-rail/core';
import { WebIO, type Node } from '@gltf-transform/core';
import {
  POSE,
  checkShot,
  compiledPathOf,
  evaluateShot,
  isOpen,
  parseShot,
  PathError,
  pictureHalves,
  seamReport,
  type Camera,
  type CompiledPath,
  type Shot,
  type Quat,
  type Vec3,
} from '@fleet-rail/core';
import { vec3 } from 'gl-matrix';
import { readModel, assetsOf, checkSceneOf } from '@fleet-rail/core/formats';
import { validateBytes } from 'gltf-validator';
import { makeBarrel, makeDrone, makeKestrel } from './models/flyers.js';
import { makeHauler, makeTrailer } from './models/hauler.js';
import { makeGate, makeOrchard } from './models/orchard.js';
import { makePicker } from './models/picker.js';
import { barrelsShot } from './barrels-shot.js';
import { documentsOf, orchardShot } from './orchard-shot.js';
import { BRIDGE_HEIGHT, orchardPaths } from './paths.js';

const makers = {
  hauler: makeHauler,
  trailer: makeTrailer,
  kestrel: makeKestrel,
  drone: makeDrone,
  barrel: makeBarrel,
  picker: makePicker,
  gate: makeGate,
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
  expect(nodesOf('gate')).toEqual(expect.arrayContaining(['gate_left', 'gate_right']));
  expect(nodesOf('kestrel')).toEqual(expect.arrayContaining(['wing_left', 'wing_right']));
  expect(nodesOf('orchard')).toEqual(expect.arrayContaining(['footbridge', 'ramp', 'cider_barn', 'chute']));
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
  /** Position of a foot's joint at a sample of a clip, from the clip's own keys and bones. */
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

  it('has a skin and the clips walk, idle and pick', () => {
    const root = makePicker().document.getRoot();
    expect(root.listAnimations().map((clip) => clip.getName())).toEqual(['walk', 'idle', 'pick']);
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

/** A vector turned as a pose is, or with −1 the other way: v + 2 q × (q × v + w v). */
function turned(pose: Float64Array, v: Vec3, sign: 1 | -1): Vec3 {
  const q = [sign * pose[3], sign * pose[4], sign * pose[5]];
  const cross = (a: readonly number[], b: readonly number[]) =>
    [0, 1, 2].map((k) => a[(k + 1) % 3] * b[(k + 2) % 3] - a[(k + 2) % 3] * b[(k + 1) % 3]);
  const inner = cross(q, v).map((c, k) => c + pose[6] * v[k]);
  return cross(q, inner).map((c, k) => v[k] + 2 * c) as Vec3;
}

describe('the shot', () => {
  const lane = compiledPathOf(orchardPaths()[0]) as CompiledPath;
  let shot: Shot;
  beforeAll(async () => {
    shot = await orchardShot();
  });

  it('is accepted as a file, and nothing in it stands out', () => {
    expect(parseShot(JSON.parse(JSON.stringify(shot)))).toEqual(shot);
    expect(checkShot(evaluateShot(shot, NO_ASSETS))).toEqual([]);
    expect(shot.paths.every((path) => !(compiledPathOf(path) instanceof PathError))).toBe(true);
  });

  it('tows two trailers: each hangs at the coupling of what is before it', () => {
    const { poses } = evaluateShot(shot, NO_ASSETS);
    const [hauler, first, second] = [0, 1, 2].map((i) => {
      const pose = new Float64Array(POSE.size);
      poses[i](300, pose, 0);
      const turn = [...pose.subarray(POSE.rotation, POSE.rotation + 4)] as Quat;
      const ahead = (metres: number) =>
        vec3.add([0, 0, 0], vec3.transformQuat([0, 0, 0], [0, 0, metres], turn), [
          ...pose.subarray(0, 3),
        ] as Vec3);
      return { front: ahead(1.75), rear: ahead(i === 0 ? -1.35 : -1.55) };
    });
    for (const [leader, unit] of [
      [hauler, first],
      [first, second],
    ])
      expect(vec3.distance(leader.rear, unit.front)).toBeLessThan(1e-6);
  });

  it('keeps the hauler in the drone’s picture, a little below its middle', () => {
    const evaluated = evaluateShot(shot, NO_ASSETS);
    const [hauler, drone] = [new Float64Array(POSE.size), new Float64Array(POSE.size)];
    const camera = shot.riders[4].camera as Camera;
    for (let frame = 1; frame <= 1080; frame += 7) {
      evaluated.poses[0](frame, hauler, 0);
      evaluated.poses[4](frame, drone, 0);
      const body = turned(hauler, [0, 1.2, 1], 1).map((v, k) => v + hauler[k] - drone[k]) as Vec3;
      const [left, up, ahead] = turned(drone, body, -1);
      const { across, upward } = pictureHalves(camera, camera.focal);
      expect(ahead).toBeGreaterThan(0);
      expect(Math.abs(left / ahead / across)).toBeLessThan(0.35);
      expect(Math.abs(up / ahead / upward + 0.2)).toBeLessThan(0.35);
    }
  });

  it('flies five kestrels that lean into their loop, each a little otherwise', () => {
    const { poses } = evaluateShot(shot, NO_ASSETS);
    const flight = shot.riders.flatMap(({ model }, i) => (model === 'kestrel' ? [i] : []));
    expect(flight).toHaveLength(5);
    const banks = flight.map((i) => {
      const pose = new Float64Array(POSE.size);
      poses[i](200, pose, 0);
      return pose[POSE.bank];
    });
    expect(new Set(banks.map((bank) => bank.toFixed(3))).size).toBe(5);
    for (const bank of banks) expect(Math.abs(bank)).toBeGreaterThan(2);
    expect(new Set(banks.map(Math.sign)).size).toBe(1);
  });

  it('drives the hauler with a stop at the rows and at the barn, and closes its loop', () => {
    const evaluated = evaluateShot(shot, NO_ASSETS);
    const stops = (evaluated.timing(shot.riders[0])?.ownStops ?? []).slice(0, 2);
    expect(stops.map(({ from, to }) => (to - from) / 24)).toEqual([
      expect.closeTo(2, 9),
      expect.closeTo(3, 9),
    ]);
    expect(stops.map(({ distance }) => lane.wrap(distance))).toEqual([
      expect.closeTo(106, 6),
      expect.closeTo(2, 6),
    ]);
    expect(seamReport(evaluated, NO_SHAPES).filter(isOpen)).toEqual([]);
  });

  describe('with its ground and models', () => {
    let evaluated: ReturnType<typeof evaluateShot>;
    let scene: ReturnType<typeof checkSceneOf>;
    beforeAll(async () => {
      const documents = new Map(
        await Promise.all(
          Object.entries({
            orchard: makeOrchard(orchardPaths()[0]),
            hauler: makeHauler(),
            trailer: makeTrailer(),
            picker: makePicker(),
            kestrel: makeKestrel(),
          }).map(async ([id, model]) => [id, (await readModel(await model.glb(), id)).document] as const),
        ),
      );
      evaluated = evaluateShot(shot, await assetsOf(shot, documents));
      scene = checkSceneOf(shot, documents);
    });

    it('drives the hauler over the bridge and later under it, on the lane throughout', () => {
      const pose = new Float64Array(POSE.size);
      const place: Vec3 = [0, 0, 0];
      const crossed = new Set<string>();
      for (let frame = 1; frame <= 1080; frame += 3) {
        for (const rider of [0, 1, 2]) {
          evaluated.poses[rider](frame, pose, 0);
          // A trailer's distance is that of its coupling, 1.75 m ahead of its origin.
          lane.position(pose[POSE.distance] - (rider === 0 ? 0 : 1.75), place);
          // The lane lies two centimetres under its path; a trailer cuts its bends, and so its slopes.
          expect(Math.abs(pose[1] - (place[1] - 0.02))).toBeLessThan(rider === 0 ? 0.02 : 0.06);
          if (Math.hypot(pose[0], pose[2]) < 2) crossed.add(pose[1] > BRIDGE_HEIGHT / 2 ? 'over' : 'under');
        }
      }
      expect([...crossed].sort()).toEqual(['over', 'under']);
      const found = checkShot(evaluated, scene);
      expect(found.filter(({ dismissed }) => dismissed === null)).toEqual([]);
      // Hidden under the bridge, as intended.
      expect(found.map(({ kind, rider }) => [kind, rider])).toEqual([['hidden', 'drone']]);
    });

    it('walks the picker without sliding, and rests it on both feet where it picks', () => {
      const picker = shot.riders.find(({ id }) => id === 'picker') as Shot['riders'][number];
      const { walk, gait } = evaluated.contact(picker);
      const plants = walk?.plants() ?? [];
      expect(plants.length).toBeGreaterThan(50);
      expect(Math.max(...plants.map(({ left }) => left))).toBeLessThan(1e-3);
      const stand = gait?.idleSpans.find(({ from }) => from > 1);
      if (!stand) throw new Error('The picker does not stop.');
      const middle = (stand.from + stand.to) / 2;
      const both = plants.filter(({ from, to }) => from < middle && to > middle);
      expect(both.map(({ foot }) => foot).sort()).toEqual(['foot_left', 'foot_right']);
    });

    it('beats the kestrel’s wings both up at once, and meets every wheel, wing and stride at the seam', () => {
      const kestrel = shot.riders.find(({ id }) => id === 'kestrel') as Shot['riders'][number];
      const parts = evaluated.parts(kestrel);
      const now = new Float64Array(parts.size);
      const lift = (frame: number, name: string) => {
        parts.pose(frame, now, 0);
        const at = parts.nodes.find((node) => node.name === name)?.at ?? NaN;
        return now[at + 5];
      };
      const lifts = Array.from({ length: 24 }, (_, i) => lift(1 + i, 'wing_left'));
      expect(Math.max(...lifts) - Math.min(...lifts)).toBeGreaterThan(0.4);
      for (const frame of [3, 8]) expect(lift(frame, 'wing_right')).toBeCloseTo(-lift(frame, 'wing_left'), 9);
      expect(seamReport(evaluated, NO_SHAPES).filter(isOpen)).toEqual([]);
    });
  });

  it('opens the gate at the barn and shuts it when the hauler is away', () => {
    const evaluated = evaluateShot(shot, NO_ASSETS);
    const gate = shot.riders.find(({ id }) => id === 'gate') as Shot['riders'][number];
    const [left, right] = evaluated.gauges(gate);
    const [rows, barn] = evaluated.timing(shot.riders[0])?.ownStops ?? [];
    for (const leaf of [left, right]) {
      expect(leaf.value((rows.from + rows.to) / 2)).toBe(0);
      expect(leaf.value((barn.from + barn.to) / 2)).toBeCloseTo(95, 0);
    }
  });

  it('sends barrels down two chutes for ever: each ends where the next began, timed or loose', async () => {
    const barrels = barrelsShot();
    expect(parseShot(JSON.parse(JSON.stringify(barrels)))).toEqual(barrels);
    expect([barrels.riders.length, barrels.range.last]).toEqual([8, 24]);
    const evaluated = evaluateShot(barrels, await assetsOf(barrels, await documentsOf(barrels.models)));
    const gaps = seamReport(evaluated, NO_SHAPES);
    expect(gaps.filter(({ handsOver }) => !handsOver).every(({ gap }) => gap < 1e-9)).toBe(true);
    // Loose barrels stay within their chute, which is 0.8 m to either side, and on its boards until their end.
    const pose = new Float64Array(POSE.size);
    barrels.riders.forEach((rider, i) => {
      if (rider.rigidBody === null) return;
      for (let frame = 1; frame <= 24; frame++) {
        evaluated.poses[i](frame, pose, 0);
        expect(Math.abs(pose[0] - 42.9)).toBeLessThan(0.4);
        if (pose[2] > -10) continue;
        // Its middle is its radius from the boards, but for its fourteen corners and a little bounce; their top is at 1.362 m in the middle and falls by 2.4 in 9.
        const boards = 1.362 - ((pose[2] + 14) * 2.4) / 9;
        expect((pose[1] - boards) * Math.cos(Math.atan2(2.4, 9))).toBeGreaterThan(
          0.353 * Math.cos(Math.PI / 14) - 0.02,
        );
        expect((pose[1] - boards) * Math.cos(Math.atan2(2.4, 9))).toBeLessThan(0.353 + 0.1);
      }
    });
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
