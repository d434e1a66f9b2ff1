/** A part of a figure that is rounding. */
const ALIKE = 1e-9;

/** Frames at which something is over its limit, without a long gap between them. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  /** The worst figure, and where it is. */
  readonly worst: number;
  readonly frame: number;
}

/**
 * Stretches in which a figure exceeds a limit. Gaps shorter than half a second do not end a stretch.
 *
 * @param count    frames that are looked at, the first being `first`
 * @param figureAt by index of a frame; NaN where there is none
 */
export function stretchesOver(
  { first, fps }: { readonly first: number; readonly fps: number },
  count: number,
  limit: number,
  figureAt: (i: number) => number,
): Stretch[] {
  const found: { from: number; to: number; worst: number; frame: number }[] = [];
  const bridged = fps / 2;
  for (let i = 0; i < count; i++) {
    const figure = figureAt(i);
    if (!(figure > limit)) continue;
    const frame = first + i;
    const last = found[found.length - 1];
    if (last && frame - last.to - 1 < bridged) {
      last.to = frame;
      // Of equal values the first is reported, whatever the rounding.
      if (figure > last.worst * (1 + ALIKE)) [last.worst, last.frame] = [figure, frame];
    } else found.push({ from: frame, to: frame, worst: figure, frame });
  }
  return found;
}

/** Frames as a sentence has them. */
export function framesText({ from, to }: { readonly from: number; readonly to: number }): string {
  return from === to ? `at frame ${from}` : `in frames ${from}–${to}`;
}
