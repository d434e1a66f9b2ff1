import type { Hitch, Offset } from '../document/shot-hitch.js';
import { keyedCurve, type KeyedCurve } from '../math/keyed-curve.js';

const PARTS = ['along', 'side', 'rise', 'yaw', 'pitch', 'roll'] as const;

/** An offset at a frame, and how fast its place along the path changes, metres per frame. */
export interface OffsetAt {
  at(frame: number): Readonly<Offset>;
  alongRate(frame: number): number;
}

/** The offset of a hitch at one frame. */
export function offsetAt(hitch: Pick<Hitch, 'offset' | 'offsetKeys'>, frame: number): Offset {
  const { along, side, rise, yaw, pitch, roll } = compileOffset(hitch).at(frame);
  return { along, side, rise, yaw, pitch, roll };
}

/** The offset of a hitch over time: that of its keys, where it has any. */
export function compileOffset({ offset, offsetKeys }: Pick<Hitch, 'offset' | 'offsetKeys'>): OffsetAt {
  if (offsetKeys.length === 0) return { at: () => offset, alongRate: () => 0 };
  const curves = PARTS.map((part): [(typeof PARTS)[number], KeyedCurve] => [
    part,
    keyedCurve(offsetKeys.map((key) => ({ frame: key.frame, value: key[part], ease: key.ease }))),
  ]);
  const now = { ...offset };
  const along = curves[0][1];
  return {
    at(frame) {
      for (const [part, curve] of curves) now[part] = curve.value(frame);
      return now;
    },
    alongRate: (frame) => along.rate(frame),
  };
}
