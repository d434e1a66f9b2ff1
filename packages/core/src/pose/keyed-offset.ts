import type { Hitch, Offset } from '../document/shot-hitch.js';
import { keyedCurve, type KeyedCurve } from '../math/keyed-curve.js';
import type { FrameMapping } from '../timing/frame-step.js';

const PARTS = ['along', 'side', 'rise', 'yaw', 'pitch', 'roll'] as const;

/** An offset over time. */
export interface OffsetAt {
  /** Whether it is the same at every frame. */
  readonly fixed: boolean;
  at(frame: number): Readonly<Offset>;
  /** How fast its metres along the path, to the side and up change, per frame. */
  rate(part: 'along' | 'side' | 'rise', frame: number): number;
}

/** The offset of a hitch at one frame. */
export function offsetAt(hitch: Pick<Hitch, 'offset' | 'offsetKeys'>, frame: number): Offset {
  const { along, side, rise, yaw, pitch, roll } = compileOffset(hitch).at(frame);
  return { along, side, rise, yaw, pitch, roll };
}

/** The offset of a hitch over time: that of its keys, where it has any. */
export function compileOffset({ offset, offsetKeys }: Pick<Hitch, 'offset' | 'offsetKeys'>): OffsetAt {
  if (offsetKeys.length === 0) return { fixed: true, at: () => offset, rate: () => 0 };
  const curves = Object.fromEntries(
    PARTS.map((part) => [
      part,
      keyedCurve(offsetKeys.map((key) => ({ frame: key.frame, value: key[part], ease: key.ease }))),
    ]),
  ) as Record<(typeof PARTS)[number], KeyedCurve>;
  const now = { ...offset };
  return {
    fixed: false,
    at(frame) {
      for (const part of PARTS) now[part] = curves[part].value(frame);
      return now;
    },
    rate: (part, frame) => curves[part].rate(frame),
  };
}

/** An offset at the frames at which it is shown. */
export function offsetInShownFrames(offset: OffsetAt, { own, rate }: FrameMapping): OffsetAt {
  if (offset.fixed) return offset;
  return {
    fixed: false,
    at: (frame) => offset.at(own(frame)),
    rate: (part, frame) => offset.rate(part, own(frame)) * rate(frame),
  };
}
