import type { Dressing } from '../../document/shot-dressing.js';
import type { ShotPath } from '../../document/shot-path.js';
import { PathError } from '../../geometry/path/path-error.js';
import { compilePath } from '../../geometry/path/compile-path.js';

/** So many corners a curve is given at the most; straight stretches take none between their ends. */
const MOST_CORNERS = 160;

/**
 * A drawn path as a profile: its drawing is upright and seen along the travel. It rests on height 0 with its middle
 * over the path.
 *
 * @param width how wide it becomes, metres; as high as that makes it
 * @throws PathError where the path has no curve, or no width
 */
export function profileOfPath(path: ShotPath, width: number): Pick<Dressing, 'profile' | 'ring'> {
  const curve = compilePath(path);
  const place: [number, number, number] = [0, 0, 0];
  const distances = new Set<number>();
  for (const joint of curve.joints) distances.add(joint);
  const step = curve.length / MOST_CORNERS;
  for (let i = 0; i + 1 < curve.joints.length; i++) {
    const [from, to] = [curve.joints[i], curve.joints[i + 1]];
    const middle = (from + to) / 2;
    // A stretch that does not bend needs no corner within.
    if ([from + (to - from) * 0.1, middle, to - (to - from) * 0.1].every((s) => curve.bend(s) < 1e-9))
      continue;
    const parts = Math.max(2, Math.round((to - from) / step));
    for (let k = 1; k < parts; k++) distances.add(from + ((to - from) * k) / parts);
  }
  const places = [...distances]
    .sort((a, b) => a - b)
    .filter((s) => !path.closed || s < curve.length * (1 - 1e-12))
    .map((s): [number, number] => {
      curve.position(s, place);
      // Right on paper is right of the way, so left is less; down on paper is along Z.
      return [-place[0], -place[2]];
    });
  const [xs, ys] = [0, 1].map((k) => places.map((one) => one[k]));
  const [left, right, low] = [Math.max(...xs), Math.min(...xs), Math.min(...ys)];
  const wide = left - right;
  if (!(wide > 0)) throw new PathError('The drawing has no width; a profile needs one.');
  const scale = width / wide;
  const round = (value: number) => Number(value.toFixed(5));
  return {
    profile: places.map(([x, y]) => [round((x - (left + right) / 2) * scale), round((y - low) * scale)]),
    ring: path.closed,
  };
}
