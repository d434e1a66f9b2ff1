import type { Rider } from '@fleet-rail/core';
import { LABEL_FONT } from './theme/fonts';
import { lineColor, textOn } from './theme/theme';

/**
 * Draws a rider's badge on a canvas, as {@link Badge} is on the page.
 *
 * @param middle where it is, and its upper edge, pixels
 * @param tall   its height
 * @param rim    the colour between its two rims, of one that is frozen; null for none
 */
export function paintBadge(
  pen: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  middle: number,
  top: number,
  tall: number,
  { badge, color }: Pick<Rider, 'badge' | 'color'>,
  rim: string | null = null,
): void {
  pen.font = `600 ${0.68 * tall}px ${LABEL_FONT}`;
  pen.textAlign = 'center';
  pen.textBaseline = 'middle';
  const wide = Math.max(1.35 * tall, pen.measureText(badge).width + 0.6 * tall);
  const pill = (beyond: number, fill: string) => {
    pen.fillStyle = fill;
    pen.beginPath();
    pen.roundRect(
      middle - wide / 2 - beyond,
      top - beyond,
      wide + 2 * beyond,
      tall + 2 * beyond,
      tall / 2 + beyond,
    );
    pen.fill();
  };
  const line = lineColor(color);
  if (rim !== null) {
    pill(tall / 6, line);
    pill(tall / 12, rim);
  }
  pill(0, line);
  pen.fillStyle = textOn(line);
  pen.fillText(badge, middle, top + 0.53 * tall);
}
