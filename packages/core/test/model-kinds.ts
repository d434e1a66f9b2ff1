// Models of many kinds, of few triangles, whose nose is +Z and whose left is +X: what they face and roll on is known.
import type { Vec3 } from '../src/geometry/math/vec.js';

/** Places, x y z in turn, and the triangles between them. */
export interface Shape {
  readonly places: readonly number[];
  readonly faces: readonly number[];
}

/** A part by what it is: `wheel:FL`, `L:Foot`, or a name that has no side. */
export type Part = readonly [what: string, shape: Shape, at: Vec3];

export interface Kind {
  readonly parts: readonly Part[];
  readonly wheels?: number;
  /** It has no front, or none that anybody could tell. */
  readonly faceless?: boolean;
}

const BOX_FACES = [
  0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 5, 7, 1, 7, 3,
];

/** A box about its middle, its front end so much narrower. */
function box(x: number, y: number, z: number, narrower = 1): Shape {
  const places: number[] = [];
  for (const a of [-0.5, 0.5])
    for (const b of [-0.5, 0.5])
      for (const c of [-0.5, 0.5]) places.push(a * x * (c > 0 ? narrower : 1), b * y, c * z);
  return { places, faces: BOX_FACES };
}

/** A drum about an axis. */
function drum(radius: number, width: number, axis: 0 | 1 | 2, sides = 20): Shape {
  const places: number[] = [];
  const put = (along: number, a: number, b: number) => {
    const place = [0, 0, 0];
    place[axis] = along;
    place[(axis + 1) % 3] = a;
    place[(axis + 2) % 3] = b;
    places.push(...place);
  };
  const faces: number[] = [];
  for (let i = 0; i < sides; i++) {
    const turn = (2 * Math.PI * i) / sides;
    for (const end of [-width / 2, width / 2]) put(end, radius * Math.cos(turn), radius * Math.sin(turn));
    const [here, next] = [2 * i, 2 * ((i + 1) % sides)];
    faces.push(here, next, here + 1, here + 1, next, next + 1);
    faces.push(2 * sides, next, here, 2 * sides + 1, here + 1, next + 1);
  }
  put(-width / 2, 0, 0);
  put(width / 2, 0, 0);
  return { places, faces };
}

/** An upright egg, or a ball if it is no higher than wide. */
function egg(radius: number, higher: number, rings = 16): Shape {
  const places: number[] = [];
  const faces: number[] = [];
  for (let i = 0; i <= rings; i++)
    for (let k = 0; k <= rings; k++) {
      const [a, b] = [(Math.PI * i) / rings, (2 * Math.PI * k) / rings];
      const level = radius * Math.sin(a);
      places.push(level * Math.cos(b), higher * radius * Math.cos(a), level * Math.sin(b));
      const at = i * (rings + 1) + k;
      if (i < rings && k < rings)
        faces.push(at, at + 1, at + rings + 1, at + 1, at + rings + 2, at + rings + 1);
    }
  return { places, faces };
}

const wheels = (
  radius: number,
  width: number,
  x: number,
  ends: readonly (readonly [end: string, z: number])[],
): Part[] =>
  ends.flatMap(([end, z]) => [
    [`wheel:${end}L`, drum(radius, width, 0), [x, radius, z]] as const,
    [`wheel:${end}R`, drum(radius, width, 0), [-x, radius, z]] as const,
  ]);

const sides = (name: string, shape: Shape, [x, y, z]: Vec3): Part[] => [
  [`L:${name}`, shape, [x, y, z]],
  [`R:${name}`, shape, [-x, y, z]],
];

const FOUR_WHEELS = wheels(0.33, 0.22, 0.85, [
  ['F', 1.3],
  ['R', -1.3],
]);

