import type { Cut } from '../document/shot-camera.js';
import type { Shot } from '../document/shot.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import { cameraAt } from '../motion/pose/camera.js';

/** PNG is one picture or a zip of numbered ones; WebM is by VP9, or by AV1 where that is asked for; a GIF goes round for ever; a sheet is a page of pictures over the run diagram. */
export const PICTURE_FILES = ['png', 'webm', 'av1', 'mp4', 'gif', 'sheet', 'pdf'] as const;
export type PictureFile = (typeof PICTURE_FILES)[number];

/** The longest GIF, seconds. */
export const LONGEST_GIF = 10;
/** So many cameras are seen side by side at most. */
export const MOST_EYES = 4;

/** Burned-in text of a picture. */
export interface BurnIn {
  readonly frame: boolean;
  readonly timecode: boolean;
  readonly name: boolean;
  readonly board: boolean;
  readonly safe: boolean;
}

/** An eye that is no rider's: it looks along −Z of its rotation, with +Y up. */
export interface FreeEye {
  readonly position: Vec3;
  readonly rotation: Quat;
  /** Up and down, radians; null for one that looks along parallels. */
  readonly fieldOfView: number | null;
  /** Metres from top to bottom of the picture, of one that looks along parallels. */
  readonly height: number | null;
}

/** Eye of a picture. */
export type PictureEye = { readonly rider: string } | { readonly free: FreeEye };

/** Order for pictures. */
export interface PictureWish {
  /** The shown frame, every n-th of the range, or those of a sheet: at each cut, or at even steps. */
  readonly frames: 'one' | 'range' | 'cuts';
  readonly every: number;
  /** Through the shown view, the cuts, or riders' cameras by their ids: up to four side by side. */
  readonly eye: 'view' | 'cuts' | { readonly riders: readonly string[] };
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

/** One picture of the shown view, and nothing over it. */
export const PLAIN_WISH: PictureWish = {
  frames: 'one',
  every: 1,
  eye: 'view',
  width: 1280,
  height: 720,
  times: 1,
  file: 'png',
  quality: 0.7,
  rounds: 1,
  burnIn: { frame: false, timecode: false, name: false, board: false, safe: false },
  helpers: false,
  clear: false,
};

/** One picture of a plan. */
export interface PlannedPicture {
  readonly frame: number;
  /** One, or up to four side by side. */
  readonly eyes: readonly PictureEye[];
}

/** Everything needed to render pictures and make a file of them, on any machine. */
export interface PictureJob {
  readonly shot: Shot;
  readonly wish: PictureWish;
  readonly pictures: readonly PlannedPicture[];
  readonly theme: 'day' | 'night';
  /** The rider whose figures are burned in; null for none. */
  readonly board: string | null;
}

/** Inputs of a plan. */
export interface PlanGround {
  /** The frame that is shown. */
  readonly frame: number;
  readonly range: { readonly first: number; readonly last: number };
  /** With those that cues make. */
  readonly cuts: readonly Cut[];
  /** Ids of all riders that are cameras. */
  readonly cameras: readonly string[];
  /** The shown view; one that follows a rider is another at each frame. */
  readonly view: (frame: number) => FreeEye;
}

/** Ordered pictures, each once. */
export function plannedPictures(
  { frames, every, eye, file }: PictureWish,
  { frame: shown, range: { first, last }, cuts, cameras, view }: PlanGround,
): PlannedPicture[] {
  const step = Math.max(1, Math.round(every));
  const sheet = isSheet(file);
  const even = Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, i) => first + i * step);
  const starts = cuts.map(({ frame }) => frame).filter((frame) => frame > first && frame <= last);
  const at =
    frames === 'one' && file === 'png'
      ? [Math.round(shown)]
      : frames === 'cuts' && sheet
        ? cuts.length > 0
          ? [...new Set([first, ...starts])].sort((a, b) => a - b)
          : spread(first, last)
        : even;
  const eyes = (frame: number): PictureEye[] => {
    if (eye === 'view') return [{ free: view(frame) }];
    if (eye !== 'cuts') return eye.riders.slice(0, MOST_EYES).map((rider) => ({ rider }));
    const rider = cameraAt(cuts, frame) ?? cameras[0];
    return rider === undefined ? [{ free: view(frame) }] : [{ rider }];
  };
  return at.map((frame): PlannedPicture => ({ frame, eyes: eyes(frame) }));
}

/** Pictures of a sheet of a shot without cuts. */
const UNCUT = 9;

/** Whole frames at even steps from the first to the last. */
function spread(first: number, last: number): number[] {
  const steps = Math.min(UNCUT, last - first + 1) - 1;
  return Array.from({ length: steps + 1 }, (_, i) =>
    steps === 0 ? first : Math.round(first + (i * (last - first)) / steps),
  );
}

/** Whether a file is a page to look at and no film. */
export const isSheet = (file: PictureFile): boolean => file === 'sheet' || file === 'pdf';

/** Whether a file plays. */
export const isFilm = (file: PictureFile): boolean => ['webm', 'av1', 'mp4', 'gif'].includes(file);

/** How a film's pictures follow each other: pictures a second. */
export const filmRate = (fps: number, every: number): number => fps / Math.max(1, Math.round(every));

/** Bits a second for a quality from 0 to 1: from a twentieth of a bit a pixel to a third of one. */
export function filmBits(
  { width, height, quality }: Pick<PictureWish, 'width' | 'height' | 'quality'>,
  rate: number,
): number {
  const perPixel = 0.05 * 7 ** Math.min(1, Math.max(0, quality));
  return Math.round(Math.max(100_000, width * height * rate * perPixel));
}

/** A frame as file names and burn-ins have it. */
export const fourDigits = (frame: number): string =>
  `${frame < 0 ? '-' : ''}${String(Math.abs(Math.round(frame))).padStart(4, '0')}`;

/** File name of a job. */
export function fileNameOf({
  shot,
  wish,
  pictures,
}: Pick<PictureJob, 'wish' | 'pictures'> & { readonly shot: Pick<Shot, 'name'> }): string {
  const endings: Record<PictureFile, string> = {
    png: pictures.length === 1 ? ` frame-${fourDigits(pictures[0].frame)}.png` : '.zip',
    webm: '.webm',
    av1: '.webm',
    mp4: '.mp4',
    gif: '.gif',
    sheet: ' sheet.png',
    pdf: ' sheet.pdf',
  };
  return `${shot.name}${endings[wish.file]}`;
}

/** Pictures that follow each other and are drawn by one renderer. */
export interface PictureBatch {
  /** Index of the first. */
  readonly first: number;
  readonly count: number;
}

const SHORTEST_BATCH = 4;
const LONGEST_BATCH = 24;
const BATCHES = 48;

/** Splits pictures into runs: short enough that several renderers share them, long enough that taking one costs little. */
export function batchesOf(pictures: number): PictureBatch[] {
  const length = Math.min(LONGEST_BATCH, Math.max(SHORTEST_BATCH, Math.ceil(pictures / BATCHES)));
  return Array.from({ length: Math.ceil(pictures / length) }, (_, i) => ({
    first: i * length,
    count: Math.min(length, pictures - i * length),
  }));
}
