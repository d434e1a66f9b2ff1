import { quat, vec3 } from 'gl-matrix';
import type { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Dressing } from '../../document/shot-dressing.js';
import { RADIANS } from '../../geometry/math/angle.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { moveBeside } from '../../motion/pose/beside.js';
import { frameRotation } from '../../motion/pose/frame-rotation.js';
import { frameAlong } from '../../motion/ride/beyond-ends.js';
import { MOST_PIECES, dressingSpots } from './dressing-spots.js';

/** Layout of a piece's numbers: position and rotation in the world, its size, and the distance of its middle along the path. */
export const PIECE = { translation: 0, rotation: 3, size: 7, distance: 8, numbers: 9 } as const;

/** Placed pieces. */
export interface DressingPieces {
  readonly count: number;
  /** {@link PIECE}.numbers a piece: those of the left or only side first, each side along the path. */
  readonly places: Float64Array;
  /** Model of each piece: 0 the first, 1 … the alternatives in their order. */
  readonly models: Uint8Array;
  /** By piece to which side it lies. */
  readonly sides: Float64Array;
  /** Metres from one to the next. */
  readonly step: number;
  /** How many there would be were there no limit. */
  readonly wanted: number;
}

/**
 * Places pieces along a path.
 *
 * @param ground what those stand on that stand on the ground; where there is none they keep the path's height
 */
export function placePieces(
  laid: Dressing,
  path: CompiledPath,
  ground: GroundSurface | null,
): DressingPieces {
  const { spots, step, wanted } = dressingSpots(laid, path);
  const sides = laid.both ? [laid.offset.side, -laid.offset.side] : [laid.offset.side];
  const each = Math.min(spots.length, Math.floor(MOST_PIECES / sides.length));
  const count = each * sides.length;
  const places = new Float64Array(PIECE.numbers * count);
  const models = new Uint8Array(count);
  const beside = new Float64Array(count);
  sides.forEach((side, k) => {
    for (let n = 0; n < each; n++) {
      const i = k * each + n;
      beside[i] = side;
      models[i] = modelOf(laid, n);
      const stray = seededNumbers(laid.seed, i);
      const s = spots[n] + laid.jitter * stray();
      placePiece(laid, path, ground, s, side + laid.jitter * stray(), places, PIECE.numbers * i);
      turnAbout(places, PIECE.numbers * i, laid.jitterTurn * RADIANS * stray());
      places[PIECE.numbers * i + PIECE.size] = 1 + laid.jitterSize * stray();
      places[PIECE.numbers * i + PIECE.distance] = s;
    }
  });
  return { count, places, models, sides: beside, step, wanted: wanted * sides.length };
}

/** Model of a piece: of the alternatives that take every n-th, counted from the first, the last one. */
function modelOf({ others }: Dressing, n: number): number {
  for (let k = others.length - 1; k >= 0; k--) if (n % others[k].every === 0) return k + 1;
  return 0;
}

const frame = new Float64Array(12);
const turn: Quat = [0, 0, 0, 1];

function placePiece(
  { stand, offset }: Dressing,
  path: CompiledPath,
  ground: GroundSurface | null,
  s: number,
  side: number,
  out: Float64Array,
  at: number,
): void {
  laidFrame(path, s, stand !== 'path', frame);
  for (let k = 0; k < 3; k++) out[at + k] = frame[k] + side * frame[3 + k];
  if (stand === 'ground') out[at + 1] = ground?.height(out[at], out[at + 2], out[at + 1]) ?? out[at + 1];
  for (let k = 0; k < 3; k++) out[at + k] += offset.rise * frame[6 + k];
  frameRotation(frame, turn);
  out.set(turn, at + PIECE.rotation);
}

/** The frame that is built on at a distance: as the path goes, or upright and level. */
export function laidFrame(path: CompiledPath, s: number, upright: boolean, out: Float64Array): void {
  frameAlong(path, s, 'world', out);
  if (!upright) return;
  // On a vertical path its left still gives the direction across.
  const level = Math.hypot(out[9], out[11]) > 1e-6 ? [out[9], out[11]] : [-out[5], out[3]];
  const size = Math.hypot(level[0], level[1]) || 1;
  const [x, z] = [level[0] / size, level[1] / size];
  out.set([z, 0, -x, 0, 1, 0, x, 0, z], 3);
}

const about: Quat = [0, 0, 0, 1];

/** Turns a piece about its own height. */
function turnAbout(places: Float64Array, at: number, angle: number): void {
  if (angle === 0) return;
  const from = at + PIECE.rotation;
  for (let k = 0; k < 4; k++) about[k] = places[from + k];
  quat.rotateY(about, about, angle);
  places.set(about, from);
}

const middle: Vec3 = [0, 0, 0];

/**
 * Bends the vertices of a piece along the path: a point ahead of its middle goes as far ahead on the curve.
 *
 * @param distance of the piece's middle
 * @param side     to the left, metres
 * @param size     of the piece
 * @param places   x, y, z in turn in the model's space, metres; changed into places of the world
 * @param ways     directions in the same order, turned likewise; null where there are none
 */
export function bendAlong(
  laid: Pick<Dressing, 'stand' | 'offset'>,
  path: CompiledPath,
  { distance, side, size }: { readonly distance: number; readonly side: number; readonly size: number },
  places: { [index: number]: number; readonly length: number },
  ways: { [index: number]: number; readonly length: number } | null,
): void {
  for (let i = 0; i < places.length; i += 3) {
    laidFrame(path, distance + size * places[i + 2], laid.stand !== 'path', frame);
    const aside = side + size * places[i];
    const above = laid.offset.rise + size * places[i + 1];
    vec3.set(middle, frame[0], frame[1], frame[2]);
    moveBeside(frame, aside, above, middle);
    for (let k = 0; k < 3; k++) places[i + k] = middle[k];
    if (ways === null) continue;
    const [x, y, z] = [ways[i], ways[i + 1], ways[i + 2]];
    for (let k = 0; k < 3; k++) ways[i + k] = x * frame[3 + k] + y * frame[6 + k] + z * frame[9 + k];
  }
}
