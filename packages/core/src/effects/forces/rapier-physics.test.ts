import type { Vec3 } from '../../geometry/math/vec.js';
import { STATE, type BodySpec, type Physics, type PhysicsWorld, type WorldSpec } from './physics.js';
import { loadPhysics } from './rapier-physics.js';

const G = 9.80665;
const STEP = 1 / 120;
let physics: Physics;
beforeAll(async () => {
  physics = await loadPhysics();
});

const state = (position: Vec3, velocity: Vec3 = [0, 0, 0]) => {
  const out = new Float64Array(STATE.numbers);
  out.set(position);
  out[STATE.rotation + 3] = 1;
  out.set(velocity, STATE.velocity);
  return out;
};
const ball: BodySpec = {
  shape: { kind: 'ball', radius: 0.5 },
  mass: 20,
  friction: 0.9,
  bounce: 0,
  damping: 0,
  spinDamping: 0,
};
const open = (spec: Partial<WorldSpec>) =>
  physics.open({ ground: null, floor: null, bodies: [], led: [], step: STEP, ...spec });
function after(world: PhysicsWorld, seconds: number): Float64Array {
  for (let i = 0; i < Math.round(seconds / STEP); i++) world.step();
  const out = new Float64Array(STATE.numbers);
  world.body(0, out, 0);
  return out;
}
/** A slope down along +Z through the origin, by an angle, radians. */
function slope(angle: number, width = 100) {
  const drop = width * Math.tan(angle);
  return {
    positions: Float64Array.from([
      -width,
      drop,
      -width,
      width,
      drop,
      -width,
      width,
      -drop,
      width,
      -width,
      -drop,
      width,
    ]),
    indices: Uint32Array.from([0, 2, 1, 0, 3, 2]),
  };
}

it('a body falls ½ g t²', () => {
  const fallen = after(open({ bodies: [{ ...ball, state: state([0, 100, 0]) }] }), 2);
  expect(100 - fallen[1]).toBeCloseTo((G * 4) / 2, 2);
  expect(fallen[STATE.velocity + 1]).toBeCloseTo(-2 * G, 1);
});

it('slides with friction for v² / 2μg', () => {
  const spec: BodySpec = { ...ball, shape: { kind: 'box', half: [0.5, 0.1, 0.5] }, friction: 0.4 };
  const speed = 5;
  const end = after(open({ floor: 0, bodies: [{ ...spec, state: state([0, 0.1, 0], [0, 0, speed]) }] }), 3);
  expect(end[STATE.velocity + 2]).toBeCloseTo(0, 3);
  expect(end[2] / (speed ** 2 / (2 * 0.4 * G))).toBeCloseTo(1, 1);
});

it('a ball rolls down a slope without slipping at 5/7 g sin α', () => {
  const angle = (15 * Math.PI) / 180;
  // Its middle is its radius from the slope.
  const start: Vec3 = [0, 0.5 * Math.cos(angle), 0.5 * Math.sin(angle)];
  const seconds = 3;
  const end = after(open({ ground: slope(angle), bodies: [{ ...ball, state: state(start) }] }), seconds);
  const way = Math.hypot(end[1] - start[1], end[2] - start[2]);
  expect(way / ((5 / 14) * G * Math.sin(angle) * seconds ** 2)).toBeCloseTo(1, 2);
  const speed = Math.hypot(end[STATE.velocity + 1], end[STATE.velocity + 2]);
  expect(end[STATE.spin] / (speed / 0.5)).toBeCloseTo(1, 2);
});

it.each([
  [0.4, 0.5, 12],
  [1, 0.3, 8],
  [0.1, 1, 20],
])('a cylinder of %f m by %f m rolls down a slope of %d° at 2/3 g sin α', (radius, half, degrees) => {
  const angle = (degrees * Math.PI) / 180;
  const start: Vec3 = [0, radius * Math.cos(angle), radius * Math.sin(angle)];
  const spec: BodySpec = { ...ball, shape: { kind: 'cylinder', radius, half, axis: [1, 0, 0] } };
  const end = after(open({ ground: slope(angle), bodies: [{ ...spec, state: state(start) }] }), 3);
  const way = Math.hypot(end[1] - start[1], end[2] - start[2]);
  expect(Math.abs(way / ((1 / 3) * G * Math.sin(angle) * 9) - 1)).toBeLessThan(0.02);
  expect(Math.abs(end[0])).toBeLessThan(0.02 * way);
  const speed = Math.hypot(end[STATE.velocity + 1], end[STATE.velocity + 2]);
  expect(Math.abs(end[STATE.spin] / (speed / radius) - 1)).toBeLessThan(0.02);
});

it('energy never grows: balls that bounce about on each other and on a slope', () => {
  const bodies = Array.from({ length: 12 }, (_, i) => ({
    ...ball,
    bounce: 0.8,
    state: state([(i % 3) * 0.9, 2 + i * 1.1, Math.floor(i / 3) * 0.9]),
  }));
  const world = open({ ground: slope(0.2), bodies });
  const now = new Float64Array(STATE.numbers);
  const energy = () =>
    bodies.reduce((sum, { mass }, i) => {
      world.body(i, now, 0);
      const [speed, spin] = [STATE.velocity, STATE.spin].map((at) => Math.hypot(...now.subarray(at, at + 3)));
      return sum + mass * (G * now[1] + speed ** 2 / 2 + (0.4 * 0.25 * spin ** 2) / 2);
    }, 0);
  const begun = energy();
  let least = begun;
  for (let i = 0; i < 1500; i++) {
    world.step();
    const here = energy();
    // A step of a fall is ahead by m g² dt² / 2 of each.
    expect(here).toBeLessThanOrEqual(least + 0.002 * Math.abs(begun));
    least = Math.min(least, here);
  }
  expect(least).toBeLessThan(begun);
});

it('goes on from what was saved as it would have gone on, bit for bit', () => {
  const spec = {
    ground: slope(0.2),
    bodies: Array.from({ length: 10 }, (_, i) => ({
      ...ball,
      bounce: 0.4,
      state: state([i * 0.3, 2 + i, 0]),
    })),
    led: [
      {
        half: [1, 1, 1] as Vec3,
        position: [0, 0, 6] as Vec3,
        rotation: [0, 0, 0, 1] as [number, number, number, number],
      },
    ],
  };
  const states = (world: PhysicsWorld) => {
    const out = new Float64Array(10 * STATE.numbers);
    for (let i = 0; i < 10; i++) world.body(i, out, i * STATE.numbers);
    return out;
  };
  const go = (world: PhysicsWorld, from: number, to: number) => {
    for (let i = from; i < to; i++) {
      world.lead(0, [Math.sin(i / 50), 0, 6 - i / 300], [0, 0, 0, 1]);
      world.push(i % 10, [3, 0, -1], [0, 0.5, 0]);
      world.step();
    }
  };
  const whole = open(spec);
  go(whole, 0, 400);
  const saved = whole.save();
  go(whole, 400, 900);
  const again = open(spec);
  go(again, 0, 7);
  again.load(saved);
  go(again, 400, 900);
  expect(states(again)).toEqual(states(whole));
  // And whenever it is saved, that changes nothing.
  const often = open(spec);
  for (let i = 0; i < 900; i += 100) {
    go(often, i, i + 100);
    often.save();
  }
  expect(states(often)).toEqual(states(whole));
});
