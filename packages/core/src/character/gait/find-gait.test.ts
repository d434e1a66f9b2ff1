import type { Vec3 } from '../../geometry/math/vec.js';
import type { ClipChannel, NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { findGait } from './find-gait.js';

const STEPS = 120;
const STANCE = 0.3;

/** A runner that is in the air between steps: toes rest on the ground while the ankle rolls over them. */
function runner(stride: number): NodeHierarchy {
  const toeAt = (phase: number): Vec3 => {
    const p = phase - Math.floor(phase);
    const from = (stride * STANCE) / 2;
    if (p < STANCE) return [0, 0, from - stride * p];
    const t = (p - STANCE) / (1 - STANCE);
    return [0, 0.3 * Math.sin(Math.PI * t), -from + 2 * from * t * t * (3 - 2 * t)];
  };
  const ankleAt = (phase: number): Vec3 => {
    const p = phase - Math.floor(phase);
    const [x, y, z] = toeAt(phase);
    const rolled = p < STANCE ? p / STANCE : 1 - (p - STANCE) / (1 - STANCE);
    return [x, y + 0.1 + 0.12 * rolled ** 2, z - 0.12 + 0.1 * rolled];
  };
  const node = (name: string, parent: number, translation: Vec3) => ({
    name,
    parent,
    translation,
    rotation: [0, 0, 0, 1] as [number, number, number, number],
    scale: [1, 1, 1] as Vec3,
    weights: [],
  });
  const nodes = [node('Hips', -1, [0, 1, 0])];
  const channels: ClipChannel[] = [];
  for (const [side, shift] of [
    ['Left', 0],
    ['Right', 0.5],
  ] as const) {
    const at = nodes.length;
    nodes.push(node(`${side}Foot`, 0, [0, -0.9, 0]), node(`${side}ToeBase`, at, [0, -0.1, 0.12]));
    const times = Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS);
    const channel = (index: number, place: (phase: number) => Vec3): ClipChannel => ({
      node: index,
      path: 'translation',
      times,
      values: times.flatMap((time) => place(time + shift)),
      interpolation: 'LINEAR',
    });
    channels.push(
      channel(at, (phase) => {
        const [x, y, z] = ankleAt(phase);
        return [x, y - 1, z];
      }),
      channel(at + 1, (phase) => {
        const [toe, ankle] = [toeAt(phase), ankleAt(phase)];
        return [toe[0] - ankle[0], toe[1] - ankle[1], toe[2] - ankle[2]];
      }),
    );
  }
  return { box: null, nodes, clips: [{ name: 'run', seconds: 1, channels }] };
}

it('the stride of a run is that of the toes, within three per cent, though the ankles roll over them', () => {
  for (const stride of [1.2, 2.4]) {
    const model = runner(stride);
    const found = findGait(model, model.clips[0], '+z', '+y');
    expect(found.feet.map(({ node }) => node)).toEqual(['LeftFoot', 'RightFoot']);
    expect(Math.abs(found.stride / stride - 1)).toBeLessThan(0.03);
    const [stance] = found.feet[0].stances;
    expect(stance.to - stance.from).toBeGreaterThan(0.2);
    expect(stance.to - stance.from).toBeLessThan(0.36);
  }
});

it('a clip that does not travel is no gait', () => {
  const model = runner(0.01);
  expect(findGait(model, model.clips[0], '+z', '+y')).toMatchObject({ stride: 0, feet: [] });
});
