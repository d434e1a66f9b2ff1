import type { Vec3Like } from '../math/vec.js';
import { CompiledPath } from './compiled-path.js';
import { segmentOf, type Segments } from './segments.js';

/** A stretch of a path, run along it or, if `to` is before `from`, back; round a closed one any number of laps. */
export interface PathStretch {
  readonly path: CompiledPath;
  /** Metres along the path. */
  readonly from: number;
  readonly to: number;
}

/** A part of one of a path's own segments. */
interface Cut {
  readonly segments: Segments;
  readonly i: number;
  readonly from: number;
  readonly size: number;
  /** Nodes at which the slope of the roll may change, from the first on: part of the cut, 0 to 1, and degrees. */
  readonly rolls: readonly { readonly at: number; readonly roll: number }[];
}

/** More segments than this are more laps than anybody runs before a turnout. */
const MOST = 20_000;
/** A shorter rest of a segment counts as none. */
const LEAST = 1e-9;

/** Stretches of paths one after the other as one open path, exactly the curves they are of. What lies between two of them is leapt over. */
export function linkedPath(stretches: readonly PathStretch[]): CompiledPath {
  const cuts = stretches.flatMap(cutsOf).slice(0, MOST);
  const last = stretches[stretches.length - 1];
  const points = cuts.flatMap(({ rolls }, i) => rolls.map(({ at, roll }) => ({ at: i + at, roll })));
  points.push({ at: cuts.length, roll: last.path.rollDegrees(last.to) });
  return new CompiledPath(
    { segments: new CutSegments(cuts), pointParameters: Float64Array.from(points, ({ at }) => at) },
    false,
    points.map(({ roll }) => roll),
  );
}

function cutsOf({ path, from, to }: PathStretch): Cut[] {
  const { segments } = path;
  const cuts: Cut[] = [];
  const way = to < from ? -1 : 1;
  let left = Math.abs(to - from);
  let at = from;
  for (let n = 0; left > LEAST * path.length && n < MOST; n++) {
    const parameter = path.parameter(at);
    let i = segmentOf(segments, parameter);
    let u = parameter - i;
    // At a joint it goes on in the segment that lies ahead.
    if (way > 0 && u > 1 - LEAST) [i, u] = [(i + 1) % segments.count, 0];
    if (way < 0 && u < LEAST) [i, u] = [(i + segments.count - 1) % segments.count, 1];
    const begun =
      way > 0 && u === 0
        ? path.segmentStart(i)
        : way < 0 && u === 1
          ? path.segmentStart(i + 1)
          : path.wrap(at);
    const whole = way > 0 ? path.segmentStart(i + 1) - begun : begun - path.segmentStart(i);
    const run = Math.min(left, whole);
    const end = run < whole ? path.parameter(begun + way * run) - i : way > 0 ? 1 : 0;
    const size = end - u;
    cuts.push({ segments, i, from: u, size, rolls: rollsOf(path, i, u, size, begun, way * run) });
    at += way * run;
    left -= run;
    if (run <= 0) break;
  }
  return cuts;
}

/** The roll at the beginning of a cut, and where points of its path act within it. */
function rollsOf(
  path: CompiledPath,
  i: number,
  from: number,
  size: number,
  at: number,
  run: number,
): Cut['rolls'] {
  const rolls = [{ at: 0, roll: path.rollDegrees(at) }];
  if (size === 0) return rolls;
  const within = path.pointDistances.filter((distance) => {
    const on = (distance - path.wrap(at)) / run;
    return on > LEAST && on < 1 - LEAST;
  });
  for (const distance of within)
    rolls.push({ at: (path.parameter(distance) - i - from) / size, roll: path.rollDegrees(distance) });
  return rolls.sort((a, b) => a.at - b.at);
}

/** Parts of segments as segments of their own: derivatives by the chain rule. */
class CutSegments implements Segments {
  readonly count: number;

  constructor(private readonly cuts: readonly Cut[]) {
    this.count = cuts.length;
  }

  position(i: number, u: number, out: Vec3Like): void {
    const { segments, i: own, from, size } = this.cuts[i];
    segments.position(own, from + u * size, out);
  }

  place(i: number, u: number, out: Float64Array, at: number): void {
    const { segments, i: own, from, size } = this.cuts[i];
    segments.place(own, from + u * size, out, at);
    for (let k = at + 9; k < at + 12; k++) out[k] *= size;
  }

  velocity(i: number, u: number, out: Vec3Like): void {
    const { segments, i: own, from, size } = this.cuts[i];
    segments.velocity(own, from + u * size, out);
    for (let k = 0; k < 3; k++) out[k] *= size;
  }

  derivative(i: number, u: number, order: 2 | 3, out: Vec3Like): void {
    const { segments, i: own, from, size } = this.cuts[i];
    segments.derivative(own, from + u * size, order, out);
    for (let k = 0; k < 3; k++) out[k] *= size ** order;
  }

  speed(i: number, u: number): number {
    const { segments, i: own, from, size } = this.cuts[i];
    return segments.speed(own, from + u * size) * Math.abs(size);
  }

  speedSlope(i: number, u: number): number {
    const { segments, i: own, from, size } = this.cuts[i];
    return segments.speedSlope(own, from + u * size) * size * Math.abs(size);
  }
}
