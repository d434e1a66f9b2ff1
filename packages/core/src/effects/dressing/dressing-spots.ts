import type { Dressing } from '../../document/shot-dressing.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';

/** Most pieces of one dressing: steps beyond are left out at its end. */
export const MOST_PIECES = 10_000;
/** A rest of a step so small, as a part of it, is a rounding. */
const ROUNDING = 1e-9;

/** Stretch of a dressing, metres; `to` is beyond the length if it goes round past the start. */
export interface DressingStretch {
  readonly from: number;
  readonly to: number;
  /** Whether it ends where it began. */
  readonly round: boolean;
}

/** Stretch of a path with a dressing; on an open path clipped to its length. */
export function dressingStretch(
  { from, to }: Pick<Dressing, 'from' | 'to'>,
  path: CompiledPath,
): DressingStretch {
  const { length, closed } = path;
  if (!closed) {
    const held = (s: number) => Math.min(length, Math.max(0, s));
    const begin = held(from);
    return { from: begin, to: Math.max(begin, held(to ?? length)), round: false };
  }
  const begin = path.wrap(from);
  const way = (to ?? from + length) - from;
  if (Math.abs(way - length) <= ROUNDING * length || way > length)
    return { from: begin, to: begin + length, round: true };
  return { from: begin, to: begin + (way < 0 ? path.wrap(way) : way), round: false };
}

/**
 * Distances of the middles of pieces along the path: at even steps from the begin of the stretch, its end included if
 * a step falls on it. Round a closed path no two pieces share a position.
 *
 * @returns metres, and the step as it came out
 */
export function dressingSpots(laid: Pick<Dressing, 'from' | 'to' | 'every' | 'fit'>, path: CompiledPath) {
  const { from, to, round } = dressingStretch(laid, path);
  const way = to - from;
  const steps = laid.fit
    ? Math.max(1, Math.round(way / laid.every))
    : Math.floor(way / laid.every + ROUNDING);
  const step = laid.fit && way > 0 ? way / steps : laid.every;
  // The last of all the way round would be the first again.
  const meets = round && Math.abs(steps * step - way) <= ROUNDING * way;
  const wanted = way === 0 && laid.fit ? 1 : steps + (meets ? 0 : 1);
  const count = Math.min(MOST_PIECES, wanted);
  return { step, wanted, spots: Float64Array.from({ length: count }, (_, i) => from + i * step) };
}
