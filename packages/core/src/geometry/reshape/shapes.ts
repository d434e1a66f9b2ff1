import { defaultsOf } from '../../document/defaults.js';
import { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { straight } from './change-basis.js';

/** A ready shape and its measures, metres; centred, level at height 0. */
export type Shape =
  | { readonly kind: 'line'; readonly length: number }
  | { readonly kind: 'circle'; readonly radius: number }
  | { readonly kind: 'ellipse'; readonly width: number; readonly depth: number }
  | { readonly kind: 'helix'; readonly radius: number; readonly turns: number; readonly rise: number }
  | {
      readonly kind: 'roundedRectangle';
      readonly width: number;
      readonly depth: number;
      readonly radius: number;
    }
  | { readonly kind: 'eight'; readonly length: number; readonly width: number; readonly bridge: number };

const PIECES_PER_TURN = 8;

/**
 * A path of a ready shape around a place. All run to the left, seen from above; circles and their parts are
 * cubics of at most 45°, within 4e-6 of the radius. `rise` is the helix's climb per turn; `bridge` the height
 * at which a figure of eight passes over itself.
 */
export function shapePath(shape: Shape, middle: Vec3): ShotPath {
  const closed = shape.kind !== 'line' && shape.kind !== 'helix';
  const pieces = piecesOf(shape).map(
    (piece) => piece.map((place) => place.map((value, k) => tidy(value) + middle[k])) as unknown as Bezier,
  );
  return bezierPath(defaultsOf(ShotPath), pieces, closed, () => 0);
}

/** Sines of whole turns are nought. */
const tidy = (value: number) => (Math.abs(value) < 1e-10 ? 0 : value);

function piecesOf(shape: Shape): Bezier[] {
  switch (shape.kind) {
    case 'line':
      return [straight([0, 0, -shape.length / 2], [0, 0, shape.length / 2])];
    case 'circle':
      return turns(shape.radius, shape.radius, 1, 0);
    case 'ellipse':
      return turns(shape.width / 2, shape.depth / 2, 1, 0);
    case 'helix':
      return turns(shape.radius, shape.radius, shape.turns, shape.rise);
    case 'roundedRectangle':
      return roundedRectangle(shape.width / 2, shape.depth / 2, shape.radius);
    case 'eight':
      return eight(shape.length / 2, shape.width / 2, shape.bridge);
  }
}

/** Turns about Y from −X towards +Z, which is to the left; `rise` metres up a turn. */
function turns(rx: number, rz: number, count: number, rise: number): Bezier[] {
  const pieces = Math.max(1, Math.ceil(count * PIECES_PER_TURN - 1e-9));
  const step = (2 * Math.PI * count) / pieces;
  const reach = (4 / 3) * Math.tan(step / 4);
  const place = (angle: number, side: number): Vec3 => [
    -rx * (Math.cos(angle) - side * reach * Math.sin(angle)),
    (rise / (2 * Math.PI)) * (angle + (side * step) / 3),
    rz * (Math.sin(angle) + side * reach * Math.cos(angle)),
  ];
  const whole = Math.abs(count - 1) < 1e-12 && rise === 0;
  return Array.from({ length: pieces }, (_, i): Bezier => {
    const last = whole && i === pieces - 1;
    const end = last ? 0 : (i + 1) * step;
    return [place(i * step, 0), place(i * step, 1), place(last ? 0 : end, -1), place(end, 0)];
  });
}

function roundedRectangle(halfWidth: number, halfDepth: number, radius: number): Bezier[] {
  const r = Math.min(radius, halfWidth, halfDepth);
  const pieces: Bezier[] = [];
  const [w, d] = [halfWidth - r, halfDepth - r];
  // Centres of the corners, in the order of travel, and the angle at which each is entered.
  const corners: [number, number, number][] = [
    [-w, d, 0],
    [w, d, 1],
    [w, -d, 2],
    [-w, -d, 3],
  ];
  let end: Vec3 = [-halfWidth, 0, -d];
  const first = end;
  for (const [x, z, quarter] of corners) {
    const arc = quarterTurn(r, quarter).map(
      (piece) => piece.map((place) => [place[0] + x, 0, place[2] + z]) as unknown as Bezier,
    );
    const start: Vec3 = r > 0 ? arc[0][0] : [x, 0, z];
    if (!same(end, start)) pieces.push(straight(end, start));
    if (r > 0) pieces.push(...arc);
    end = r > 0 ? arc[arc.length - 1][3] : start;
  }
  if (!same(end, first)) pieces.push(straight(end, first));
  return pieces;
}

const same = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < 1e-12;

function quarterTurn(r: number, quarter: number): Bezier[] {
  const step = Math.PI / 4;
  const reach = (4 / 3) * Math.tan(step / 4);
  const place = (angle: number, side: number): Vec3 => [
    -r * (Math.cos(angle) - side * reach * Math.sin(angle)),
    0,
    r * (Math.sin(angle) + side * reach * Math.cos(angle)),
  ];
  return [0, 1].map((i): Bezier => {
    const from = (quarter * 2 + i) * step;
    return [place(from, 0), place(from, 1), place(from + step, -1), place(from + step, 0)];
  });
}

/** The figure of eight of Gerono, x = w sin 2t, z = l sin t, passing over itself at `bridge` metres. */
function eight(halfLength: number, halfWidth: number, bridge: number): Bezier[] {
  const count = 2 * PIECES_PER_TURN;
  const step = (2 * Math.PI) / count;
  const at = (t: number): Vec3 => [
    halfWidth * Math.sin(2 * t),
    (bridge * (1 - Math.cos(t))) / 2,
    halfLength * Math.sin(t),
  ];
  const slope = (t: number): Vec3 => [
    2 * halfWidth * Math.cos(2 * t),
    (bridge * Math.sin(t)) / 2,
    halfLength * Math.cos(t),
  ];
  const handle = (t: number, side: number): Vec3 => {
    const [place, towards] = [at(t), slope(t)];
    return place.map((value, k) => value + (side * towards[k] * step) / 3) as Vec3;
  };
  return Array.from({ length: count }, (_, i): Bezier => {
    const [from, to] = [i * step, ((i + 1) % count) * step];
    return [at(from), handle(from, 1), handle(to, -1), at(to)];
  });
}
