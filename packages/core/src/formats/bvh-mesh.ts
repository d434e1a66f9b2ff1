import type { Buffer, Document, Node } from '@gltf-transform/core';
import type { Vec3 } from '../geometry/math/vec.js';

/** How thick a bone is drawn, as a part of its length. */
const THICK = 0.12;

/** A four-sided bone from a joint to one that hangs on it. */
export function addBone(document: Document, buffer: Buffer, node: Node, to: Vec3): void {
  const length = Math.hypot(...to);
  if (length < 1e-6) return;
  const way = to.map((value) => value / length);
  const other = Math.abs(way[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  const cross = (a: number[], b: number[]) =>
    [0, 1, 2].map((k) => a[(k + 1) % 3] * b[(k + 2) % 3] - a[(k + 2) % 3] * b[(k + 1) % 3]);
  const u = cross(way, other);
  const size = Math.hypot(...u);
  const v = cross(way, u);
  const rim = [u, v, u.map((x) => -x), v.map((x) => -x)].map((side) =>
    side.map((value, k) => to[k] * 0.2 + (value / size) * length * THICK),
  );
  const corners = rim.flatMap((corner, i) => {
    const next = rim[(i + 1) % 4];
    return [[0, 0, 0], corner, next, to, next, corner];
  });
  const position = document
    .createAccessor()
    .setType('VEC3')
    .setArray(Float32Array.from(corners.flat()))
    .setBuffer(buffer);
  const primitive = document.createPrimitive().setAttribute('POSITION', position);
  const mesh = document.createMesh(`${node.getName()} bone`).addPrimitive(primitive);
  node.addChild(document.createNode(`${node.getName()} bone`).setMesh(mesh));
}
