import { vec3 } from 'gl-matrix';
import type { Vec3 } from '../../geometry/math/vec.js';
import { endOf, says, sideOf, stemOf } from './part-words.js';
import { boxOf, type ModelPart } from './round-part.js';

/** A clue to which way is ahead. */
export interface Clue {
  /** A direction, as long as the clue is heavy. */
  readonly way: Vec3;
  readonly because: string;
}

/** Weights of clues: feet point ahead more surely than a name does; two pairs count more than one head. */
const WEIGHT = { toes: 4, seat: 3, wheels: 3, end: 1.5, pair: 1 } as const;
/** Further pairs add nothing. */
const MOST_PAIRS = 3;

/** Middle of a part: of its mesh, or its origin. */
export function middleOf({ positions, origin }: ModelPart): Vec3 | null {
  const box = boxOf(positions);
  if (box === null) return origin ?? null;
  return box.high.map((value, k) => (value + box.low[k]) / 2) as Vec3;
}

/** Clues from the names of parts and their positions. */
export function cluesOf(parts: readonly ModelPart[], up: Vec3, length: number): Clue[] {
  const clues: Clue[] = [];
  const add = (way: Vec3 | null, weight: number, because: string, least = 0.02) => {
    const level = way && vec3.scaleAndAdd([0, 0, 0], way, up, -vec3.dot(way, up));
    const size = level ? vec3.length(level) : 0;
    if (!level || size <= least * length) return;
    clues.push({ way: vec3.scale([0, 0, 0], level, weight / size) as Vec3, because });
  };
  add(toesOf(parts), WEIGHT.toes, 'where its toes point', 0.005);
  add(
    between(parts, isSteeringWheel, (name) => says(name, 'seat', 'saddle')),
    WEIGHT.seat,
    'its seat and what is held from it',
  );
  const isWheel = (name: string) => says(name, 'wheel', 'tyre', 'tire');
  add(
    between(
      parts,
      (name) => isWheel(name) && endOf(name) > 0,
      (name) => isWheel(name) && endOf(name) < 0,
    ),
    WEIGHT.wheels,
    'wheels named for an end',
  );
  add(towardsFront(parts), WEIGHT.end, 'parts named for its front');
  const { way, count } = pairsOf(parts);
  // Ahead is left × up.
  const ahead = way && (vec3.cross([0, 0, 0], way, up) as Vec3);
  add(ahead, WEIGHT.pair * Math.min(MOST_PAIRS, count), 'parts named left and right', 0);
  return clues;
}

const isSteeringWheel = (name: string): boolean =>
  says(name, 'steering', 'handlebar', 'handlebars', 'dashboard');

/** From the middle of the parts of one kind to that of another. */
function between(
  parts: readonly ModelPart[],
  to: (name: string) => boolean,
  from: (name: string) => boolean,
): Vec3 | null {
  const [a, b] = [to, from].map((is) => average(parts.filter(({ names }) => is(names[0]))));
  return a && b ? (vec3.subtract([0, 0, 0], a, b) as Vec3) : null;
}

function average(parts: readonly ModelPart[]): Vec3 | null {
  const middles = parts.flatMap((part) => {
    const middle = middleOf(part);
    return middle ? [middle] : [];
  });
  if (middles.length === 0) return null;
  const sum = middles.reduce<Vec3>((all, one) => vec3.add([0, 0, 0], all, one) as Vec3, [0, 0, 0]);
  return vec3.scale([0, 0, 0], sum, 1 / middles.length) as Vec3;
}

/** From ankles to toes, on each side that has both. */
function toesOf(parts: readonly ModelPart[]): Vec3 | null {
  let sum: Vec3 | null = null;
  for (const side of [1, -1, 0] as const) {
    const own = parts.filter(({ names, origin }) => origin && sideOf(names[0]) === side);
    const joints = (...words: string[]) => own.filter(({ names }) => says(names[0], ...words));
    const [toes, ankles] = [joints('toe', 'toes', 'toebase', 'ball'), joints('foot', 'ankle')];
    // Of a toe of several bones the first is the one that hangs on the foot.
    const [toe, ankle] = [toes[0]?.origin, ankles[0]?.origin];
    if (!toe || !ankle) continue;
    sum = vec3.add([0, 0, 0], sum ?? [0, 0, 0], vec3.subtract([0, 0, 0], toe, ankle)) as Vec3;
  }
  return sum;
}

/** From the middle of what is named for the rear to that of what is named for the front; or from or to the middle of all. */
function towardsFront(parts: readonly ModelPart[]): Vec3 | null {
  // A mesh often has a name of no meaning, below a node that has one.
  const ends = parts.map(({ names }) => endOf(names[0]) || endOf(names[1] ?? ''));
  const [front, rear] = [1, -1].map((end) => average(parts.filter((_, i) => ends[i] === end)));
  if (front === null && rear === null) return null;
  const all = average(parts.filter(({ positions }) => positions.length > 0)) ?? average(parts);
  const [to, from] = [front ?? all, rear ?? all];
  return to && from ? (vec3.subtract([0, 0, 0], to, from) as Vec3) : null;
}

/** Left by parts that differ only in their side, and the number of such pairs. */
export function pairsOf(parts: readonly ModelPart[]): { way: Vec3 | null; count: number } {
  const pairs = new Map<string, { left?: Vec3; right?: Vec3 }>();
  for (const part of parts) {
    const name = part.names.slice(0, 2).find((own) => sideOf(own) !== 0);
    const middle = name === undefined ? null : middleOf(part);
    if (name === undefined || middle === null) continue;
    const stem = stemOf(name);
    const pair = pairs.get(stem) ?? {};
    pairs.set(stem, pair);
    if (sideOf(name) > 0) pair.left ??= middle;
    else pair.right ??= middle;
  }
  let [sum, count]: [Vec3, number] = [[0, 0, 0], 0];
  for (const { left, right } of pairs.values()) {
    if (!left || !right) continue;
    const gap = vec3.subtract([0, 0, 0], left, right) as Vec3;
    const size = vec3.length(gap);
    if (size < 1e-6) continue;
    sum = vec3.scaleAndAdd([0, 0, 0], sum, gap, 1 / size) as Vec3;
    count++;
  }
  return { way: count > 0 ? sum : null, count };
}
