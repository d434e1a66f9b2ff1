import { cameraAt, type Cut, type FrameRange } from '@fleet-rail/core';

export const PICTURE_FILES = ['png', 'webm', 'mp4'] as const;
export type PictureFile = (typeof PICTURE_FILES)[number];

/** What is burned into a picture. */
export interface BurnIn {
  readonly frame: boolean;
  readonly timecode: boolean;
  readonly name: boolean;
  readonly board: boolean;
  readonly safe: boolean;
}

/** What pictures are wished for. */
export interface PictureWish {
  /** The shown frame, or every n-th of the range. */
  readonly frames: 'one' | 'range';
  readonly every: number;
  /** Through the shown view, the cuts, or a rider's camera by its id. */
  readonly eye: 'view' | 'cuts' | { readonly rider: string };
  readonly width: number;
  readonly height: number;
  /** So many times as wide and high is it drawn, and then made smaller. */
  readonly times: number;
  readonly file: PictureFile;
  /** Of a film, 0 to 1. */
  readonly quality: number;
  /** So often a film goes round. */
  readonly rounds: number;
  readonly burnIn: BurnIn;
  readonly helpers: boolean;
  /** Without what lies behind everything; of PNG alone. */
  readonly clear: boolean;
}

/** One picture of a plan. */
export interface PlannedPicture {
  readonly frame: number;
  /** The rider whose camera it is seen through; null for the shown view. */
  readonly through: string | null;
}

/**
 * The pictures that are wished for, in order; of a film as often as it goes round.
 *
 * @param shown the frame the desk shows
 * @param cuts  with those that cues make
 */
export function plannedPictures(
  { frames, every, eye, file, rounds }: PictureWish,
  shown: number,
  { first, last }: FrameRange,
  cuts: readonly Cut[],
  cameras: readonly string[],
): PlannedPicture[] {
  const step = Math.max(1, Math.round(every));
  const once =
    frames === 'one' && file === 'png'
      ? [Math.round(shown)]
      : Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, i) => first + i * step);
  const through = (frame: number): string | null => {
    if (eye === 'view') return null;
    if (eye !== 'cuts') return eye.rider;
    return cameraAt(cuts, frame) ?? cameras[0] ?? null;
  };
  const round = once.map((frame): PlannedPicture => ({ frame, through: through(frame) }));
  return file === 'png' ? round : Array.from({ length: Math.max(1, rounds) }, () => round).flat();
}

/** How a film's pictures follow each other: pictures a second. */
export const filmRate = (fps: number, every: number): number => fps / Math.max(1, Math.round(every));

/** Bits a second for a quality from 0 to 1: from a twentieth of a bit a pixel to a third of one. */
export function filmBits({ width, height, quality }: PictureWish, rate: number): number {
  const perPixel = 0.05 * 7 ** Math.min(1, Math.max(0, quality));
  return Math.round(Math.max(100_000, width * height * rate * perPixel));
}

/** A frame as file names and burn-ins have it. */
export const fourDigits = (frame: number): string =>
  `${frame < 0 ? '-' : ''}${String(Math.abs(Math.round(frame))).padStart(4, '0')}`;
