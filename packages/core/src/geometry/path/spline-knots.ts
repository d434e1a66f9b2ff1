import type { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { activePoints } from './active-points.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';
import { toLocal } from './placement.js';
import { splineNet, splineSpans, type Homogeneous, type SplineNet } from './spline-net.js';

/** The control net of a spline path with all its knots spelled out, in world space. */
export function worldNet(path: ShotPath): SplineNet {
  return splineNet(path, activePoints(path));
}

/** The net with one more knot and control point, the curve unchanged (Boehm 1980). */
export function insertKnot({ degree, knots, controls }: SplineNet, knot: number): SplineNet {
  let k = degree;
  while (k < controls.length - 1 && knots[k + 1] <= knot) k++;
  const built: Homogeneous[] = [];
  for (let i = 0; i <= controls.length; i++) {
    if (i <= k - degree) built.push(controls[i]);
    else if (i > k) built.push(controls[i - 1]);
    else {
      const part = (knot - knots[i]) / (knots[i + degree] - knots[i]);
      built.push(controls[i].map((value, c) => part * value + (1 - part) * controls[i - 1][c]));
    }
  }
  return { degree, controls: built, knots: [...knots.slice(0, k + 1), knot, ...knots.slice(k + 1)] };
}

/** Part of a net's curve between two knot values, with its knots repeated at both ends so that it is independent. */
export function clampedPart(net: SplineNet, from: number, to: number): SplineNet {
  let whole = net;
  for (const knot of [from, to]) {
    while (whole.knots.filter((value) => value === knot).length < net.degree) whole = insertKnot(whole, knot);
  }
  const { degree, knots, controls } = whole;
  const first = knots.lastIndexOf(from) - degree;
  const last = knots.indexOf(to) - 1;
  const inner = knots.filter((knot) => knot > from && knot < to);
  const ends = (knot: number) => Array.from({ length: degree + 1 }, () => knot);
  return { degree, controls: controls.slice(first, last + 1), knots: [...ends(from), ...inner, ...ends(to)] };
}

/** Two clamped nets end to end, the second's knots moved to follow on. */
export function netsEndToEnd(a: SplineNet, b: SplineNet): SplineNet {
  const { degree } = a;
  const shift = a.knots[a.knots.length - 1] - b.knots[0];
  const scale = a.controls[a.controls.length - 1][3] / b.controls[0][3];
  return {
    degree,
    // Weights of a whole part may be scaled together without changing it: so the two agree where they meet.
    controls: [...a.controls, ...b.controls.slice(1).map((control) => control.map((value) => value * scale))],
    knots: [...a.knots.slice(0, -1), ...b.knots.slice(degree + 1).map((knot) => knot + shift)],
  };
}

/** The knot value at a distance along a spline path. */
export function knotAtDistance(net: SplineNet, curve: CompiledPath, s: number): number {
  const parameter = curve.parameter(s);
  const spans = splineSpans(net);
  const n = Math.min(spans.length - 1, Math.floor(parameter));
  const from = net.knots[spans[n]];
  return from + (parameter - n) * (net.knots[spans[n] + 1] - from);
}

/** A NURBS path of a net, in the place of another path whose curve it is; points take its roll where they act. */
export function nurbsPath(
  path: ShotPath,
  net: SplineNet,
  closed: boolean,
  rollDegAtPart: (distance: number, built: CompiledPath) => number,
): ShotPath {
  const plain = path.points[0];
  const points = net.controls.map(([x, y, z, w]): PathPoint => {
    const world: Vec3 = [x / w, y / w, z / w];
    return { ...plain, position: toLocal(path.transform, world), weight: w, roll: 0, off: false };
  });
  const built: ShotPath = {
    ...path,
    basis: 'nurbs',
    closed,
    degree: net.degree,
    knots: [...net.knots],
    points,
  };
  const curve = compilePath(built);
  return {
    ...built,
    points: points.map((point, i) => ({ ...point, roll: rollDegAtPart(curve.pointDistances[i], curve) })),
  };
}
