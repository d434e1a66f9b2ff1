import { NO_SHAPES } from '../../geometry/solid/model-mesh.js';
import { GroundSurface, floorAt } from '../../geometry/ground/ground-surface.js';
import { newShot } from '../../document/new-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Shot } from '../../document/shot.js';
import { quat } from 'gl-matrix';
import { loadPhysics } from '../../effects/forces/rapier-physics.js';
import type { Physics } from '../../effects/forces/physics.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import { relay } from '../loop/relay.js';
import { isOpen, seamReport } from '../loop/seam-report.js';
import type { Quat } from '../../geometry/math/vec.js';
import { POSE } from '../../motion/pose/pose.js';
import { keysOfRide } from '../bake/hand-keys.js';
import { withOwnPath } from '../bake/own-path.js';
import { evaluateShot } from './evaluate-shot.js';
import { NO_ASSETS, type SceneAssets } from './scene-assets.js';

const G = 9.80665;
let assets: SceneAssets;
let physics: Physics;
beforeAll(async () => {
  physics = await loadPhysics();
  assets = { ...NO_ASSETS, physics };
});

const path = (id: string, points: number[][], closed = false) => ({
  id,
  name: id,
  basis: closed ? 'through' : 'polyline',
  closed,
  points: points.map((position) => ({ position })),
});
const lane = path('lane', [
  [0, 0, 0],
  [0, 0, 40],
]);
const keys = (...list: [number, number][]) => ({
  unit: 'metres',
  keys: list.map(([frame, value]) => ({ frame, value })),
});
const shotOf = (rider: object, fields: object = {}): Shot =>
  parseShot({
    ...newShot({ name: 't' }),
    fps: 24,
    range: { first: 1, last: 97 },
    paths: [lane],
    riders: [{ id: 'b', name: 'Ball', ...rider }],
    ...fields,
  });
const poseOf = (shot: Shot, frame: number, i = 0, by = assets) => {
  const out = new Float64Array(POSE.size);
  evaluateShot(shot, by).poses[i](frame, out, 0);
  return [...out];
};
const rolls = { path: 'lane', pace: keys([1, 0], [97, 8]) };

it('without a pull it falls as it would: ½ g t²', () => {
  const shot = shotOf({ rest: { translation: [3, 60, -2] }, rigidBody: { pull: 0, size: 0.5 } });
  const [x, y, z] = poseOf(shot, 49);
  expect(x).toBeCloseTo(3, 4);
  expect(z).toBeCloseTo(-2, 4);
  // Two seconds.
  expect(60 - y).toBeCloseTo((G * 4) / 2, 2);
  expect(Math.abs(poseOf(shot, 49)[POSE.speed])).toBeCloseTo(2 * G, 1);
});

it('comes to rest on the floor of the shot, wherever that is, also where it begins beneath the grid', () => {
  const shot = shotOf({ rest: { translation: [3, -6, -2] }, rigidBody: { pull: 0, size: 0.5, bounce: 0 } });
  const ground = new GroundSurface(floorAt(-8));
  // Its middle is a radius above its origin.
  expect(poseOf(shot, 90, 0, { ...assets, ground })[1]).toBeCloseTo(-8, 2);
  // Without any it falls on.
  expect(poseOf(shot, 90)[1]).toBeLessThan(-50);
});

it('is thrown at the speed its ride sets off with, where its keys begin at the first frame', () => {
  for (const [ease, speed] of [
    ['linear', 4],
    // 8 m in two seconds by a cubic that sets off at 1.5 times its mean.
    ['handles', 6],
  ] as const) {
    const pace = {
      keys: [
        { frame: 1, value: 0, ease, out: [16, 4] },
        { frame: 49, value: 8, in: [-16, 0] },
      ],
    };
    const shot = shotOf({
      attachment: { path: 'lane', pace, offset: { rise: 50 } },
      rigidBody: { pull: 0, size: 0.5 },
    });
    // Two seconds of flight.
    expect(poseOf(shot, 49)[2]).toBeCloseTo(2 * speed, 2);
    expect(poseOf(shot, 1)[POSE.speed]).toBeCloseTo(speed, 2);
  }
});

