import { defaultsOf } from '../../document/defaults.js';
import { PaceKey } from '../../document/shot-pace.js';
import { keepWithin } from '../math/keep-within.js';
import { simplifyGraph } from '../math/simplify-graph.js';

const plainKey = defaultsOf(PaceKey);
/** Speeds before and after a frame that differ by no more than this part are one: the motion goes on without a jolt. */
const SAME_SPEED = 0.2;

/** Keys with straight runs between them that are where a motion was, in metres, within a tolerance at every frame. */
export function straightKeys(
  frames: readonly number[],
  distances: readonly number[],
  tolerance: number,
): PaceKey[] {
  return simplifyGraph(frames, distances, tolerance).map((i) => ({
    ...plainKey,
    frame: frames[i],
    value: distances[i],
  }));
}

/**
 * Keys with handles that follow a motion within a tolerance at every frame: as few as cubics allow, without a jolt if
 * it has none; level in stops.
 *
 * @param frames    rising
 * @param distances metres along a path, one a frame, never falling
 */
export function curvedKeys(
  frames: readonly number[],
  distances: readonly number[],
  tolerance: number,
): PaceKey[] {
  const speeds = frames.map((_, i) => speedsAbout(frames, distances, i));
  const off = (from: number, to: number, i: number) => {
    const span = frames[to] - frames[from];
    const u = (frames[i] - frames[from]) / span;
    const [a, b] = [distances[from], distances[to]];
    const [out, into] = [speeds[from].after * span, speeds[to].before * span];
    const curve = a + (b - a) * u * u * (3 - 2 * u) + out * u * (1 - u) * (1 - u) - into * u * u * (1 - u);
    return Math.abs(curve - distances[i]);
  };
  const ends = standsOf(distances);
  const kept = ends.slice(1).flatMap((end, n) => {
    const from = ends[n];
    return keepWithin(end - from + 1, (a, b, i) => off(from + a, from + b, from + i), tolerance)
      .slice(n === 0 ? 0 : 1)
      .map((i) => from + i);
  });
  return kept.map((i, n) => {
    const third = (to: number) => (frames[to] - frames[i]) / 3;
    const [back, on] = [n > 0 ? third(kept[n - 1]) : 0, n + 1 < kept.length ? third(kept[n + 1]) : 0];
    return {
      ...plainKey,
      ease: 'handles',
      frame: frames[i],
      value: distances[i],
      in: [back, speeds[i].before * back || 0],
      // A nought has no sign in a document.
      out: [on, speeds[i].after * on || 0],
    };
  });
}

/** First and last frame, and those at which the motion stops or starts. */
function standsOf(distances: readonly number[]): number[] {
  const stands = (i: number) => distances[i] === distances[i + 1];
  const last = distances.length - 1;
  return distances.flatMap((_, i) => (i === 0 || i === last || stands(i - 1) !== stands(i) ? [i] : []));
}

/** Metres a frame just before and just after a frame: of the parabola through it and its two neighbours on that side. */
function speedsAbout(
  frames: readonly number[],
  distances: readonly number[],
  i: number,
): { readonly before: number; readonly after: number } {
  const last = frames.length - 1;
  const chord = (a: number, b: number) => (distances[b] - distances[a]) / (frames[b] - frames[a]);
  const side = (way: 1 | -1): number | null => {
    const [one, two] = [i + way, i + 2 * way];
    if (one < 0 || one > last) return null;
    const near = chord(i, one);
    if (two < 0 || two > last || near === 0) return near;
    const far = chord(one, two);
    // A motion that stops within two frames has no parabola.
    if (far === 0) return near;
    const bend = (far - near) / (frames[two] - frames[i]);
    // A ride does not go back between frames at which it went on.
    return Math.min(3 * near, Math.max(0, near - bend * (frames[one] - frames[i])));
  };
  const before = side(-1) ?? side(1) ?? 0;
  const after = side(1) ?? before;
  if (i === 0 || i === last || Math.abs(after - before) > SAME_SPEED * Math.max(after, before))
    return { before, after };
  const across = chord(i - 1, i + 1);
  return { before: across, after: across };
}
