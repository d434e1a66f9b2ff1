/** Most samples between two frames. */
const MOST_BETWEEN = 32;

/**
 * How often to look between two frames so that nothing goes through something of a thickness unseen.
 *
 * @param moved metres that they come nearer to or pass each other by from one frame to the next
 */
export function looksBetween(moved: number, thickness: number): number {
  return Math.max(1, Math.min(MOST_BETWEEN, Math.ceil(moved / Math.max(0.05, thickness / 2))));
}
