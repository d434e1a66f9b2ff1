import { mat4, vec3 } from 'gl-matrix';
import { GroundSurface } from '../../geometry/ground/ground-surface.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Attachment } from '../../document/shot-attachment.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { POSE } from '../../motion/pose/pose.js';
import { STANCE, STRIDE, testWalker } from '../../../test/walker.js';
import { newMat4 } from '../../geometry/math/new-matrix.js';

/** A sole of 10 by 26 cm, its corners and those of the upper. */
const SOLE = [-0.05, 0.05].flatMap((x) => [0, 0.06].flatMap((y) => [-0.08, 0.18].flatMap((z) => [x, y, z])));
const plain = testWalker();
const walker = {
  ...plain,
  nodes: plain.nodes.map((node) => (node.name.startsWith('foot') ? { ...node, hull: SOLE } : node)),
};
const FEET = ['foot_l', 'foot_r'];

/** A field of triangles, fine enough that it is what the formula says; stairs are steep over a hair. */
function ground(height: (x: number, z: number) => number, xs: number[], zs: number[]): GroundSurface {
  const positions = zs.flatMap((z) => xs.flatMap((x) => [x, height(x, z), z]));
  const indices: number[] = [];
  for (let j = 0; j + 1 < zs.length; j++)
    for (let i = 0; i + 1 < xs.length; i++) {
      const a = j * xs.length + i;
      indices.push(a, a + xs.length, a + 1, a + 1, a + xs.length, a + xs.length + 1);
    }
  return new GroundSurface({
    positions: Float64Array.from(positions),
    indices: Uint32Array.from(indices),
  });
}
const range = (from: number, to: number, step: number) =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step);

const slope = (alongX: number, alongZ: number) => {
  const height = (x: number, z: number) => alongX * x + alongZ * z;
  return { height, surface: ground(height, [-60, 60], [-60, 60]) };
};
const STAIR = 0.45;
const stairs = (rise: number) => {
  const height = (_: number, z: number) => rise * Math.floor(z / STAIR);
  const edges = range(-20, 60, 1).flatMap((i) => [i * STAIR - 1e-7, i * STAIR]);
  return { height, surface: ground(height, [-20, 20], edges) };
};
const bumps = () => {
  const xs = range(-4, 4, 0.05);
  const zs = range(-2, 16, 0.05);
  const height = (x: number, z: number) => 0.04 * Math.sin(3 * x) * Math.sin(2.3 * z) + 0.05 * z;
  const surface = ground(height, xs, zs);
  // The surface between the corners of its triangles is flat; the formula's is not.
  return { height: (x: number, z: number) => surface.height(x, z, height(x, z)) ?? NaN, surface };
};

const pace = (to: number) => ({
  keys: [
    { frame: 1, value: 0, ease: 'smooth' as const },
    { frame: 80, value: to / 2, ease: 'smooth' as const },
    { frame: 110, value: to / 2, ease: 'smooth' as const },
    { frame: 200, value: to },
  ],
});
const straight: Vec3[] = [
  [0, 0, 0.2],
  [0, 0, 12],
];
const winding: Vec3[] = [
  [0, 0, 0.2],
  [1.5, 0, 3],
  [-1, 0, 5.5],
  [0, 0, 9],
];

