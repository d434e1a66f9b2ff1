import { boxMesh } from '../geometry/solid/box-mesh.js';
import { newShot } from '../document/new-shot.js';
import { parseShot } from '../document/parse-shot.js';
import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import type { NodeHierarchy } from '../character/hierarchy/node-hierarchy.js';
import type { Vec3 } from '../geometry/math/vec.js';
import type { FoundRig } from '../vehicle/wheels/find-rig.js';
import { NO_SCENE, type CheckScene } from './check-scene.js';
import { checkShot } from './check-shot.js';

/** A box of 1 × 2 × 1 m on its origin. */
const box = { low: [-0.5, 0, -0.5] as Vec3, high: [0.5, 2, 0.5] as Vec3 };
const hierarchy: NodeHierarchy = {
  nodes: [
    {
      name: 'box',
      parent: -1,
      translation: [0, 0, 0],
      rotation: [0, 0, 0, 1],
      scale: [1, 1, 1],
      weights: [],
    },
  ],
  clips: [],
  box,
};
const rig: FoundRig = { wheels: [], steering: { node: null, axis: '+z' }, body: null, ball: null };
const scene: CheckScene = {
  ...NO_SCENE,
  models: new Map([['box', { mesh: [{ node: 0, isPictured: false, ...boxMesh(box.low, box.high) }], rig }]]),
};
const assets = { ...NO_ASSETS, hierarchies: new Map([['box', hierarchy]]) };

const path = (id: string, from: Vec3, to: Vec3) => ({
  id,
  name: id,
  basis: 'polyline',
  points: [from, to].map((position) => ({ position })),
});
const along = { unit: 'metres', keys: [0, 20].map((value, i) => ({ frame: 1 + 96 * i, value })) };
const shotOf = (laid: object[], rider: object = {}) =>
  parseShot({
    ...newShot({ name: 't', range: { first: 1, last: 97 } }),
    paths: [path('way', [0, 0, 0], [0, 0, 20]), path('across', [-10, 0, 10], [10, 0, 10])],
    models: [{ id: 'box', name: 'Box', source: { file: 'box.glb' } }],
    riders: [{ id: 'r', name: 'R', model: 'box', attachment: { path: 'way', pace: along }, ...rider }],
    dressing: laid,
  });
const kinds = (shot: ReturnType<typeof shotOf>, by = scene) =>
  checkShot(evaluateShot(shot, assets), by).map(({ kind }) => kind);
const posts = { id: 'posts', name: 'Posts', path: 'across', model: 'box', every: 2 };
const wall = (rise: number) => ({
  id: 'wall',
  name: 'Wall',
  path: 'across',
  kind: 'profile',
  ring: true,
  profile: [
    [0.2, 1],
    [-0.2, 1],
    [-0.2, 0],
    [0.2, 0],
  ],
  offset: { side: 0, rise },
});

it('what goes through pieces or a profile that are laid goes through the set, and what passes over them does not', () => {
  expect(kinds(shotOf([]))).toEqual([]);
  expect(kinds(shotOf([posts]))).toEqual(['through-set']);
  expect(kinds(shotOf([{ ...posts, bend: true }]))).toEqual(['through-set']);
  expect(kinds(shotOf([wall(0)]))).toEqual(['through-set']);
  // It is two metres tall.
  expect(kinds(shotOf([wall(2.1)]))).toEqual([]);
  // Two metres to either side of its way there is room for what is a metre wide.
  expect(kinds(shotOf([{ ...posts, every: 4 }]))).toEqual([]);
});

it('a road that is laid is ground to be under, and no wall', () => {
  const road = {
    ...wall(0.5),
    id: 'road',
    ring: false,
    ground: true,
    profile: [
      [3, 0],
      [-3, 0],
    ],
  };
  expect(kinds(shotOf([road]))).toEqual(['under-ground']);
  expect(kinds(shotOf([{ ...road, offset: { side: 0, rise: 0 } }]))).toEqual([]);
});

it('models and parts that are not there are told of, of what is laid, hangs or sprays as of wheels', () => {
  const missing = { ...scene, missing: new Set(['box']), models: new Map() };
  expect(kinds(shotOf([posts], { model: null }), missing)).toEqual(['missing-model']);
  const hanging = { hangingParts: [{ node: 'lamp' }], emitter: { from: 'part', node: 'pipe' } };
  const told = checkShot(evaluateShot(shotOf([], hanging), assets), scene);
  expect(told.map(({ kind, part }) => [kind, part]).sort()).toEqual([
    ['missing-model', 'lamp'],
    ['missing-model', 'pipe'],
  ]);
});