export const KINDS: Readonly<Record<string, Kind>> = {
  car: {
    wheels: 4,
    parts: [
      ['body', box(1.7, 0.6, 4.2), [0, 0.65, 0]],
      ['cabin', box(1.4, 0.55, 2.1), [0, 1.2, -0.5]],
      ...FOUR_WHEELS,
    ],
  },
  van: {
    wheels: 4,
    parts: [
      ['shell', box(1.7, 1.6, 4), [0, 1.4, 0]],
      ['windscreen', box(1.5, 0.5, 0.05), [0, 1.6, 2]],
      ...sides('headlight', box(0.2, 0.2, 0.1), [0.6, 0.8, 2]),
      ...FOUR_WHEELS,
    ],
  },
  truck: {
    wheels: 6,
    parts: [
      ['cab', box(2.2, 2, 1.8), [0, 1.9, 2.6]],
      ['bed', box(2.3, 2.4, 5), [0, 2.2, -1]],
      ['steering wheel', drum(0.22, 0.03, 2), [0.5, 2, 2.8]],
      ['seat', box(0.5, 0.5, 0.5), [0.5, 1.5, 2.2]],
      ...wheels(0.5, 0.3, 1, [
        ['F', 2.6],
        ['M', -1.8],
        ['R', -2.9],
      ]),
    ],
  },
  motorbike: {
    wheels: 2,
    parts: [
      ['frame', box(0.3, 0.5, 1.1), [0, 0.75, 0]],
      ['seat', box(0.3, 0.12, 0.6), [0, 1, -0.35]],
      ['handlebar', box(0.8, 0.06, 0.06), [0, 1.15, 0.45]],
      ['wheel:F', drum(0.32, 0.12, 0), [0, 0.32, 0.7]],
      ['wheel:R', drum(0.32, 0.14, 0), [0, 0.32, -0.65]],
    ],
  },
  figure: {
    parts: [
      ['Hips', box(0.3, 0.2, 0.2), [0, 1, 0]],
      ['Spine', box(0.35, 0.5, 0.22), [0, 1.3, 0]],
      ['Head', box(0.18, 0.24, 0.22), [0, 1.68, 0.02]],
      ...sides('Arm', box(0.5, 0.1, 0.1), [0.45, 1.45, 0]),
      ...sides('Leg', box(0.12, 0.8, 0.14), [0.1, 0.5, 0]),
      ...sides('Foot', box(0.1, 0.08, 0.26), [0.1, 0.04, 0.06]),
      ...sides('Toe', box(0.1, 0.05, 0.08), [0.1, 0.03, 0.2]),
    ],
  },
  dog: {
    parts: [
      ['Body', box(0.3, 0.35, 0.9), [0, 0.6, 0]],
      ['Head', box(0.2, 0.2, 0.3), [0, 0.9, 0.6]],
      ['Tail', box(0.05, 0.05, 0.4), [0, 0.8, -0.6]],
      ...sides('FrontLeg', box(0.09, 0.5, 0.1), [0.11, 0.25, 0.35]),
      ...sides('BackLeg', box(0.09, 0.5, 0.1), [0.11, 0.25, -0.35]),
    ],
  },
  plane: {
    parts: [
      ['fuselage', box(1.2, 1.2, 8, 0.5), [0, 1.5, 0]],
      ...sides('Wing', box(5, 0.12, 1.4), [3, 1.5, 0.4]),
      ['tail fin', box(0.1, 1.5, 1), [0, 2.6, -3.6]],
      ['propeller', box(1.8, 0.15, 0.06), [0, 1.5, 4.1]],
    ],
  },
  glider: {
    parts: [
      ['hull', box(0.7, 0.7, 6), [0, 1, 0]],
      ['wings', box(14, 0.1, 1), [0, 1.3, 0.5]],
      ['rudder', box(0.08, 1.1, 0.7), [0, 1.7, -2.7]],
    ],
  },
  boat: {
    parts: [
      ['hull', box(2, 1, 6, 0.2), [0, 0.5, 0]],
      ['cabin', box(1.4, 1, 1.8), [0, 1.4, -0.8]],
    ],
  },
  pad: {
    parts: [
      ['shell', box(1.6, 0.4, 1), [0, 0.2, 0]],
      ...sides('stick', drum(0.15, 0.2, 1), [0.35, 0.5, -0.1]),
      ...sides('trigger', drum(0.1, 0.3, 0), [0.5, 0.25, 0.5]),
      ['knob', drum(0.07, 0.06, 1), [-0.6, 0.43, 0.2]],
    ],
  },
  crate: { faceless: true, parts: [['crate', box(1, 1, 1), [0, 0.5, 0]]] },
  house: {
    faceless: true,
    parts: [
      ['walls', box(6, 3, 6), [0, 1.5, 0]],
      ['roof', box(6.4, 1, 6.4), [0, 3.5, 0]],
    ],
  },
  table: {
    faceless: true,
    parts: [
      ['top', box(1.6, 0.05, 1.6), [0, 0.75, 0]],
      ...[1, -1].flatMap((x) =>
        [1, -1].map((z): Part => ['leg', drum(0.04, 0.72, 1), [0.7 * x, 0.36, 0.7 * z]]),
      ),
    ],
  },
  lamp: {
    faceless: true,
    parts: [
      ['post', drum(0.06, 3, 1), [0, 1.5, 0]],
      ['shade', egg(0.2, 1), [0, 3.1, 0]],
    ],
  },
  egg: { faceless: true, parts: [['egg', egg(0.5, 1.2), [0, 0.6, 0]]] },
};

const WORDS: Readonly<Record<string, string>> = { F: 'Front', M: 'Middle', R: 'Rear', L: 'Left' };
const sideOf = (letter: string) => (letter === 'L' ? 'Left' : 'Right');

/** Ways in which people and programs name parts, by what they are and the how manieth they are. */
export const NAMINGS: Readonly<Record<string, (what: string, i: number) => string>> = {
  'words run together': (what) =>
    what
      .replace(/^wheel:(\w)(\w?)$/, (_, end: string, side: string) => `${WORDS[end]}Wheel${side}`)
      .replace(/^([LR]):/, (_, side: string) => sideOf(side)),
  'sides after a dot': (what) => what.replace(/^wheel:/, 'wheel.').replace(/^([LR]):(.*)/, '$2.$1'),
  'words with lines between': (what) =>
    what
      .replace(
        /^wheel:(\w)(\w?)$/,
        (_, end: string, side: string) => `wheel_${WORDS[end]}_${side && sideOf(side)}`,
      )
      .replace(/^([LR]):(.*)/, (_, side: string, part: string) => `${part}_${sideOf(side)}`)
      .replace(/_$/, '')
      .toLowerCase(),
  'a rig before a colon': (what) =>
    `rig:${what.replace(/^wheel:/, 'Wheel_').replace(/^([LR]):/, (_, side: string) => sideOf(side))}`,
  numbers: (_, i) => `Object_${i + 3}`,
  none: () => '',
};