/** By frame and foot how high its lowest place is over the ground, by the figure's own joints; and what the board says. */
function walked(
  { surface, height }: ReturnType<typeof slope>,
  attachment: Loose<Attachment>,
  points = straight,
  scale = 1,
) {
  const stances = (from: number) => [{ from, to: from + STANCE }];
  const shot = newShot({
    name: 't',
    range: { first: 1, last: 200 },
    paths: [{ id: 'p', name: 'P', basis: 'through', points: points.map((position) => ({ position })) }],
    models: [{ id: 'm', name: 'Walker', source: { file: 'm.glb' } }],
    riders: [
      {
        id: 'r',
        name: 'R',
        model: 'm',
        kind: 'character',
        rest: { scale: [scale, scale, scale] },
        gait: {
          clip: 'walk',
          idle: 'stand',
          stride: STRIDE,
          feet: FEET.map((node, i) => ({ node, stances: stances(i / 2) })),
        },
        attachment: {
          path: 'p',
          pace: pace(8),
          ground: { mode: 'stick', up: 20, down: 20, tilt: false },
          ...attachment,
        },
      },
    ],
  });
  const evaluated = evaluateShot(shot, {
    ground: surface,
    hierarchies: new Map([['m', walker]]),
    physics: null,
  });
  const [rider] = shot.riders;
  const parts = evaluated.parts(rider);
  const values = new Float64Array(parts.size);
  const pose = new Float64Array(POSE.size);
  const board = evaluated.gauges(rider).filter(({ kind }) => kind === 'under');
  const plants = evaluated.contact(rider).walk?.plants() ?? [];
  const looks: { frame: number; clear: number; down: boolean; board: number }[] = [];
  for (let frame = 1; frame <= 200; frame++) {
    parts.pose(frame, values, 0);
    evaluated.poses[0](frame, pose, 0);
    const turn = pose.subarray(3, 7);
    const places: mat4[] = [];
    walker.nodes.forEach(({ name, parent, ...rest }, i) => {
      const moved = parts.nodes.find((part) => part.name === name);
      const own = moved
        ? mat4.fromRotationTranslationScale(
            newMat4(),
            values.subarray(moved.at + 3, moved.at + 7),
            values.subarray(moved.at, moved.at + 3),
            values.subarray(moved.at + 7, moved.at + 10),
          )
        : mat4.fromRotationTranslationScale(newMat4(), rest.rotation, rest.translation, rest.scale);
      const whole = mat4.fromRotationTranslationScale(newMat4(), turn, pose.subarray(0, 3), [
        scale,
        scale,
        scale,
      ]);
      places[i] = mat4.multiply(newMat4(), parent < 0 ? whole : places[parent], own);
    });
    FEET.forEach((foot, k) => {
      const node = walker.nodes.findIndex(({ name }) => name === foot);
      let clear = Infinity;
      for (let i = 0; i < SOLE.length; i += 3) {
        const [x, y, z] = vec3.transformMat4([0, 0, 0], SOLE.slice(i, i + 3) as Vec3, places[node]);
        clear = Math.min(clear, y - height(x, z));
      }
      const down = plants.some((plant) => plant.foot === foot && frame >= plant.from && frame <= plant.to);
      looks.push({ frame, clear: clear * 1e3, down, board: board[k].value(frame) });
    });
  }
  return looks;
}

const UPRIGHT = { ground: { mode: 'stick' as const, up: 20, down: 20, tilt: false } };
const LEANING = { ground: { mode: 'stick' as const, up: 20, down: 20, tilt: true } };

/** A body that leans with each stair swings by tens of degrees, and its legs do not reach: who leans goes on slopes. */
const GROUNDS = [
  ['level ground', () => slope(0, 0)],
  ['uphill by 10 %', () => slope(0, 0.1)],
  ['uphill by 30 %', () => slope(0, 0.3)],
  ['downhill by 30 %', () => slope(0, -0.3)],
  ['across a slope of 30 %', () => slope(0.3, 0)],
  ['aslant of it', () => slope(-0.2, 0.2)],
  ['stairs up', () => stairs(0.17)],
  ['stairs down', () => stairs(-0.17)],
  ['bumps', () => bumps()],
] as const;
const WALKS = [
  ['upright', UPRIGHT, straight, 1],
  ['leaning with it', LEANING, straight, 1],
  ['round bends', UPRIGHT, winding, 1],
  ['half as large', UPRIGHT, straight, 0.5],
] as const;

describe.each(GROUNDS)('on %s', (name, make) => {
  const place = make();
  it.each(WALKS.filter(([how]) => !(name.startsWith('stairs') && how.startsWith('leaning'))))(
    'feet stand on it and do not swing through it: %s',
    (__, attachment, points, scale) => {
      const looks = walked(place, attachment, [...points], scale);
      expect(looks.filter(({ down }) => down).length).toBeGreaterThan(150);
      for (const { frame, clear, down, board } of looks) {
        expect({ frame, ok: clear >= (down ? -1 : -0.01), clear }).toMatchObject({ ok: true });
        if (down) expect({ frame, ok: clear <= 3, clear }).toMatchObject({ ok: true });
        expect(Math.abs(board - Math.max(0, -clear))).toBeLessThan(0.1);
      }
      // It is a walk still: it lifts its feet.
      expect(Math.max(...looks.map(({ clear }) => clear))).toBeGreaterThan(40 * scale);
    },
  );
});
