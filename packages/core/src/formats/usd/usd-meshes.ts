import type { Mesh, Primitive } from '@gltf-transform/core';
import { numbersOf } from '../gltf-scene.js';
import { quoted, singles, wholes, type UsdText } from './usd-text.js';

/** Triangles, lines or points of a primitive, as single faces. */
export interface Faces {
  readonly kind: 'triangles' | 'lines' | 'points';
  /** Vertices, face by face. */
  readonly indices: Uint32Array;
}

/** A primitive's triangles, lines or points, whatever way the file lists them (glTF 2.0, 3.7.2.1). */
export function facesOf(primitive: Primitive): Faces {
  const count = primitive.getAttribute('POSITION')?.getCount() ?? 0;
  const list = primitive.getIndices()?.getArray() ?? Uint32Array.from({ length: count }, (_, i) => i);
  const n = list.length;
  const out: number[] = [];
  switch (primitive.getMode()) {
    case 0:
      return { kind: 'points', indices: Uint32Array.from(list) };
    case 1:
      return { kind: 'lines', indices: Uint32Array.from(list) };
    case 2:
    case 3:
      for (let i = 0; i + 1 < n; i++) out.push(list[i], list[i + 1]);
      if (primitive.getMode() === 2 && n > 1) out.push(list[n - 1], list[0]);
      return { kind: 'lines', indices: Uint32Array.from(out) };
    case 5:
      for (let i = 0; i + 2 < n; i++)
        out.push(
          ...(i % 2 === 0 ? [list[i], list[i + 1], list[i + 2]] : [list[i + 1], list[i], list[i + 2]]),
        );
      return { kind: 'triangles', indices: Uint32Array.from(out) };
    case 6:
      for (let i = 1; i + 1 < n; i++) out.push(list[0], list[i], list[i + 1]);
      return { kind: 'triangles', indices: Uint32Array.from(out) };
    default:
      return { kind: 'triangles', indices: Uint32Array.from(list.subarray(0, n - (n % 3))) };
  }
}

export const SCHEMAS = { triangles: 'Mesh', lines: 'BasisCurves', points: 'Points' } as const;

/** Attributes of a primitive's prim. */
export function writeGeometry(text: UsdText, primitive: Primitive): void {
  const position = primitive.getAttribute('POSITION');
  if (position === null) return;
  const points = numbersOf(position);
  const { kind, indices } = facesOf(primitive);
  text.attribute('point3f[] points', singles(points, 3));
  text.attribute('float3[] extent', extentOf(points));
  if (kind === 'triangles') {
    text.attribute('int[] faceVertexCounts', wholes(new Uint8Array(indices.length / 3).fill(3)));
    text.attribute('int[] faceVertexIndices', wholes(indices));
    text.attribute('uniform token subdivisionScheme', '"none"');
    text.attribute('uniform bool doubleSided', primitive.getMaterial()?.getDoubleSided() ? '1' : '0');
  }
  if (kind === 'lines') {
    text.attribute('uniform token type', '"linear"');
    text.attribute('int[] curveVertexCounts', wholes(new Uint8Array(indices.length / 2).fill(2)));
  }
  const normal = primitive.getAttribute('NORMAL');
  if (normal && kind === 'triangles')
    text.attribute('normal3f[] normals', singles(numbersOf(normal), 3), ['interpolation = "vertex"']);
  writeCoordinates(text, primitive);
  writeColours(text, primitive);
}

function extentOf(points: ArrayLike<number>): string {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (let i = 0; i < points.length; i++) {
    low[i % 3] = Math.min(low[i % 3], points[i]);
    high[i % 3] = Math.max(high[i % 3], points[i]);
  }
  return points.length === 0 ? '[]' : singles([...low, ...high], 3);
}

/** Places in pictures: measured from their lower edge here, from the upper one in glTF. */
function writeCoordinates(text: UsdText, primitive: Primitive): void {
  for (const [set, name] of [
    ['TEXCOORD_0', 'st'],
    ['TEXCOORD_1', 'st1'],
  ] as const) {
    const given = primitive.getAttribute(set);
    if (given === null) continue;
    const places = Float64Array.from(numbersOf(given));
    for (let i = 1; i < places.length; i += 2) places[i] = 1 - places[i];
    text.attribute(`texCoord2f[] primvars:${name}`, singles(places, 2), ['interpolation = "vertex"']);
  }
}

/** Colours of the vertices, or the material's for who draws without materials. */
function writeColours(text: UsdText, primitive: Primitive): void {
  const given = primitive.getAttribute('COLOR_0');
  const material = primitive.getMaterial();
  if (given) {
    const width = given.getElementSize();
    const values = numbersOf(given);
    const colours = new Float64Array((values.length / width) * 3);
    for (let i = 0; i < colours.length; i++) colours[i] = values[Math.floor(i / 3) * width + (i % 3)];
    text.attribute('color3f[] primvars:displayColor', singles(colours, 3), ['interpolation = "vertex"']);
  } else if (material) {
    text.attribute('color3f[] primvars:displayColor', singles(material.getBaseColorFactor().slice(0, 3), 3));
  }
}

/**
 * Which joints each place follows and how much.
 *
 * @param order by joint of the skin its place among those of the skeleton
 */
export function writeSkinning(text: UsdText, primitive: Primitive, order: readonly number[]): void {
  const [of, parts] = [primitive.getAttribute('JOINTS_0'), primitive.getAttribute('WEIGHTS_0')];
  if (!of || !parts) return;
  const shared = (width: number) => [`elementSize = ${width}`, 'interpolation = "vertex"'];
  text.attribute(
    'int[] primvars:skel:jointIndices',
    wholes(Array.from<number, number>(of.getArray() ?? [], (joint) => order[joint] ?? 0)),
    shared(4),
  );
  text.attribute('float[] primvars:skel:jointWeights', singles(numbersOf(parts), 1), shared(4));
}

/** A mesh's shapes as prims below it, and what it calls them. */
export function writeShapes(text: UsdText, primitive: Primitive, at: string, names: readonly string[]): void {
  if (names.length === 0) return;
  text.attribute('uniform token[] skel:blendShapes', `[${names.map(quoted).join(', ')}]`);
  text.rel('skel:blendShapeTargets', ...names.map((name) => `${at}/${name}`));
  primitive.listTargets().forEach((shape, k) => {
    const [moved, turned] = [shape.getAttribute('POSITION'), shape.getAttribute('NORMAL')];
    text.prim('def', 'BlendShape', names[k], [], () => {
      text.attribute('uniform vector3f[] offsets', moved ? singles(numbersOf(moved), 3) : '[]');
      if (turned) text.attribute('uniform vector3f[] normalOffsets', singles(numbersOf(turned), 3));
    });
  });
}

/** Names for the shapes of a mesh: those of its file, or numbers. */
export function shapeNamesOf(mesh: Mesh, identifierOf: (text: string, index: number) => string): string[] {
  const count = Math.max(0, ...mesh.listPrimitives().map((primitive) => primitive.listTargets().length));
  const given: unknown = mesh.getExtras().targetNames;
  const named: unknown[] = Array.isArray(given) ? given : [];
  return Array.from({ length: count }, (_, k) =>
    identifierOf(typeof named[k] === 'string' ? named[k] : `shape_${k + 1}`, k),
  );
}
