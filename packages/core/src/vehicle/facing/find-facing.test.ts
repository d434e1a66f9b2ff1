import { quat, vec3 } from 'gl-matrix';
import { AXES, type Axis } from '../../document/shot-facing.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axesToTravel } from '../../motion/pose/axes.js';
import { findFacing } from './find-facing.js';
import type { ModelPart } from './round-part.js';

/** A box from its middle and sizes. */
function box(name: string, middle: Vec3, size: Vec3): ModelPart {
  const positions = [-0.5, 0.5].flatMap((x) =>
    [-0.5, 0.5].flatMap((y) => [-0.5, 0.5].flatMap((z) => [x, y, z].map((v, k) => middle[k] + v * size[k]))),
  );
  return { names: [name, 'root'], positions };
}

/** A wheel with a six-sided rim about X. */
function wheel(name: string, middle: Vec3, radius = 0.4, thickness = 0.2): ModelPart {
  const positions = Array.from({ length: 6 }, (_, i) => (i * Math.PI) / 3 + Math.PI / 6).flatMap((a) =>
    [-0.5, 0.5].flatMap((x) => [
      middle[0] + x * thickness,
      middle[1] + radius * Math.sin(a),
      middle[2] + radius * Math.cos(a),
    ]),
  );
  return { names: [name, 'root'], positions };
}

/** Four wheels under a body that is wider than long, so that its longest side would mislead. */
function cart(names: readonly string[], body = 'body'): ModelPart[] {
  const places: Vec3[] = [
    [0.9, 0.4, 1],
    [-0.9, 0.4, 1],
    [0.9, 0.4, -0.8],
    [-0.9, 0.4, -0.8],
  ];
  return [box(body, [0, 1, 0], [3.4, 0.8, 2.6]), ...places.map((place, i) => wheel(names[i], place))];
}

function moved(parts: readonly ModelPart[], move: (place: Vec3) => Vec3): ModelPart[] {
  return parts.map(({ names, positions }) => ({
    names,
    positions: Array.from({ length: positions.length / 3 }, (_, i) =>
      move([positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]]),
    ).flat(),
  }));
}

const named = ['wheel_front_left', 'wheel_front_right', 'wheel_rear_left', 'wheel_rear_right'];
const odd = ['Cylinder.001', 'Cylinder.002', 'Cylinder.003', 'Cylinder.004'];

it('wheels tell left by their axle and down by what they stand on, whatever they are called', () => {
  for (const names of [named, odd])
    expect(findFacing(cart(names))).toMatchObject({
      forward: '+z',
      up: '+y',
      because: expect.stringMatching(/4 wheels on common axles/),
    });
  expect(findFacing(cart(named)).confidence).toBeGreaterThanOrEqual(0.9);
  // Nothing distinguishes front from back, and the result says so.
  const guess = findFacing(cart(odd));
  expect(guess.confidence).toBeLessThan(0.5);
  expect(guess.because).toMatch(/front or back: look/);
});

it('axles and ends are read along the nose', () => {
  const { chassis } = findFacing(cart(named));
  expect(chassis).toEqual({
    frontAxle: 1,
    rearAxle: -0.8,
    frontCoupling: expect.closeTo(1 + 0.4 * Math.sqrt(0.75), 3),
    rearCoupling: -1.3,
  });
});

it('all 24 ways a cart can be turned are found', () => {
  let ways = 0;
  for (const forward of AXES) {
    for (const up of AXES.filter((axis) => axis[1] !== forward[1])) {
      const turn = quat.conjugate([0, 0, 0, 1], axesToTravel(forward, up)) as Quat;
      const turned = moved(cart(named), (place) => vec3.transformQuat([0, 0, 0], place, turn) as Vec3);
      expect(findFacing(turned)).toMatchObject({ forward, up });
      ways++;
    }
  }
  expect(ways).toBe(24);
});

it('uneven scale is met as it looks', () => {
  const flat = moved(cart(named), ([x, y, z]) => [x, y * 0.4, z]);
  expect(findFacing(flat)).toMatchObject({ forward: '+z', up: '+y', chassis: { frontAxle: 1 } });
  const long = moved(cart(odd, 'cab'), ([x, y, z]) => [x, y * 1.02, z * 1.04]);
  expect(findFacing([...long, box('headlights', [0, 0.8, -1.4], [1, 0.1, 0.1])])).toMatchObject({
    forward: '-z',
    up: '+y',
  });
});

it.each<[string, ModelPart[], Axis, RegExp]>([
  ['the longer side', [box('hull', [0, 1, 0], [6, 1, 2])], '+x', /longer/],
  [
    'the longer side, its nose by name',
    [box('hull', [0, 1, 0], [6, 1, 2]), box('nose', [-3.2, 1, 0], [0.4, 0.4, 0.4])],
    '-x',
    /longer/,
  ],
  [
    'its eyes, where no side is longer',
    [
      box('head', [0, 1, 0], [1, 1, 1]),
      box('eye_left', [-0.5, 1.2, 0.2], [0.1, 0.1, 0.1]),
      box('eye_right', [-0.5, 1.2, -0.2], [0.1, 0.1, 0.1]),
    ],
    '-x',
    /./,
  ],
  [
    'its lens',
    [box('case', [0, 1, 0], [1, 1, 1]), box('lens', [0, 1, -0.5], [0.3, 0.3, 0.1])],
    '-z',
    /front/,
  ],
  ['the front that glTF has, where nothing tells', [box('crate', [0, 0.5, 0], [1, 1, 1])], '+z', /glTF/],
])('without wheels it is told by %s', (_, parts, forward, because) => {
  const found = findFacing(parts);
  expect(found).toMatchObject({ forward, up: '+y', because: expect.stringMatching(because) });
});

