import { quat, vec3 } from 'gl-matrix';
import type { Vec3 } from '../math/vec.js';
import type { ArcTable } from './arc-table.js';
import { unitTangent } from './tangent.js';
import type { Segments } from './segments.js';

/**
 * A stretch where the path runs so near the vertical that "level" says little about which side is
 * left. Across it the left vector is carried without twist from before, and what it then misses of
 * the level one is spread along the stretch.
 */
interface SteepStretch {
  readonly from: number;
  readonly to: number;
  /** Carried left vectors at even steps of distance from `from` to `to`. */
  readonly left: readonly Vec3[];
}

/** Data of the world frame beyond the tangent: none on most paths. */
export interface WorldFrameGuide {
  readonly stretches: readonly SteepStretch[];
  /** +1 or −1 by stretch: whether, after it, left is that of the level frame or its opposite. */
  readonly signAfter: readonly number[];
  readonly length: number;
  readonly closed: boolean;
}

/** Horizontal part of the unit tangent below which a place is steep: within 6° of the vertical. */
const STEEP = 0.1;
const STEPS_PER_SEGMENT = 16;
const STEPS_PER_STRETCH = 64;

type Tangent = (s: number, out: Vec3) => void;

/** Finds the steep stretches of a path and carries its frame through them. */
export function buildWorldFrameGuide(
  segments: Segments,
  table: ArcTable,
  closed: boolean,
  tangent: Tangent,
): WorldFrameGuide {
  const { length } = table;
  const places = steepPlaces(segments, table, closed);
  const stretches: SteepStretch[] = [];
  const signAfter: number[] = [];
  let sign = 1;
  places.forEach(([from, to], n) => {
    const { left, turned } = carry(from, to, closed, length, sign, tangent, (tookTurn) => {
      // On a closed path an odd count of half turns would not meet at the seam: undo the last one.
      const last = n === places.length - 1;
      return last && closed && (tookTurn ? -sign : sign) !== 1 ? !tookTurn : tookTurn;
    });
    if (turned) sign = -sign;
    stretches.push({ from, to, left });
    signAfter.push(sign);
  });
  return { stretches, signAfter, length, closed };
}

/**
 * The left vector of the world frame at distance s: level, and continuous through steep stretches.
 *
 * @param s       metres, already brought into 0 … length
 * @param forward the unit tangent there
 */
export function worldLeft(guide: WorldFrameGuide, s: number, forward: Vec3, out: Vec3): void {
  let sign = 1;
  for (let i = 0; i < guide.stretches.length; i++) {
    const stretch = guide.stretches[i];
    const wrapped = guide.closed && s < stretch.from && s + guide.length <= stretch.to;
    const place = wrapped ? s + guide.length : s;
    if (place >= stretch.from && place <= stretch.to) {
      carriedLeft(stretch, place, forward, out);
      return;
    }
    if (place > stretch.to) sign = guide.signAfter[i];
  }
  levelLeft(forward, sign, out);
}

function levelLeft(forward: Vec3, sign: number, out: Vec3): void {
  const flat = Math.sqrt(forward[0] * forward[0] + forward[2] * forward[2]);
  if (flat < 1e-12) {
    out[0] = sign;
    out[1] = 0;
    out[2] = 0;
    return;
  }
  out[0] = (sign * forward[2]) / flat;
  out[1] = 0;
  out[2] = (-sign * forward[0]) / flat;
}

function carriedLeft(stretch: SteepStretch, s: number, forward: Vec3, out: Vec3): void {
  const { from, to, left } = stretch;
  const along = to > from ? ((s - from) / (to - from)) * (left.length - 1) : 0;
  const i = Math.min(left.length - 2, Math.floor(along));
  vec3.lerp(out, left[i], left[i + 1], along - i);
  squareTo(out, forward);
}

/** Turns v as little as turns one tangent into the next; unlike a projection it also takes a corner. */
function transport(v: Vec3, from: Vec3, to: Vec3): void {
  vec3.transformQuat(v, v, quat.rotationTo([0, 0, 0, 1], from, to));
}

/** Takes from v what lies along `forward` and makes it a unit vector. */
function squareTo(v: Vec3, forward: Vec3): void {
  vec3.scaleAndAdd(v, v, forward, -vec3.dot(v, forward));
  vec3.normalize(v, v);
}

