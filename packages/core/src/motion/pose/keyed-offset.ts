import type { Attachment, Offset, OffsetKey } from '../../document/shot-attachment.js';
import { keyedCurve, type CurveKey, type KeyedCurve } from '../../geometry/math/keyed-curve.js';
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

/** The offset of an attachment at one frame. */
export function offsetAt(attachment: Pick<Attachment, 'offset' | 'offsetKeys'>, frame: number): Offset {
  const { along, side, rise, yaw, pitch, roll } = compileOffset(attachment).at(frame);
  return { along, side, rise, yaw, pitch, roll };
}

/** The offset of an attachment over time: that of its keys, where it has any. */
export function compileOffset({ offset, offsetKeys }: Pick<Attachment, 'offset' | 'offsetKeys'>): OffsetAt {
  if (offsetKeys.length === 0) return { fixed: true, at: () => offset, rate: () => 0 };
  const curves = Object.fromEntries(
    PARTS.map((part) => [part, keyedCurve(offsetKeys.map((key) => offsetCurveKey(key, part)))]),
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

/** One value of an offset's key, with the handles that draw it. */
export function offsetCurveKey({ frame, ease, handles, ...values }: OffsetKey, part: keyof Offset): CurveKey {
  const own = handles?.[part];
  return { frame, value: values[part], ease: own?.out ? 'handles' : ease, in: own?.in, out: own?.out };
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