it('a stiff pull holds its place in the plan; turning is left to the ground, on which it rolls without slipping', () => {
  const shot = shotOf({ attachment: rolls, rigidBody: { pull: 1, size: 0.5 } });
  const steps = Array.from({ length: 97 }, (_, i) => poseOf(shot, 1 + i));
  for (const [i, pose] of steps.entries()) {
    // 2 m/s; its origin goes round its middle, half a metre up.
    const [x, y, z] = [0, 1, 2].map((k) => pose[k]);
    const [qx, qy, qz, qw] = pose.slice(3, 7);
    const up = [2 * (qx * qy - qz * qw), 1 - 2 * (qx * qx + qz * qz), 2 * (qy * qz + qx * qw)];
    expect(x + up[0] / 2).toBeCloseTo(0, 2);
    expect(y + up[1] / 2).toBeCloseTo(0.5, 1);
    expect(Math.abs(z + up[2] / 2 - i / 12)).toBeLessThan(0.05);
  }
  // Over the last second it goes 2 m: by that over its radius it has turned, about X.
  const angle = (pose: number[]) => 2 * Math.atan2(pose[3], pose[6]);
  const turned = (((angle(steps[96]) - angle(steps[72])) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  expect(turned).toBeCloseTo(4, 1);
});

it('a weaker pull lags further behind', () => {
  const lag = (pull: number) => {
    const evaluated = evaluateShot(shotOf({ attachment: rolls, rigidBody: { pull, size: 0.5 } }), assets);
    const gauge = evaluated.gauges(evaluated.shot.riders[0]).find(({ kind }) => kind === 'lag');
    return gauge?.value(97) ?? NaN;
  };
  const lags = [1, 0.5, 0.2].map(lag);
  expect(lags[0]).toBeLessThan(0.05);
  expect(lags[1]).toBeGreaterThan(lags[0] + 0.05);
  expect(lags[2]).toBeGreaterThan(lags[1] + 0.1);
});

it('any frame is the same whichever was asked for first, between frames too', () => {
  const shot = (size: number) =>
    shotOf(
      { attachment: rolls, rigidBody: { pull: 0.6, size } },
      {
        riders: [0, 1, 2].map((i) => ({
          id: `b${i}`,
          name: `Ball ${i}`,
          rest: { translation: [0, 2 + i, 5] },
          rigidBody: { pull: 0, size, bounce: 0.5 },
        })),
      },
    );
  const frames = [97, 3, 50.25, 50, 12.5];
  const one = evaluateShot(shot(0.5), assets);
  const all = (evaluated: typeof one, list: readonly number[]) =>
    list.map((frame) => {
      const out = new Float64Array(3 * POSE.size);
      evaluated.poses.forEach((pose, i) => pose(frame, out, i * POSE.size));
      return [...out];
    });
  const asked = all(one, frames);
  // Another shot in between, and the other way round.
  all(evaluateShot(shot(0.4), assets), frames);
  const again = all(evaluateShot(shot(0.5), assets), [...frames].reverse()).reverse();
  expect(again).toEqual(asked);
});

it('an edit of something later leaves all before it as it was, to the bit', () => {
  const at = (value: number) =>
    shotOf({
      attachment: { path: 'lane', pace: keys([1, 0], [61, 5], [97, value]) },
      rigidBody: { size: 0.3 },
    });
  const before = [10, 40, 59].map((frame) => poseOf(at(8), frame));
  const late = poseOf(at(8), 90);
  expect([10, 40, 59].map((frame) => poseOf(at(20), frame))).toEqual(before);
  expect(poseOf(at(20), 90)).not.toEqual(late);
  expect(poseOf(at(8), 90)).toEqual(late);
});

it('a relay closes exactly: each is where the next one was', () => {
  const slope = path('lane', [
    [0, 6, 0],
    [0, 0, 12],
  ]);
  const ridden = shotOf(
    { attachment: { path: 'lane', pace: keys([1, 0], [97, 12]) }, rigidBody: { pull: 0.4, size: 0.4 } },
    { paths: [slope], loop: true },
  );
  const { shot } = relay(ridden, 'b', 4, null);
  const { last } = shot.range;
  expect(last).toBe(24);
  for (let i = 0; i < 3; i++)
    expect(poseOf(shot, last + 1, i).slice(0, 7)).toEqual(poseOf(shot, 1, i + 1).slice(0, 7));
});

it('a single one in a loop leaves a gap, and with a blend none', () => {
  const ring = path(
    'lane',
    [
      [4, 0, 0],
      [0, 0, 4],
      [-4, 0, 0],
      [0, 0, -4],
    ],
    true,
  );
  const looped = (blend: number) =>
    shotOf(
      {
        attachment: {
          path: 'lane',
          pace: {
            unit: 'laps',
            keys: [
              { frame: 1, value: 0 },
              { frame: 98, value: 1 },
            ],
            after: 'run',
          },
        },
        rigidBody: { pull: 0.3, size: 0.3, blend },
      },
      { paths: [ring], loop: true },
    );
  const gap = (shot: Shot) => {
    const [a, b] = [poseOf(shot, 98), poseOf(shot, 1)];
    return Math.hypot(...[0, 1, 2].map((k) => a[k] - b[k]));
  };
  expect(gap(looped(0))).toBeGreaterThan(0.05);
  expect(gap(looped(24))).toBeLessThan(1e-9);
});

it('what is led by its ride pushes what is in its way', () => {
  const box = { low: [-1, 0, -1] as [number, number, number], high: [1, 2, 1] as [number, number, number] };
  const hierarchy: NodeHierarchy = { nodes: [], clips: [], box };
  const shot = shotOf(
    {},
    {
      models: [{ id: 'cart', name: 'Cart', source: { file: 'cart.glb' } }],
      riders: [
        {
          id: 'b',
          name: 'Ball',
          rest: { translation: [0, 0, 5] },
          rigidBody: { pull: 0, size: 0.5, friction: 0.2 },
        },
        { id: 'c', name: 'Cart', model: 'cart', attachment: rolls },
      ],
    },
  );
  const by = { ...assets, hierarchies: new Map([['cart', hierarchy]]) };
  // The cart's front has reached 9 m.
  expect(poseOf(shot, 97, 0, by)[2]).toBeGreaterThan(9);
});

it('without rigid bodies at hand it is where its ride has it', () => {
  const shot = shotOf({ attachment: rolls, rigidBody: { pull: 0.1 } });
  expect(poseOf(shot, 49, 0, NO_ASSETS).slice(0, 3)).toEqual([0, 0, expect.closeTo(4, 12)]);
});

describe('a part that hangs', () => {
  const hierarchy: NodeHierarchy = {
    nodes: [
      {
        name: 'post',
        parent: -1,
        translation: [0, 3, 0],
        rotation: [0, 0, 0, 1],
        scale: [1, 1, 1],
        weights: [],
      },
      {
        name: 'lamp',
        parent: 0,
        translation: [0, 0, 1],
        rotation: [0, 0, 0, 1],
        scale: [1, 1, 1],
        weights: [],
      },
    ],
    clips: [],
    box: null,
  };
  const swinging = (pace: object, hanging: object) => {
    const shot = shotOf(
      {
        model: 'lamp',
        attachment: { path: 'lane', pace },
        hangingParts: [{ node: 'lamp', middle: [0, -1, 0], ...hanging }],
      },
      { models: [{ id: 'lamp', name: 'Lamp', source: { file: 'lamp.glb' } }] },
    );
    const evaluated = evaluateShot(shot, { ...assets, hierarchies: new Map([['lamp', hierarchy]]) });
    const parts = evaluated.parts(evaluated.shot.riders[0]);
    const values = new Float64Array(parts.size);
    /** Degrees that it swings back, about X. */
    return (frame: number) => {
      parts.pose(frame, values, 0);
      const at = parts.nodes.find(({ name }) => name === 'lamp')?.at ?? NaN;
      return (2 * Math.atan2(values[at + 3], values[at + 6]) * 180) / Math.PI;
    };
  };
  const ahead = (a: number) => {
    // s = ½ a t² as a key a frame.
    const list = Array.from({ length: 97 }, (_, i): [number, number] => [1 + i, (a * (i / 24) ** 2) / 2]);
    return keys(...list);
  };

  it('hangs back by atan(a / g) where its rider goes ever faster, and swings to both sides of that', () => {
    const angle = swinging(ahead(2), { damping: 3 });
    expect(angle(97)).toBeCloseTo((Math.atan2(2, G) * 180) / Math.PI, 0);
    const free = swinging(ahead(2), { damping: 0 });
    const most = Math.max(...Array.from({ length: 97 }, (_, i) => free(1 + i)));
    // Without damping it swings as far again beyond it.
    expect(most).toBeCloseTo((2 * Math.atan2(2, G) * 180) / Math.PI, 0);
  });

  it('about a hinge only, and less with stiffness', () => {
    const across = swinging(ahead(2), { damping: 3, joint: 'hinge', axis: '+z' });
    expect(across(97)).toBeCloseTo(0, 3);
    const stiff = swinging(ahead(2), { damping: 3, joint: 'hinge', axis: '+x', mass: 5, stiffness: 5 * G });
    // m a L against m g L + k: half of it, as angles are small.
    expect(stiff(97)).toBeCloseTo((Math.atan2(2, 2 * G) * 180) / Math.PI, 0);
  });
});

describe('a part that hangs, in a loop', () => {
  const hierarchy: NodeHierarchy = {
    nodes: [
      {
        name: 'lamp',
        parent: -1,
        translation: [0.3, 1, 0],
        rotation: [0, 0, 0, 1],
        scale: [1, 1, 1],
        weights: [],
      },
    ],
    clips: [],
    box: null,
  };
  const ring = path(
    'ring',
    [
      [4, 8, 0],
      [0, 8, 3],
      [-4, 8, 0],
      [0, 8, -3],
    ],
    true,
  );
  const round = (hanging: object) => {
    const pace = {
      unit: 'laps',
      after: 'accumulate',
      before: 'accumulate',
      keys: [
        { frame: 1, value: 0, ease: 'smooth' },
        { frame: 140, value: 0.6, ease: 'smooth' },
        { frame: 241, value: 1 },
      ],
    };
    const shot = shotOf(
      {
        model: 'lamp',
        attachment: { path: 'ring', pace },
        hangingParts: [{ node: 'lamp', middle: [0, -0.8, 0.1], ...hanging }],
      },
      {
        loop: true,
        range: { first: 1, last: 240 },
        paths: [ring],
        models: [{ id: 'lamp', name: 'Lamp', source: { file: 'lamp.glb' } }],
      },
    );
    const evaluated = evaluateShot(shot, { ...NO_ASSETS, hierarchies: new Map([['lamp', hierarchy]]) });
    const parts = evaluated.parts(shot.riders[0]);
    const turnAt = (frame: number): Quat => {
      const values = new Float64Array(parts.size);
      parts.pose(frame, values, 0);
      const { at } = parts.nodes[0];
      return [values[at + 3], values[at + 4], values[at + 5], values[at + 6]];
    };
    return { evaluated, turnAt };
  };
  const apart = (a: Quat, b: Quat) => (2 * Math.acos(Math.min(1, Math.abs(quat.dot(a, b)))) * 180) / Math.PI;

  it.each(['ball', 'hinge'])('on a %s closes, its twist as well', (joint) => {
    for (const damping of [0.2, 1, 30]) {
      const { turnAt, evaluated } = round({ joint, damping });
      expect(apart(turnAt(241), turnAt(1))).toBeLessThan(0.1);
      let most = 0;
      for (let frame = 1; frame <= 241; frame++) most = Math.max(most, apart(turnAt(frame), turnAt(1)));
      expect(most).toBeGreaterThan(damping > 10 ? 0.5 : 5);
      expect(
        seamReport(evaluated, NO_SHAPES)
          .filter(isOpen)
          .map(({ channel }) => channel),
      ).not.toContain('swing');
    }
  });

  it('that nothing damps is told by how much it misses', () => {
    const { turnAt, evaluated } = round({ damping: 0 });
    const told = seamReport(evaluated, NO_SHAPES).find(({ channel }) => channel === 'swing');
    expect(told).toMatchObject({ part: 'lamp', gap: expect.closeTo(apart(turnAt(241), turnAt(1)), 3) });
    expect(told && isOpen(told)).toBe(true);
  });
});

it('what forces did is in a path or keys made of it, and not done once more', () => {
  const shot = shotOf({ attachment: rolls, rigidBody: { pull: 0.4, size: 0.5 } });
  const before = poseOf(shot, 90);
  const keyed = keysOfRide(shot, assets, 'b', 0.01);
  expect(keyed.riders[0].rigidBody).toBeNull();
  const own = withOwnPath(shot, assets, 'b', 0.01).shot;
  expect(own.riders[0].rigidBody).toBeNull();
  for (const after of [poseOf(keyed, 90), poseOf(own, 90)])
    expect(Math.hypot(...[0, 1, 2].map((k) => after[k] - before[k]))).toBeLessThan(0.02);
});

it('a copy that is told something of its own, or waits otherwise than its leader, is a body of its own', () => {
  const copy = (fields: object) => ({
    id: 'c',
    name: 'Copy',
    attachment: { ...rolls, pacedBy: { rider: 'b', delay: -12, rate: 1 } },
    rigidBody: { pull: 0.3, size: 0.5 },
    ...fields,
  });
  const riders = (fields: object) => ({
    riders: [{ id: 'b', name: 'Ball', attachment: rolls, rigidBody: { pull: 0.3, size: 0.5 } }, copy(fields)],
  });
  const shared = shotOf({}, riders({}));
  expect(poseOf(shared, 20, 1).slice(0, 7)).toEqual(poseOf(shared, 32, 0).slice(0, 7));
  const other = shotOf({}, riders({ rigidBody: { pull: 0.3, size: 0.4 } }));
  expect(poseOf(other, 20, 1).slice(0, 7)).not.toEqual(poseOf(other, 32, 0).slice(0, 7));
  // Its leader waits for a third, dynamic rider, so it follows its ride; the copy is simulated all the same.
  const third = { id: 't', name: 'Third', rest: { translation: [30, 0, 0] }, rigidBody: { pull: 0 } };
  const waits = shotOf({}, { riders: [third, { ...riders({}).riders[0], parent: 't' }, copy({})] });
  expect(poseOf(waits, 20, 2).every(Number.isFinite)).toBe(true);
});
