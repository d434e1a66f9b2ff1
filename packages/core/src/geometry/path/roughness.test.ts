import { pathOf } from '../../../test/paths.js';
import type { Vec3 } from '../math/vec.js';
import { seededNumbers } from '../math/seeded.js';
import { shapePath, type Shape } from '../reshape/shapes.js';
import { smoothPath } from '../reshape/smooth.js';
import { compilePath } from './compile-path.js';
import { roughnessOf } from './roughness.js';

/** Sixty corners a metre apart along +Z, by turns to the left and the right by so much; `worst` by three times that. */
function zigzag(aside: number, worst = -1, axis: 0 | 1 = 0) {
  const points = Array.from({ length: 60 }, (_, i) => {
    const position: Vec3 = [0, 0, i];
    position[axis] = (i % 2 === 0 ? aside : -aside) * (i === worst ? 3 : 1);
    return { position };
  });
  return pathOf({ basis: 'polyline', points });
}

it.each([0, 1] as const)('a zigzag along axis %i turns at every corner by its closed form', (axis) => {
  const rough = roughnessOf(compilePath(zigzag(0.1, -1, axis)))!;
  // 58 corners, of which the first and the last lie between no two.
  expect(rough.bends).toBe(56);
  expect(rough.angleDeg).toBeCloseTo((2 * Math.atan(0.2) * 180) / Math.PI, 9);
  expect(rough.over).toBeCloseTo(Math.hypot(1, 0.2), 9);
});

it('says where it is roughest', () => {
  const { angleDeg, distance } = roughnessOf(compilePath(zigzag(0.05, 24)))!;
  expect(angleDeg).toBeCloseTo((2 * Math.atan(0.2) * 180) / Math.PI, 9);
  // 23 runs of the zigzag, and one that is longer.
  expect(distance).toBeCloseTo(23 * Math.hypot(1, 0.1) + Math.hypot(1, 0.2), 9);
});

const curved: Shape[] = [
  { kind: 'circle', radius: 5 },
  { kind: 'helix', radius: 3, turns: 2.5, rise: 2 },
  { kind: 'eight', length: 20, width: 8, bridge: 3 },
  { kind: 'roundedRectangle', width: 10, depth: 6, radius: 1 },
];
it.each(curved)('$kind is not rough', (shape) => {
  expect(roughnessOf(compilePath(shapePath(shape, [0, 0, 0])))).toBeNull();
});

it('a slalom with room for its bends is not rough, nor a straight', () => {
  const slalom = Array.from({ length: 33 }, (_, i) => ({
    position: [3 * Math.sin((i * Math.PI) / 4), 0, 4 * i] as Vec3,
  }));
  for (const points of [slalom, [{ position: [0, 0, 0] as Vec3 }, { position: [0, 0, 9] as Vec3 }]])
    expect(roughnessOf(compilePath(pathOf({ basis: 'through', points })))).toBeNull();
});

it('smoothing helps, and again with the same figure helps on', () => {
  const random = seededNumbers(7, 0);
  const points = Array.from({ length: 200 }, (_, i) => ({
    position: [10 * Math.sin(i / 20) + 0.3 * random(), 0, 0.5 * i + 0.3 * random()] as Vec3,
  }));
  for (const strength of [0.3, 0.6]) {
    let path = pathOf({ basis: 'through', points });
    let before = 0;
    for (let times = 0; times < 6; times++) {
      const curve = compilePath(path);
      let most = 0;
      for (let i = 0; i < 4000; i++) most = Math.max(most, curve.bend((curve.length * (i + 0.5)) / 4000));
      const tightest = 1 / most;
      expect(tightest).toBeGreaterThan(before);
      before = tightest;
      path = smoothPath(path, strength);
    }
  }
});
