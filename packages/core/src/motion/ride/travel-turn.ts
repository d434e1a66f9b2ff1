import type { Facing } from '../../document/shot-facing.js';
import { wrapAngle } from '../../geometry/math/angle.js';
import { bisect } from '../../geometry/math/search.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import type { TrackRange } from './aim-track.js';
import type { Travel } from './travel.js';

/** Writes how far a nose is turned from its path to go where it really goes: to the left and up, radians. */
export type TravelTurn = (frame: number, out: { yaw: number; pitch: number }) => void;

/** Slower than this it counts as stopped, and keeps its direction, m/s. */
const STANDS = 1e-4;
/** Looks a frame. */
const SUB = 4;

/** Most frames before the range that are searched for a turn: an earlier one is practically over. */
const MOST_BEFORE = 2_000;

/** A moment from which on it goes back the way it came, and how it was turned until then. */
interface Reversal {
  readonly at: number;
  readonly before: number;
}

/**
 * The nose points along the rider's real travel. In a stop it keeps its direction; when it starts backward it turns
 * around, to the left, over `turnTime` from then on.
 *
 * @returns null where it just follows its path
 */
export function compileTravelTurn(
  { along, turnTime }: Facing,
  travel: Travel,
  { first, last, fps }: TrackRange,
): TravelTurn | null {
  if (along === 'path') return null;
  const over = turnTime * fps;
  const velocity: Vec3 = [0, 0, 0];
  const moving = (frame: number): boolean => {
    travel.velocity(frame, velocity);
    return Math.hypot(...velocity) > STANDS;
  };
  const begin = Math.floor(first - Math.min(over, MOST_BEFORE)) - 1;
  const count = (Math.ceil(last - begin) + 3) * SUB;
  let kept: { reversals: Reversal[]; ways: Float64Array } | null = null;

  /** By look which way it goes, or went last; before it ever went, the way it will. */
  const lookOver = () => {
    const ways = new Float64Array(count).fill(NaN);
    const reversals: Reversal[] = [];
    let way = NaN;
    for (let i = 0; i < count; i++) {
      const frame = begin + i / SUB;
      if (!moving(frame)) {
        ways[i] = way;
        continue;
      }
      const now = Math.atan2(velocity[0], velocity[2]);
      if (Math.abs(wrapAngle(now - way)) > Math.PI / 2) {
        const turnedBack = (x: number) =>
          moving(x) && Math.abs(wrapAngle(Math.atan2(velocity[0], velocity[2]) - now)) < Math.PI / 2;
        const before = reversals.at(-1);
        const at = bisect(turnedBack, frame - 1 / SUB, frame, 30);
        reversals.push({ at, before: before ? turned(before, at, way, over) : way });
      }
      way = ways[i] = now;
    }
    const ahead = ways.find((one) => !Number.isNaN(one)) ?? 0;
    for (let i = 0; i < count && Number.isNaN(ways[i]); i++) ways[i] = ahead;
    return { reversals, ways };
  };

  return (frame, out) => {
    kept ??= lookOver();
    const { reversals, ways } = kept;
    let way: number;
    out.pitch = 0;
    if (moving(frame)) {
      way = Math.atan2(velocity[0], velocity[2]);
      out.pitch = Math.atan2(velocity[1], Math.hypot(velocity[0], velocity[2]));
    } else way = ways[Math.min(count - 1, Math.max(0, Math.floor((frame - begin) * SUB)))];
    const last = reversals.findLast(({ at }) => at <= frame);
    out.yaw = last ? turned(last, frame, way, over) : way;
  };
}

/** How it is turned on its way from before a reversal to where it goes now. */
function turned({ at, before }: Reversal, frame: number, way: number, over: number): number {
  const t = over > 0 ? Math.min(1, (frame - at) / over) : 1;
  const by = wrapAngle(way - before);
  // Right round it turns to the left, whichever side of that rounding falls.
  const round = by < -Math.PI + 1e-6 ? by + 2 * Math.PI : by;
  return before + t * t * (3 - 2 * t) * round;
}
