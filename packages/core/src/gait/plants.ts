import { bisect } from '../math/search.js';
import type { Foot, Gait } from '../document/shot-rider.js';
import type { FreeWalk } from './free-walk.js';
import { idleSpanAt } from './idle-spans.js';

/** A foot on the ground: between which frames. */
export interface FootDown {
  readonly from: number;
  readonly to: number;
}

/** Looks a frame; edges are then halved until nobody could tell. */
const SUB = 4;
const HALVINGS = 20;
/** Shorter than this a foot only touches, frames. */
const TOUCH = 0.5;

/**
 * When a foot is on the ground: in its stances while it walks; while it stands, from the first if it stood then, else
 * from when it has been set down until it is lifted again.
 */
export function footDowns(
  foot: Foot,
  gait: Gait,
  walk: FreeWalk,
  { from, to, fps }: { from: number; to: number; fps: number },
): FootDown[] {
  const stands = (phase: number) => {
    const part = phase - Math.floor(phase);
    return foot.stances.some((stance) => (part >= stance.from && part <= stance.to) || part + 1 <= stance.to);
  };
  const down = (frame: number): boolean => {
    const i = idleSpanAt(walk.idleSpans, frame);
    if (i < 0) return stands(walk.phase(frame));
    const stand = walk.idleSpans[i];
    const inner = Number.isFinite(stand.from) ? stand.from : stand.to;
    if (stands(walk.phase(Number.isFinite(inner) ? inner : frame))) return true;
    // Without anything to do it waits as it came, its foot in the air.
    const over = Math.min(gait.blend * fps, (stand.to - stand.from) / 2);
    const shown = walk.idleWeight((Math.max(stand.from, from) + Math.min(stand.to, to)) / 2) > 0;
    return shown && frame >= stand.from + over && frame <= stand.to - over;
  };
  const edge = (low: number, high: number): number => {
    const after = down(high);
    // Of the two sides of the edge the one at which it is down.
    return after ? bisect(down, low, high, HALVINGS) : bisect(down, high, low, HALVINGS);
  };
  const downs: FootDown[] = [];
  let since = down(from) ? from : NaN;
  for (let i = 1; i <= (to - from) * SUB; i++) {
    const frame = from + i / SUB;
    const now = down(frame);
    if (now === !Number.isNaN(since)) continue;
    const at = edge(frame - 1 / SUB, frame);
    if (now) since = at;
    else {
      downs.push({ from: since, to: at });
      since = NaN;
    }
  }
  if (!Number.isNaN(since)) downs.push({ from: since, to });
  return downs.filter((one) => one.to - one.from >= TOUCH);
}
