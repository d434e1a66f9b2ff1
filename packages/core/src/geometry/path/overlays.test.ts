import { vec3 } from 'gl-matrix';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';
import { curvatureComb } from './comb.js';
import { controlPolygon } from './control-polygon.js';
import { heightProfile } from './height-profile.js';
import { ribbonFrames } from './ribbon-frames.js';
import { shapePath } from '../reshape/shapes.js';
import { ofBasis, pathOf, places } from '../../../test/paths.js';

describe('the curvature comb', () => {
  it('of a circle has teeth of one length, straight outward', () => {
    const { feet, teeth, most } = curvatureComb(
      compilePath(shapePath({ kind: 'circle', radius: 4 }, [0, 0, 0])),
    );
    expect(most).toBeCloseTo(0.25, 2);
    for (let i = 0; i < feet.length; i += 3) {
      const [foot, tooth] = [feet, teeth].map((list) => [...list.subarray(i, i + 3)] as Vec3);
      expect(vec3.length(tooth)).toBeCloseTo(0.25, 2);
      // Outward: the tooth lies in the direction of its foot from the middle.
      expect(vec3.dot(foot, tooth) / (vec3.length(foot) * vec3.length(tooth))).toBeCloseTo(1, 3);
    }
  });

  it('of straight runs has none', () => {
    expect(curvatureComb(compilePath(ofBasis('polyline', false))).most).toBe(0);
  });
});

describe('the control polygon', () => {
  const plain = { transform: { translation: [0, 0, 0] as Vec3 } };

  it('of a spline runs from point to point, round where it is closed', () => {
    expect(controlPolygon(ofBasis('bspline', false, plain)).runs).toHaveLength(places.length - 1);
    const closed = controlPolygon(ofBasis('nurbs', true, plain)).runs;
    expect(closed).toHaveLength(places.length);
    expect(closed[0]).toEqual([places[places.length - 1], places[0]]);
  });

  it('of a Bézier path gives the handles as they act, and none for points switched off', () => {
    const path = pathOf({
      points: [
        { position: [0, 0, 0], handles: 'auto' },
        { position: [0, 0, 4], off: true },
        { position: [0, 0, 6], in: [0, 1, 0], out: [0, -1, 0], handles: 'smooth' },
      ],
    });
    const { handles, runs } = controlPolygon(path);
    expect(handles[1]).toBeNull();
    expect(handles[2]).toEqual([
      [0, 1, 6],
      [0, -1, 6],
    ]);
    // An automatic end of a straight pair points to its neighbour, a third of the way.
    handles[0]?.[1].forEach((value, k) => expect(value).toBeCloseTo([0, 0, 2][k], 12));
    expect(runs).toHaveLength(4);
  });

  it('of straight runs and curves through points is nothing', () => {
    for (const basis of ['polyline', 'through'] as const)
      expect(controlPolygon(ofBasis(basis, true)).runs).toEqual([]);
  });
});

it('a height profile tells the path’s and the ground’s height at even distances', () => {
  const ramp = compilePath(
    pathOf({ basis: 'polyline', points: [{ position: [0, 1, 0] }, { position: [3, 5, 0] }] }),
  );
  const ground = (x: number) => (x < 1 ? null : x / 10);
  expect(heightProfile(ramp, ground, 6).map(({ distance, path }) => [distance, path])).toEqual(
    [0, 1, 2, 3, 4, 5].map((s) => [s, expect.closeTo(1 + 0.8 * s, 9)]),
  );
  expect(heightProfile(ramp, ground, 6).map((place) => place.ground)).toEqual([
    null,
    null,
    expect.closeTo(0.12, 9),
    expect.closeTo(0.18, 9),
    expect.closeTo(0.24, 9),
    expect.closeTo(0.3, 9),
  ]);
});

it('ribbon frames stand at even distances, square to the path, both ends included', () => {
  const helix = compilePath(shapePath({ kind: 'helix', radius: 5, turns: 2, rise: 3 }, [0, 0, 0]));
  const frames = ribbonFrames(helix);
  const count = frames.length / 12;
  const part = (i: number, at: number) => [...frames.subarray(12 * i + at, 12 * i + at + 3)] as Vec3;
  const here: Vec3 = [0, 0, 0];
  for (let i = 0; i < count; i++) {
    helix.position((helix.length * i) / (count - 1), here);
    expect(vec3.distance(part(i, 0), here)).toBeLessThan(1e-9);
    const [left, up, forward] = [3, 6, 9].map((at) => part(i, at));
    expect(vec3.dot(left, forward)).toBeCloseTo(0, 12);
    expect(vec3.distance(vec3.cross([0, 0, 0], forward, left), up)).toBeLessThan(1e-12);
  }
});
