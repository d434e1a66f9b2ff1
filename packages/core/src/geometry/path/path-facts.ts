import { vec3 } from 'gl-matrix';
import { DEGREES } from '../math/angle.js';
import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';
import { roughnessOf, type Roughness } from './roughness.js';
import { unitTangent } from './tangent.js';

/** A point at which the path changes direction suddenly. */
export interface Kink {
  /** Metres along the path. */
  readonly distance: number;
  /** Degrees between the directions before and after. */
  readonly angleDeg: number;
}

/** Facts of a path that an animator should know before anything rides it. */
export interface PathFacts {
  readonly length: number;
  readonly kinks: readonly Kink[];
  /** The tightest bend away from kinks; null on a path that is straight. */
  readonly tightest: { readonly distance: number; readonly radius: number } | null;
  /** How it turns to and fro in short bends; null where it does not. */
  readonly roughness: Roughness | null;
  /** The longest stretch between neighbouring points over the shortest: 1 is even. */
  readonly unevenness: number;
  /** Metres of height gained and lost along the path. */
  readonly climb: number;
  readonly fall: number;
}

/** Directions that differ by more than this are a kink, degrees. */
export const KINK_DEG = 1;
const SAMPLES_PER_SEGMENT = 16;
/** Bends flatter than this count as straight, 1/m. */
const STRAIGHT = 1e-6;

/** Facts of a path: kinks at its joints, the tightest bend between them, the spacing of its points. */
export function pathFacts(path: CompiledPath): PathFacts {
  return {
    length: path.length,
    kinks: findKinks(path),
    tightest: tightestBend(path),
    roughness: roughnessOf(path),
    unevenness: unevenness(path),
    ...heights(path),
  };
}

/** The joints of a path where its direction breaks by more than {@link KINK_DEG}. */
export function findKinks(path: CompiledPath): Kink[] {
  const { segments } = path;
  const before: Vec3 = [0, 0, 0];
  const after: Vec3 = [0, 0, 0];
  const kinks: Kink[] = [];
  for (let i = path.closed ? 0 : 1; i < segments.count; i++) {
    unitTangent(segments, (i + segments.count - 1) % segments.count, 1, before);
    unitTangent(segments, i, 0, after);
    const sine = vec3.length(vec3.cross([0, 0, 0], before, after));
    const angleDeg = Math.atan2(sine, vec3.dot(before, after)) * DEGREES;
    if (angleDeg > KINK_DEG) kinks.push({ distance: path.segmentStart(i), angleDeg });
  }
  return kinks;
}

function tightestBend(path: CompiledPath): PathFacts['tightest'] {
  let most = STRAIGHT;
  let distance = -1;
  const consider = (s: number) => {
    const bend = path.bend(s);
    if (bend > most) {
      most = bend;
      distance = s;
    }
  };
  const step = (i: number) => (path.segmentStart(i + 1) - path.segmentStart(i)) / SAMPLES_PER_SEGMENT;
  for (let i = 0; i < path.segments.count; i++) {
    // Half a step in from the joints: at a kink or stop itself the bend says nothing.
    for (let n = 0; n < SAMPLES_PER_SEGMENT; n++) consider(path.segmentStart(i) + (n + 0.5) * step(i));
  }
  if (distance < 0) return null;
  // Narrow the best sample down, still within its own step.
  for (let width = path.length / (path.segments.count * SAMPLES_PER_SEGMENT) / 2; width > 1e-7; width /= 2) {
    const middle = distance;
    consider(Math.max(0, middle - width));
    consider(Math.min(path.length, middle + width));
  }
  return { distance, radius: 1 / most };
}

function unevenness(path: CompiledPath): number {
  const places = [...path.pointDistances].sort((a, b) => a - b);
  const gaps = places.slice(1).map((place, i) => place - places[i]);
  if (path.closed) gaps.push(places[0] + path.length - places[places.length - 1]);
  const real = gaps.filter((gap) => gap > 1e-9 * path.length);
  return real.length < 2 ? 1 : Math.max(...real) / Math.min(...real);
}

function heights(path: CompiledPath): Pick<PathFacts, 'climb' | 'fall'> {
  const count = Math.max(64, 8 * path.segments.count);
  const here: Vec3 = [0, 0, 0];
  path.position(0, here);
  let before = here[1];
  let climb = 0;
  let fall = 0;
  for (let i = 1; i <= count; i++) {
    path.position((path.length * i) / count, here);
    const rise = here[1] - before;
    if (rise > 0) climb += rise;
    else fall -= rise;
    before = here[1];
  }
  return { climb, fall };
}
