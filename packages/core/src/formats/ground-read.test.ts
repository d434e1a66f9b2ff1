import { Document, type Node } from '@gltf-transform/core';
import { GroundSurface } from '../geometry/ground/ground-surface.js';
import { groundMeshOf } from './ground-read.js';

/** A slope y = 0.2 z over 20 × 20 m, as triangles, a strip or a fan, under nodes of these scales that its places undo. */
function slope(scales: readonly [number, number, number][], mode: number): Document {
  const document = new Document();
  const buffer = document.createBuffer();
  let above: Node | null = null;
  const whole = [1, 1, 1];
  for (const [i, scale] of scales.entries()) {
    const node = document.createNode(`level ${i}`).setScale(scale);
    if (above) above.addChild(node);
    else document.createScene().addChild(node);
    above = node;
    scale.forEach((value, k) => (whole[k] *= value));
  }
  const corners = [
    [-10, -10],
    [-10, 10],
    [10, -10],
    [10, 10],
  ].map(([x, z]) => [x / whole[0], (0.2 * z) / whole[1], z / whole[2]]);
  const orders: Record<number, number[]> = { 4: [0, 1, 2, 2, 1, 3], 5: [0, 1, 2, 3], 6: [0, 1, 3, 2] };
  const primitive = document
    .createPrimitive()
    .setMode(mode as 4)
    .setAttribute(
      'POSITION',
      document
        .createAccessor()
        .setType('VEC3')
        .setArray(Float32Array.from(orders[mode].flatMap((i) => corners[i])))
        .setBuffer(buffer),
    );
  above?.setMesh(document.createMesh('slope').addPrimitive(primitive));
  return document;
}

it.each([4, 5, 6])(
  'a scale that nobody applied changes nothing, whatever the triangles are listed as (mode %d)',
  (mode) => {
    for (const scales of [
      [[1, 1, 1]],
      [[100, 100, 100]],
      [
        [0.01, 2, 3],
        [5, 1, 0.5],
      ],
    ] as [number, number, number][][]) {
      const mesh = groundMeshOf(slope(scales, mode), []);
      if (mesh === null) throw new Error('no ground');
      const { nearestHeight: height } = new GroundSurface(mesh);
      for (const [x, z] of [
        [3, 4],
        [-7, 2],
        [1, -9],
      ])
        expect(height(x, z, 0)).toBeCloseTo(0.2 * z, 5);
      expect(height(11, 0, 0)).toBeNull();
    }
  },
);

it('some nodes count with what hangs on them; others do not', () => {
  const document = slope(
    [
      [1, 1, 1],
      [1, 1, 1],
    ],
    4,
  );
  expect(groundMeshOf(document, ['level 0'])?.indices).toHaveLength(6);
  expect(groundMeshOf(document, ['level 1'])?.indices).toHaveLength(6);
  expect(groundMeshOf(document, ['elsewhere'])).toBeNull();
});