/** The stretches [from, to] of steep going; on a closed path one may run on past the length. */
function steepPlaces(segments: Segments, table: ArcTable, closed: boolean): [number, number][] {
  const n = segments.count * STEPS_PER_SEGMENT;
  const steep = new Uint8Array(n);
  let found = 0;
  const before: Vec3 = [0, 0, 0];
  const here: Vec3 = [0, 0, 0];
  for (let k = 0; k < n; k++) {
    const i = Math.floor(k / STEPS_PER_SEGMENT);
    segments.velocity(i, sampleAt(k), here);
    let flat = here[0] * here[0] + here[2] * here[2];
    if (flat + here[1] * here[1] < 1e-18) {
      unitTangent(segments, i, sampleAt(k), here);
      flat = here[0] * here[0] + here[2] * here[2];
    }
    const upright = here[1] * here[1];
    // A heading that turns round between two samples passed the vertical unseen.
    const turned =
      k > 0 &&
      before[0] * here[0] + before[2] * here[2] < 0 &&
      upright > flat &&
      before[1] * before[1] > before[0] * before[0] + before[2] * before[2] &&
      before[1] * here[1] > 0;
    steep[k] = flat < STEEP * STEEP * (flat + upright) || turned ? 1 : 0;
    found += steep[k];
    vec3.copy(before, here);
  }
  if (found === 0) return [];
  if (found === n) return [[0, table.length]];
  const distance = (k: number): number => {
    if (k < 0) return 0;
    if (k >= n) return closed ? distance(k - n) + table.length : table.length;
    const i = Math.floor(k / STEPS_PER_SEGMENT);
    const from = table.segmentStart[i];
    return from + (table.segmentStart[i + 1] - from) * sampleAt(k);
  };
  return runs(steep, closed, distance);
}

/** Position of sample k in its segment: samples are at the middles of even steps. */
function sampleAt(k: number): number {
  return ((k % STEPS_PER_SEGMENT) + 0.5) / STEPS_PER_SEGMENT;
}

/** The runs of steep samples, each from the level sample before it to the one after. */
function runs(steep: Uint8Array, closed: boolean, distance: (k: number) => number): [number, number][] {
  const n = steep.length;
  const result: [number, number][] = [];
  const begin = closed ? steep.indexOf(0) : 0;
  for (let k = begin; k < begin + n; k++) {
    if (steep[k % n] === 0) continue;
    let end = k;
    while (end + 1 < begin + n && steep[(end + 1) % n] === 1) end++;
    result.push([distance(k - 1), distance(end + 1)]);
    k = end;
  }
  return result;
}

function carry(
  from: number,
  to: number,
  closed: boolean,
  length: number,
  sign: number,
  tangent: Tangent,
  decide: (turned: boolean) => boolean,
): { left: Vec3[]; turned: boolean } {
  const forward: Vec3 = [0, 0, 0];
  const startsSteep = !closed && from === 0;
  const endsSteep = !closed && to === length;
  const at = (step: number): number => from + ((to - from) * step) / STEPS_PER_STRETCH;
  const left: Vec3[] = [];
  const current: Vec3 = [1, 0, 0];
  const before: Vec3 = [0, 0, 0];
  // A path that begins steep takes its left from where it first runs level, carried back.
  const backward = startsSteep && !endsSteep;
  for (let n = 0; n <= STEPS_PER_STRETCH; n++) {
    const step = backward ? STEPS_PER_STRETCH - n : n;
    vec3.copy(before, forward);
    tangent(at(step), forward);
    if (n > 0) transport(current, before, forward);
    else if (!(startsSteep && endsSteep)) levelLeft(forward, sign, current);
    squareTo(current, forward);
    left[step] = [...current];
  }
  if (startsSteep || endsSteep) return { left, turned: false };
  tangent(to, forward);
  const level: Vec3 = [0, 0, 0];
  levelLeft(forward, sign, level);
  const turned = decide(vec3.dot(current, level) < 0);
  if (turned) vec3.negate(level, level);
  const cross = vec3.cross([0, 0, 0], current, level);
  const missing = Math.atan2(vec3.dot(cross, forward), vec3.dot(current, level));
  const turn: [number, number, number, number] = [0, 0, 0, 1];
  left.forEach((vector, step) => {
    tangent(at(step), forward);
    quat.setAxisAngle(turn, forward, (missing * step) / STEPS_PER_STRETCH);
    vec3.transformQuat(vector, vector, turn);
  });
  return { left, turned };
}
