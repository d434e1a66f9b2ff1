import type { InfluenceKey } from '../../document/shot-keys.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';

/** An influence from 0 to 1 by frame; null where there are no keys and all of it holds. */
export function compileInfluence(keys: readonly InfluenceKey[]): ((frame: number) => number) | null {
  if (keys.length === 0) return null;
  const curve = keyedCurve(keys);
  return (frame) => Math.min(1, Math.max(0, curve.value(frame)));
}
