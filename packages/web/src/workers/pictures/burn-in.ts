import { LABEL_FONT } from '../../ui/theme/fonts';
import type { BurnIn } from '@fleet-rail/core';

/** Texts that can be burned into a picture. */
export interface BurnedText {
  readonly frame: string;
  readonly timecode: string;
  readonly name: string;
  /** The selected rider's board, a line each. */
  readonly board: readonly string[];
}

/** The part of the picture that every screen shows. */
const SAFE = 0.9;
/** Of a picture's height. */
const LINE = 0.032;

/** Writes into a finished picture. */
export function burnIn(
  target: OffscreenCanvasRenderingContext2D | CanvasRenderingContext2D,
  { width, height }: { readonly width: number; readonly height: number },
  wanted: BurnIn,
  text: BurnedText,
): void {
  const size = Math.max(10, Math.round(height * LINE));
  // Within what every screen shows.
  const x0 = ((1 - SAFE) / 2) * width + size * 0.4;
  const y1 = height - ((1 - SAFE) / 2) * height - size * 0.3;
  target.save();
  target.font = `600 ${size}px ${LABEL_FONT}`;
  target.textBaseline = 'bottom';
  const write = (line: string, x: number, y: number, align: CanvasTextAlign) => {
    target.textAlign = align;
    // Legible on light and dark alike.
    target.lineWidth = Math.max(2, size / 7);
    target.strokeStyle = 'rgba(16, 24, 28, 0.75)';
    target.strokeText(line, x, y);
    target.fillStyle = '#FFFFFF';
    target.fillText(line, x, y);
  };
  const left = [
    ...(wanted.name ? [text.name] : []),
    ...(wanted.timecode ? [text.timecode] : []),
    ...(wanted.frame ? [text.frame] : []),
  ];
  left.forEach((line, i) => write(line, x0, y1 - (left.length - 1 - i) * size * 1.25, 'left'));
  if (wanted.board)
    text.board.forEach((line, i) =>
      write(line, width - x0, y1 - (text.board.length - 1 - i) * size * 1.25, 'right'),
    );
  if (wanted.safe) {
    target.setLineDash([size * 0.4, size * 0.3]);
    target.lineWidth = Math.max(1, size / 14);
    target.strokeStyle = 'rgba(255, 255, 255, 0.85)';
    const edge = (1 - SAFE) / 2;
    target.strokeRect(edge * width, edge * height, SAFE * width, SAFE * height);
  }
  target.restore();
}