it('wings that stick out sideways are no length', () => {
  const bird = [
    box('body', [0, 0, 0], [0.2, 0.2, 0.7]),
    box('wing_left', [0.6, 0, 0], [1, 0.05, 0.3]),
    box('wing_right', [-0.6, 0, 0], [1, 0.05, 0.3]),
  ];
  expect(findFacing(bird)).toMatchObject({ forward: '+z' });
  expect(findFacing([...bird, box('tail', [0, 0, 0.5], [0.2, 0.02, 0.3])])).toMatchObject({ forward: '-z' });
});

it('rotors are no wheels, and a bike stands on two', () => {
  const drone = [box('body', [0, 0, 0], [0.3, 0.1, 0.3])];
  for (const [x, z] of [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ]) {
    const rotor = moved([wheel('disc', [0, 0, 0], 0.3, 0.02)], ([a, b, c]) => [b + x, a + 0.1, c + z]);
    drone.push(...rotor);
  }
  expect(findFacing(drone).because).not.toMatch(/wheels/);
  const bike = [
    wheel('a', [0, 0.35, 0.6], 0.35, 0.05),
    wheel('b', [0, 0.35, -0.5], 0.35, 0.05),
    box('saddle', [0, 0.9, -0.2], [0.2, 0.1, 0.3]),
    box('handlebar_front', [0, 1, 0.4], [0.5, 0.05, 0.05]),
  ];
  expect(findFacing(bike)).toMatchObject({
    forward: '+z',
    up: '+y',
    chassis: { frontAxle: 0.6, rearAxle: -0.5 },
  });
});

it('nothing to see still has a front', () => {
  expect(findFacing([])).toMatchObject({ forward: '+z', up: '+y', chassis: null });
});

describe('sense before shape', () => {
  const joint = (name: string, origin: Vec3): ModelPart => ({ names: [name], positions: [], origin });
  /** Feet of a figure whose toes point along −X, so that left is +Z. */
  const feet = (names: readonly [string, string, string, string]) => [
    joint(names[0], [0, 0.1, 0.2]),
    joint(names[1], [-0.2, 0, 0.2]),
    joint(names[2], [0, 0.1, -0.2]),
    joint(names[3], [-0.2, 0, -0.2]),
  ];

  it.each([
    [['LeftFoot', 'LeftToeBase', 'RightFoot', 'RightToeBase']],
    [['mixamorig:LeftFoot', 'mixamorig:LeftToeBase', 'mixamorig:RightFoot', 'mixamorig:RightToeBase']],
    [['foot.L', 'toe.L', 'foot.R', 'toe.R']],
    [['ankle_l', 'ball_l', 'ankle_r', 'ball_r']],
  ] as const)('toes point ahead: %j', (names) => {
    const body = box('skin', [0, 0.9, 0], [0.5, 1.8, 0.6]);
    const found = findFacing([body, ...feet(names as [string, string, string, string])]);
    expect(found).toMatchObject({ forward: '-x', up: '+y' });
    expect(found.confidence).toBeGreaterThan(0.9);
  });

  it('two pairs outvote a head, and say less than toes', () => {
    const hull = box('hull', [0, 1, 0], [1, 1, 1]);
    const pair = (name: string, side: number, ahead: number) => [
      box(`${name}L`, [side, 1, ahead], [0.1, 0.1, 0.1]),
      box(`${name}R`, [-side, 1, ahead], [0.1, 0.1, 0.1]),
    ];
    const head = box('Head', [0, 1.4, -0.5], [0.2, 0.2, 0.2]);
    expect(findFacing([hull, head, ...pair('Ear', 0.4, 0)])).toMatchObject({ forward: '-z' });
    expect(findFacing([hull, head, ...pair('Ear', 0.4, 0), ...pair('Arm', 0.5, 0)])).toMatchObject({
      forward: '+z',
    });
  });

  it.each([
    ['wheel.FL', 'wheel.FR', 'wheel.RL', 'wheel.RR'],
    ['FrontWheelL', 'FrontWheelR', 'RearWheelL', 'RearWheelR'],
    ['wheelfrontleft', 'wheelfrontright', 'wheelrearleft', 'wheelrearright'],
  ])('wheels named for their ends: %s', (...names) => {
    const turned = moved(cart(names), ([x, y, z]) => [-x, y, -z]);
    expect(findFacing(turned)).toMatchObject({ forward: '-z' });
    expect(findFacing(turned).confidence).toBeGreaterThan(0.9);
  });

  it('what is held is before who sits', () => {
    const parts = [
      ...cart(odd),
      box('Seat', [0, 1, 0.2], [0.5, 0.5, 0.5]),
      box('SteeringWheel', [0, 1.2, -0.5], [0.4, 0.4, 0.1]),
    ];
    expect(findFacing(parts)).toMatchObject({ forward: '-z' });
  });

  it('a head rest, a backpack and a forearm say nothing, and an empty is no size', () => {
    const crate = box('crate', [0, 0.5, 0], [1, 1, 1]);
    for (const name of ['head_rest', 'BackPack', 'ForeArm', 'Camera'])
      expect(findFacing([crate, joint(name, [0, 1, -9])]).confidence).toBeLessThan(0.5);
    const long = box('hull', [0, 0.5, 0], [4, 1, 1]);
    expect(findFacing([long, joint('Lamp', [0, 9, 60])])).toMatchObject({ forward: '+x' });
  });
});
