import type { Quat, Vec3 } from '../src/geometry/math/vec.js';
import type {
  Clip,
  ClipChannel,
  NodeHierarchy,
  HierarchyNode,
} from '../src/character/hierarchy/node-hierarchy.js';

/** Bones of a made-up walker, metres: it covers 1.2 m a cycle, each foot down for six tenths of it. */
export const STRIDE = 1.2;
export const STANCE = 0.6;
const [THIGH, SHIN, HIP, SECONDS, STEPS] = [0.5, 0.5, 0.92, 1, 200];

/** A walker of hips and two legs that faces +Z; its clips are "walk", in place or with root motion, and "stand". */
export function testWalker(goesAway = false): NodeHierarchy {
  const node = (name: string, parent: number, translation: Vec3): HierarchyNode => ({
    name,
    parent,
    translation,
    rotation: [0, 0, 0, 1],
    scale: [1, 1, 1],
    weights: [],
  });
  const nodes = [node('root', -1, [0, 0, 0]), node('hips', 0, [0, HIP, 0])];
  for (const [name, x] of [
    ['l', 0.1],
    ['r', -0.1],
  ] as const) {
    nodes.push(
      node(`thigh_${name}`, 1, [x, 0, 0]),
      node(`shin_${name}`, nodes.length, [0, -THIGH, 0]),
      node(`foot_${name}`, nodes.length + 1, [0, -SHIN, 0]),
    );
  }
  const walk = (i: number) => legs((phase) => footAt(phase), i / STEPS);
  const stand = () => legs(() => [0, 0], 0);
  const away = (i: number): Vec3 => [0, HIP, goesAway ? (STRIDE * i) / STEPS : 0];
  return { box: null, nodes, clips: [clip('walk', walk, away), clip('stand', stand, () => [0, HIP, 0])] };
}

/** Forward and up of a foot under its hip: straight back at even speed while it is down, then lifted forward. */
function footAt(phase: number): [number, number] {
  const reach = (STRIDE * STANCE) / 2;
  const part = phase - Math.floor(phase);
  if (part < STANCE) return [reach - STRIDE * part, 0];
  const t = (part - STANCE) / (1 - STANCE);
  return [-reach + 2 * reach * t * t * (3 - 2 * t), 0.1 * Math.sin(Math.PI * t)];
}

/** Turns about X of thigh, shin and foot of both legs. */
function legs(foot: (phase: number) => [number, number], phase: number): number[] {
  return [0, 0.5].flatMap((shift) => {
    const [ahead, up] = foot(phase + shift);
    const down = HIP - up;
    const far = Math.hypot(ahead, down);
    const knee = Math.acos((THIGH ** 2 + SHIN ** 2 - far ** 2) / (2 * THIGH * SHIN));
    const hip = Math.acos((THIGH ** 2 + far ** 2 - SHIN ** 2) / (2 * THIGH * far));
    const thigh = -Math.atan2(ahead, down) - hip;
    const shin = Math.PI - knee;
    return [thigh, shin, -thigh - shin];
  });
}

function clip(name: string, turns: (i: number) => number[], hips: (i: number) => Vec3): Clip {
  const times = Array.from({ length: STEPS + 1 }, (_, i) => (i * SECONDS) / STEPS);
  const all = times.map((_, i) => turns(i));
  const bend = (a: number): Quat => [Math.sin(a / 2), 0, 0, Math.cos(a / 2)];
  const channels = [0, 1, 2, 3, 4, 5].map((k): ClipChannel => ({
    node: 2 + k,
    path: 'rotation',
    times,
    values: all.flatMap((one) => bend(one[k])),
    interpolation: 'LINEAR',
  }));
  channels.push({
    node: 1,
    path: 'translation',
    times,
    values: times.flatMap((_, i) => hips(i)),
    interpolation: 'LINEAR',
  });
  return { name, seconds: SECONDS, channels };
}
