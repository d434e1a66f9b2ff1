import { Document, WebIO } from '@gltf-transform/core';
import type { ShotPath } from '../document/shot-path.js';
import { distance3, type Vec3 } from '../geometry/math/vec.js';
import { compilePath } from '../geometry/path/compile-path.js';
import type { CompiledPath } from '../geometry/path/compiled-path.js';
import { activePoints } from '../geometry/path/active-points.js';
import type { PathKind } from './format-facts.js';
import { handleEnd } from '../geometry/path/basis-bezier.js';
import { changeBasis } from '../geometry/reshape/change-basis.js';

/** A path as a file. */
export interface WrittenPath {
  readonly bytes: Uint8Array;
  readonly points: number;
}

/** Attribute with the heights of an SVG path's points, in the order of its data. */
export const HEIGHTS = 'data-heights';

/**
 * A path in the world, as a file that imports as the same curve: SVG as cubics, exact where cubics can be; OBJ, CSV
 * and glTF as points of straight runs.
 *
 * @param within how far the curve of the file may be from the path, metres; above 0
 * @throws PathError where the path has no curve
 */
export async function writePath(path: ShotPath, kind: PathKind, within: number): Promise<WrittenPath> {
  const text = new TextEncoder();
  if (kind === 'svg') {
    const { svg, points } = svgOf(path, within);
    return { bytes: text.encode(svg), points };
  }
  const curve = compilePath(path);
  const places = placesWithin(curve, within);
  if (kind === 'obj') return { bytes: text.encode(objOf(path, places, curve.closed)), points: places.length };
  if (kind === 'csv') {
    // A closed path repeats its first point, which distinguishes it from an open one.
    const rows = [...places, ...(curve.closed ? [places[0]] : [])].map((place) => place.join(','));
    return { bytes: text.encode(['x,y,z', ...rows, ''].join('\n')), points: places.length };
  }
  return { bytes: await glbOf(path, places, curve.closed), points: places.length };
}

/**
 * Places along a curve, such that straight runs between them come within a distance of it. All of a stretch of length l whose ends are c
 * apart lies in the ellipse about them, so no further off than √(l² − c²) / 2: stretches are halved until that is within.
 */
function placesWithin(curve: CompiledPath, within: number): Vec3[] {
  const at = (s: number): Vec3 => {
    const out: Vec3 = [0, 0, 0];
    curve.position(s, out);
    return out;
  };
  const found: Vec3[] = [at(0)];
  const add = (from: number, to: number, a: Vec3, b: Vec3, depth: number): void => {
    const square = (to - from) ** 2 - distance3(a, b) ** 2;
    if (square > 4 * within ** 2 && depth < DEEPEST) {
      const middle = (from + to) / 2;
      const m = at(middle);
      add(from, middle, a, m, depth + 1);
      add(middle, to, m, b, depth + 1);
    } else found.push(b);
  };
  const borders = curve.joints;
  for (let i = 1; i < borders.length; i++)
    add(borders[i - 1], borders[i], at(borders[i - 1]), at(borders[i]), 0);
  // A closed line has its first point once.
  if (curve.closed) found.pop();
  return straightened(found, within / 10, curve.closed);
}

/** A stretch is halved no more often: a millionth of a piece is no bend. */
const DEEPEST = 20;

/** Leaves out points on the straight line between their neighbours. */
function straightened(places: readonly Vec3[], within: number, closed: boolean): Vec3[] {
  const kept: Vec3[] = [];
  places.forEach((place, i) => {
    const next = places[i + 1] ?? (closed ? places[0] : undefined);
    const before = kept[kept.length - 1];
    if (before && next && awayFrom(place, before, next) < Math.min(within, 1e-9 * distance3(before, next)))
      return;
    kept.push(place);
  });
  return kept;
}

function awayFrom(p: Vec3, a: Vec3, b: Vec3): number {
  const [ab, ap] = [a.map((value, k) => b[k] - value), a.map((value, k) => p[k] - value)];
  const square = ab[0] ** 2 + ab[1] ** 2 + ab[2] ** 2;
  const t =
    square === 0 ? 0 : Math.min(1, Math.max(0, (ap[0] * ab[0] + ap[1] * ab[1] + ap[2] * ab[2]) / square));
  return Math.hypot(ap[0] - t * ab[0], ap[1] - t * ab[1], ap[2] - t * ab[2]);
}

/** In plan: x to the right, z down. Heights are beside it, one for each place in the data, since SVG has none. */
function svgOf(path: ShotPath, within: number): { svg: string; points: number } {
  const straight = path.basis === 'polyline';
  const drawn = straight ? path : changeBasis(path, 'bezier', within);
  const active = activePoints(drawn);
  const places: Vec3[] = [active[0].position];
  const pieces: string[] = [];
  const count = drawn.closed ? active.length : active.length - 1;
  for (let i = 0; i < count; i++) {
    const to = active[(i + 1) % active.length];
    const next = (i + 1) % active.length;
    const piece = straight
      ? [to.position]
      : [handleEnd(active, i, drawn.closed, 1), handleEnd(active, next, drawn.closed, -1), to.position];
    pieces.push(`${straight ? 'L' : 'C'} ${piece.map(([x, , z]) => `${x},${z}`).join(' ')}`);
    places.push(...piece);
  }
  const [low, high] = [0, 2]
    .map((k) => Math.min(...places.map((place) => place[k])))
    .map((value, i) => {
      const most = Math.max(...places.map((place) => place[2 * i]));
      return [value, most];
    });
  const margin = 0.02 * Math.max(low[1] - low[0], high[1] - high[0], 1e-3);
  const box = [
    low[0] - margin,
    high[0] - margin,
    low[1] - low[0] + 2 * margin,
    high[1] - high[0] + 2 * margin,
  ];
  const heights = places.map(([, y]) => y);
  const level = heights.every((height) => height === heights[0]);
  const [from, to] = [Math.min(...heights), Math.max(...heights)];
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box.join(' ')}">`,
    `  <!-- metres in plan; ${level ? `at height ${from} m` : `heights from ${from} to ${to} m in ${HEIGHTS}`} -->`,
    `  <path id="${escaped(path.name)}" fill="none" stroke="#000000" stroke-width="${margin / 4}"`,
    `    ${HEIGHTS}="${(level ? [from] : heights).join(' ')}"`,
    `    d="M ${places[0][0]},${places[0][2]} ${pieces.join(' ')}${drawn.closed ? ' Z' : ''}"/>`,
    '</svg>',
    '',
  ].join('\n');
  return { svg, points: active.length };
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

function objOf({ name }: ShotPath, places: readonly Vec3[], closed: boolean): string {
  const run = [...places.keys()].map((i) => i + 1);
  return [
    '# metres, Y is up',
    `o ${name.replaceAll(/\s+/g, ' ')}`,
    ...places.map((place) => `v ${place.join(' ')}`),
    `l ${[...run, ...(closed ? [1] : [])].join(' ')}`,
    '',
  ].join('\n');
}

/** A run of lines; the format has one for those that close. */
async function glbOf({ name }: ShotPath, places: readonly Vec3[], closed: boolean): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const position = document
    .createAccessor(name)
    .setType('VEC3')
    .setArray(Float32Array.from(places.flat()))
    .setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setMode(closed ? 2 : 3)
    .setAttribute('POSITION', position);
  const node = document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
  document.createScene(name).addChild(node);
  return new WebIO().writeBinary(document);
}
