import { distance3, type Vec3 } from '../math/vec.js';
import { centreLine, followEdge, meshEdges } from './edge-runs.js';

/** A strip of road of a number of quads, bent to a ring of the given radius at its middle, in triangles. */
function ringRoad(quads: number, radius: number, width: number) {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let i = 0; i < quads; i++) {
    const a = (2 * Math.PI * i) / quads;
    for (const r of [radius - width / 2, radius, radius + width / 2])
      positions.push(r * Math.cos(a), 0, r * Math.sin(a));
    const j = (i + 1) % quads;
    for (const k of [0, 1]) {
      const [p, q, s, t] = [3 * i + k, 3 * i + k + 1, 3 * j + k, 3 * j + k + 1];
      triangles.push(p, q, s, q, t, s);
    }
  }
  return meshEdges(positions, triangles);
}

it('a picked rim is followed all the way round', () => {
  const run = followEdge(ringRoad(24, 10, 4), 0, 3);
  expect(run?.closed).toBe(true);
  expect(run?.places).toHaveLength(24);
  for (const place of run?.places ?? []) expect(Math.hypot(...place)).toBeCloseTo(8, 5);
});

it('a picked inner edge keeps to the middle, and does not take a diagonal', () => {
  const run = followEdge(ringRoad(24, 10, 4), 1, 4);
  expect(run?.closed).toBe(true);
  for (const place of run?.places ?? []) expect(Math.hypot(...place)).toBeCloseTo(10, 5);
});

it('a run ends at a sharp turn, and vertices split for their normals count as one', () => {
  // An L of two quads, each with separate vertices.
  const positions = [0, 0, 0, 1, 0, 0, 1, 0, 4, 0, 0, 4, 0, 0, 4, 1, 0, 4, 1, 0, 5, 0, 0, 5];
  const mesh = meshEdges(positions, [0, 1, 2, 0, 2, 3, 4, 5, 6, 4, 6, 7]);
  const run = followEdge(mesh, 0, 3);
  expect(run?.closed).toBe(false);
  expect(run?.places).toEqual([
    [0, 0, 0],
    [0, 0, 4],
    [0, 0, 5],
  ]);
  expect(followEdge(mesh, 0, 6)).toBeNull();
});

it('the centre line of two rims is midway, whichever way either runs', () => {
  const mesh = ringRoad(24, 10, 4);
  const inner = followEdge(mesh, 0, 3);
  const outer = followEdge(mesh, 5, 2);
  if (!inner || !outer) throw new Error('no run');
  const line = centreLine(inner, outer);
  expect(line.closed).toBe(true);
  // Chords of 24 sides fall short of their circle by at most 1 %.
  for (const place of line.places) expect(Math.abs(Math.hypot(...place) - 10)).toBeLessThan(0.1);
  const straight: Vec3[] = [
    [0, 0, 0],
    [0, 0, 10],
  ];
  const beside: Vec3[] = [
    [4, 2, 10],
    [4, 2, 0],
  ];
  const middle = centreLine({ places: straight, closed: false }, { places: beside, closed: false });
  expect(distance3(middle.places[0], [2, 1, 0])).toBeLessThan(1e-12);
  expect(distance3(middle.places[middle.places.length - 1], [2, 1, 10])).toBeLessThan(1e-12);
});
