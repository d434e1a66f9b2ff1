import type { Wheel } from '../../document/shot-rider.js';
import type { NodeHierarchy } from '../../character/hierarchy/node-hierarchy.js';
import type { PartMesh } from '../../geometry/solid/model-mesh.js';
import { wheelFolds } from './wheel-symmetry.js';

const wheel: Wheel = {
  node: 'wheel',
  centre: [0.8, 0.4, 1],
  radius: 0.4,
  axle: '+x',
  steers: false,
  drives: true,
};
const hierarchy: NodeHierarchy = {
  nodes: [
    {
      name: 'wheel',
      parent: -1,
      translation: [0.8, 0.4, 1],
      rotation: [0, 0, 0, 1],
      scale: [1, 1, 1],
      weights: [],
    },
  ],
  clips: [],
  box: null,
};
/** A drum with a number of sides about X, with marks at some angles. */
function drum(sides: number, marks: number[] = [], isPictured = false): [PartMesh] {
  const positions: number[] = [];
  const ring = (angle: number, radius: number) => {
    for (const x of [-0.1, 0.1]) positions.push(x, radius * Math.cos(angle), radius * Math.sin(angle));
  };
  for (let i = 0; i < sides; i++) ring(0.3 + (2 * Math.PI * i) / sides, 0.4);
  for (const mark of marks) ring(mark, 0.3);
  return [
    { node: 0, positions: Float64Array.from(positions), indices: Uint32Array.from([0, 1, 2]), isPictured },
  ];
}

it.each([
  ['a plain drum of 24 sides', drum(24), Infinity],
  ['a plain drum of 7 sides', drum(7), 7],
  [
    'five spokes',
    drum(
      60,
      [0, 1, 2, 3, 4].map((i) => 0.1 + (2 * Math.PI * i) / 5),
    ),
    5,
  ],
  ['a valve', drum(24, [1.234]), 1],
  ['a picture on it', drum(24, [], true), 1],
] as const)('%s', (_, mesh, folds) => {
  expect(wheelFolds([...mesh], hierarchy, wheel)).toBe(folds);
});

it('of what is not there it looks the same after a whole turn', () => {
  expect(wheelFolds([...drum(24)], hierarchy, { ...wheel, node: 'other' })).toBe(1);
});
