// A small cart and other made-up things, with meshes for the checks.
import type { CheckScene } from '../src/check/check-scene.js';
import type { HierarchyNode, NodeHierarchy } from '../src/character/hierarchy/node-hierarchy.js';
import type { Vec3 } from '../src/geometry/math/vec.js';
import type { PartMesh } from '../src/geometry/solid/model-mesh.js';
import type { TriangleMesh } from '../src/geometry/solid/triangle-mesh.js';
import type { FoundRig } from '../src/vehicle/wheels/find-rig.js';

/** A box of triangles about a middle. */
export function boxMesh([x, y, z]: Vec3, [a, b, c]: Vec3): TriangleMesh {
  const corner = (i: number): number[] => [
    x + (i & 4 ? a : -a) / 2,
    y + (i & 2 ? b : -b) / 2,
    z + (i & 1 ? c : -c) / 2,
  ];
  const sides = [0, 1, 3, 2, 4, 6, 7, 5, 0, 4, 5, 1, 2, 3, 7, 6, 0, 2, 6, 4, 1, 5, 7, 3];
  const indices = [0, 1, 2, 3, 4, 5].flatMap((side) => {
    const [p, q, r, s] = sides.slice(4 * side, 4 * side + 4);
    return [p, q, r, p, r, s];
  });
  return {
    positions: Float32Array.from([0, 1, 2, 3, 4, 5, 6, 7].flatMap(corner)),
    indices: Uint32Array.from(indices),
  };
}

const node = (name: string, parent: number, translation: Vec3): HierarchyNode => ({
  name,
  parent,
  translation,
  rotation: [0, 0, 0, 1],
  scale: [1, 1, 1],
  weights: [],
});

export const RADIUS = 0.4;
const WHEELS: readonly (readonly [string, number, number])[] = [
  ['fl', 0.7, 2],
  ['fr', -0.7, 2],
  ['rl', 0.7, 0],
  ['rr', -0.7, 0],
];

/** A cart of 1.6 × 1 × 3 m over four wheels of 0.4 m, its rear axle at its origin. */
export const CART: NodeHierarchy = {
  nodes: [node('body', -1, [0, 0.9, 1]), ...WHEELS.map(([name, x, z]) => node(name, -1, [x, RADIUS, z]))],
  clips: [],
  box: { low: [-0.8, 0, -0.5], high: [0.8, 1.4, 2.5] },
};
const CART_MESH: PartMesh[] = [
  { node: 0, isPictured: false, ...boxMesh([0, 0, 0], [1.6, 1, 3]) },
  ...WHEELS.map((_, i) => ({
    isPictured: false,
    node: i + 1,
    ...boxMesh([0, 0, 0], [0.1, 2 * RADIUS, 2 * RADIUS]),
  })),
];
const CART_WHEELS = WHEELS.map(([name, x, z]) => ({
  node: name,
  centre: [x, RADIUS, z] as Vec3,
  radius: RADIUS,
  axle: '+x' as const,
  steers: z > 0,
  drives: true,
}));
const CART_RIG: FoundRig = {
  wheels: CART_WHEELS,
  steering: { node: null, axis: '+z' },
  body: null,
  ball: null,
};

export const NO_RIG: FoundRig = { wheels: [], steering: { node: null, axis: '+z' }, body: null, ball: null };

/** A cart as a rider that rolls: the parts of it that are the same in every test. */
export const cart = { kind: 'vehicle' as const, model: 'cart', wheels: CART_WHEELS };
export const CART_AXLES = { frontAxle: 2, rearAxle: 0, frontCoupling: 2.6, rearCoupling: -0.6 };

/** A model of one box. */
export const oneBox = (middle: Vec3, size: Vec3): { hierarchy: NodeHierarchy; mesh: PartMesh[] } => ({
  hierarchy: {
    nodes: [node('box', -1, [0, 0, 0])],
    clips: [],
    box: {
      low: middle.map((value, k) => value - size[k] / 2) as Vec3,
      high: middle.map((value, k) => value + size[k] / 2) as Vec3,
    },
  },
  mesh: [{ node: 0, isPictured: false, ...boxMesh(middle, size) }],
});

const CRATE = oneBox([0, 0.5, 0], [1, 1, 1]);

export const HIERARCHIES: ReadonlyMap<string, NodeHierarchy> = new Map([
  ['cart', CART],
  ['crate', CRATE.hierarchy],
]);

/** The cart, a crate of a metre, and the other things of the scene. */
export const scene = (staticSet: TriangleMesh | null = null): CheckScene => ({
  models: new Map([
    ['cart', { mesh: CART_MESH, rig: CART_RIG }],
    ['crate', { mesh: CRATE.mesh, rig: NO_RIG }],
  ]),
  missing: new Set(),
  staticSet,
});

export const MODELS = ['cart', 'crate'].map((id) => ({ id, name: id, source: { file: `${id}.glb` } }));
