import { quat } from 'gl-matrix';
import type { NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import type { Quat } from '../../geometry/math/vec.js';
import { cycleBy } from './cycle-by.js';
import { proposeCycle } from './propose-cycle.js';
import { newQuat } from '../../geometry/math/new-matrix.js';

const axes = { forward: '+z', up: '+y' } as const;
const NAMES = ['body', 'tail', 'wing_tip_mark', 'wing.L', 'wing.R'];
const node = (name: string, parent: number, rotation: Quat) => ({
  name,
  parent,
  translation: [0, 0, 0] as [number, number, number],
  rotation,
  scale: [1, 1, 1] as [number, number, number],
  weights: [],
});
const turned = (axis: [number, number, number], degrees: number): Quat =>
  quat.setAxisAngle(newQuat(), axis, (degrees * Math.PI) / 180) as Quat;
/** A bird whose body is turned in its root, and whose left wing in its body. */
const bird = (body: Quat, wing: Quat): NodeHierarchy => ({
  nodes: [
    node('body', -1, body),
    node('tail', 0, [0, 0, 0, 1]),
    node('wing_tip_mark', 0, [0, 0, 0, 1]),
    node('wing.L', 0, wing),
    node('wing.R', 0, [0, 0, 0, 1]),
  ],
  clips: [],
  box: null,
});
const STILL: Quat = [0, 0, 0, 1];

it('of a bird both wings beat, up and down: about the way it looks, whatever else it has and in whatever order', () => {
  for (const names of [NAMES, [...NAMES].reverse()]) {
    const { node: one, mirror, axis, kind, shape } = proposeCycle(names, null, axes);
    expect([one, mirror].sort()).toEqual(['wing.L', 'wing.R']);
    expect([axis, kind, shape]).toEqual(['+z', 'turn', 'sine']);
  }
  expect(proposeCycle(NAMES, null, { forward: '-x', up: '+z' }).axis).toBe('-x');
});

it('the axis is told as the wing itself has it', () => {
  // A quarter turn about Y takes −X to Z: the bird’s +Z is the wing’s −X.
  expect(proposeCycle(NAMES, bird(STILL, turned([0, 1, 0], 90)), axes).axis).toBe('-x');
  // A quarter about X takes Y to Z.
  expect(proposeCycle(NAMES, bird(turned([1, 0, 0], 90), STILL), axes).axis).toBe('+y');
  // Both: X by way of −Y, and that back again; a wing that hangs a little is still about its own nearest axis.
  expect(proposeCycle(NAMES, bird(turned([1, 0, 0], 90), turned([1, 0, 0], -90)), axes).axis).toBe('+z');
  expect(proposeCycle(NAMES, bird(STILL, turned([0, 0, 1], 20)), axes).axis).toBe('+z');
});

it('rotors and propellers turn on, each about its own; a fish without wings sways its tail; else it is the first part', () => {
  const of = (...names: string[]) => {
    const { node: one, axis, shape, mirror } = proposeCycle(names, null, axes);
    return [one, axis, shape, mirror];
  };
  expect(of('hull', 'rotor')).toEqual(['rotor', '+y', 'steady', null]);
  expect(of('hull', 'Propeller')).toEqual(['Propeller', '+z', 'steady', null]);
  expect(of('head', 'tail')).toEqual(['tail', '+y', 'sine', null]);
  expect(of('lid left', 'lid right')[0]).toBe('lid left');
});

it('by distance or by time it goes as often as before at a speed', () => {
  expect(cycleBy({ by: 'time', rate: 4 }, 'distance', 8)).toEqual({ by: 'distance', rate: 0.5 });
  expect(cycleBy({ by: 'distance', rate: 0.5 }, 'time', 8)).toEqual({ by: 'time', rate: 4 });
  expect(cycleBy({ by: 'time', rate: 4 }, 'time', 8)).toEqual({ by: 'time', rate: 4 });
  // A rider that is stopped has no distance to go by.
  expect(cycleBy({ by: 'time', rate: 4 }, 'distance', 0)).toEqual({ by: 'distance', rate: 4 });
});
