import { GroundSurface, type HierarchyNode, type NodeHierarchy, type SceneAssets } from '@fleet-rail/core';
import { PARTS } from './random-shot.js';

// Assets of random shots: a car of five parts, a walker of two legs, hills.

const node = (name: string, parent: number, translation: [number, number, number]): HierarchyNode => ({
  name,
  parent,
  translation,
  rotation: [0, 0, 0, 1],
  scale: [1, 1, 1],
  weights: [],
});

const car: NodeHierarchy = {
  box: { low: [-1, 0, -2], high: [1, 1.5, 2] },
  nodes: [
    node('car', -1, [0, 0, 0]),
    ...PARTS.car.map((name, i) => {
      const wheel = i - 1;
      return node(name, 0, i === 0 ? [0, 0.5, 0] : [wheel % 2 ? 0.8 : -0.8, 0.4, wheel < 2 ? 1.2 : -1.2]);
    }),
  ],
  clips: [],
};

function leg(side: 'l' | 'r', x: number, hips: number): HierarchyNode[] {
  return [
    node(`thigh_${side}`, hips, [x, 0, 0]),
    node(`shin_${side}`, hips + (side === 'l' ? 1 : 4), [0, -0.5, 0]),
    node(`foot_${side}`, hips + (side === 'l' ? 2 : 5), [0, -0.5, 0]),
  ];
}

/** A turn about X by an angle, radians. */
const about = (angle: number) => [Math.sin(angle / 2), 0, 0, Math.cos(angle / 2)];

const STEPS = 20;
const times = Float32Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS);
const swing = (shift: number, reach: number, still: boolean) =>
  Float32Array.from(times, (time) => (still ? 0 : reach * Math.sin(2 * Math.PI * (time + shift)))).reduce<
    number[]
  >((all, angle) => [...all, ...about(angle)], []);

const clip = (name: string, still: boolean) => ({
  name,
  seconds: 1,
  channels: [2, 3, 5, 6].map((index, i) => ({
    node: index,
    path: 'rotation' as const,
    times,
    values: Float32Array.from(swing(i < 2 ? 0 : 0.5, i % 2 ? 0.2 : 0.4, still)),
    interpolation: 'LINEAR' as const,
  })),
});

const walker: NodeHierarchy = {
  box: null,
  nodes: [
    node('root', -1, [0, 0, 0]),
    node('hips', 0, [0, 0.95, 0]),
    ...leg('l', 0.1, 1),
    ...leg('r', -0.1, 1),
  ],
  clips: [clip('walk', false), clip('stand', true)],
};

const SIDE = 40;
const hills = (x: number, z: number) => 2 * Math.sin(x * 0.1) * Math.cos(z * 0.13);

/** @param size metres from the middle to the edge */
function field(size: number): GroundSurface {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let i = 0; i <= SIDE; i++)
    for (let k = 0; k <= SIDE; k++) {
      const [x, z] = [((2 * i) / SIDE - 1) * size, ((2 * k) / SIDE - 1) * size];
      positions.push(x, hills(x, z), z);
      if (i === SIDE || k === SIDE) continue;
      const a = i * (SIDE + 1) + k;
      indices.push(a, a + 1, a + SIDE + 1, a + 1, a + SIDE + 2, a + SIDE + 1);
    }
  return new GroundSurface({ positions: Float64Array.from(positions), indices: Uint32Array.from(indices) });
}

const ground = field(200);
const hierarchies = new Map([
  ['car', car],
  ['walker', walker],
]);

export const stage = (withGround: boolean): SceneAssets => ({
  ground: withGround ? ground : null,
  hierarchies,
  physics: null,
});
