import type { PictureJob, PlannedPicture } from '@fleet-rail/core';
import { frameLabel } from '../../timeline/diagram/diagram-scales';
import type { Evaluation } from '../evaluation/evaluation';
import { DAY } from '../../ui/theme/theme';
import type { DrawnPictures } from './drawn-pictures';
import { runDiagramShapes } from './run-diagram-shapes';
import { paintShapes, type Shape } from './shapes';

/** A page across, at 200 dots an inch: 297 by 210 mm. */
const PAGE = { width: 2_339, height: 1_654, margin: 90, gap: 36 };
/** The same in a PDF's unit, 72 an inch. */
const PAGE_POINTS = [297, 210].map((mm) => (72 * mm) / 25.4);
/** So much of a page's height is the run diagram's. */
const DIAGRAM = 0.3;
const TITLE = 110;
const CAPTION = 34;
/** More pictures on one page could not be made out. */
export const MOST_ON_SHEET = 40;

/**
 * A page of pictures with their frames, and the run diagram beneath with a mark at each: PNG or PDF.
 *
 * @throws Error in words where there are too many pictures for a page
 */
export async function makeSheet({ job, picture, evaluation, told, signal }: DrawnPictures): Promise<Blob> {
  const { pictures, wish } = job;
  if (pictures.length > MOST_ON_SHEET)
    throw new Error(
      `${pictures.length} pictures do not fit a page; ${MOST_ON_SHEET} do. Take only every n-th frame.`,
    );
  const canvas = new OffscreenCanvas(PAGE.width, PAGE.height);
  const target = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  target.imageSmoothingQuality = 'high';
  paintShapes(target, pageShapes(job));
  const places = picturePlaces(pictures.length, wish.width / wish.height);
  for (const [i, { x, y, width, height }] of places.entries()) {
    signal.throwIfAborted();
    const bitmap = await createImageBitmap(await picture(i));
    target.drawImage(bitmap, x, y, width, height);
    bitmap.close();
    paintShapes(target, [caption(job, pictures[i], x, y + height + 0.75 * CAPTION)]);
    told(i + 1, pictures.length);
  }
  await paintDiagram(target, job, await evaluation());
  const png = await canvas.convertToBlob({ type: 'image/png' });
  return wish.file === 'pdf' ? pdfOf(png, job.shot.name) : png;
}

function pageShapes({ shot }: PictureJob): Shape[] {
  const { first, last } = shot.range;
  const seconds = ((last - first + 1) / shot.fps).toFixed(2);
  const about = `frames ${first} to ${last}, ${shot.fps} a second, ${seconds} s${shot.loop ? ', a loop' : ''}`;
  const y = PAGE.margin + 44;
  const [x, size] = [PAGE.margin, 52];
  return [
    { kind: 'box', x: 0, y: 0, width: PAGE.width, height: PAGE.height, fill: '#FFFFFF' },
    { kind: 'text', x, y, text: shot.name, size, fill: DAY.ink, anchor: 'start', weight: 600 },
    { kind: 'text', x: PAGE.width - x, y, text: about, size: 30, fill: DAY.quiet, anchor: 'end' },
  ];
}

function caption({ shot }: PictureJob, { frame, eyes }: PlannedPicture, x: number, y: number): Shape {
  const badges = eyes.flatMap((eye) => {
    const rider = 'rider' in eye ? shot.riders.find(({ id }) => id === eye.rider) : undefined;
    return rider ? [rider.badge] : [];
  });
  const text = [`${frame}`, frameLabel(frame, 'timecode', shot), badges.join(' ')]
    .filter(Boolean)
    .join('   ');
  return { kind: 'text', x, y, text, size: 26, fill: DAY.ink, anchor: 'start' };
}

/** Rectangles of pictures on the page: as large as they can be, row by row. */
export function picturePlaces(
  count: number,
  aspect: number,
): { x: number; y: number; width: number; height: number }[] {
  const { margin, gap } = PAGE;
  const across = PAGE.width - 2 * margin;
  const down = PAGE.height * (1 - DIAGRAM) - margin - TITLE;
  const sizes = Array.from({ length: count }, (_, i) => {
    const columns = i + 1;
    const rows = Math.ceil(count / columns);
    const width = Math.min(
      (across - (columns - 1) * gap) / columns,
      ((down - (rows - 1) * gap) / rows - CAPTION) * aspect,
    );
    return { columns, width };
  });
  const best = sizes.reduce((a, b) => (b.width > a.width ? b : a));
  const height = best.width / aspect;
  return Array.from({ length: count }, (_, i) => ({
    x: margin + (i % best.columns) * (best.width + gap),
    y: margin + TITLE + Math.floor(i / best.columns) * (height + CAPTION + gap),
    width: best.width,
    height,
  }));
}

async function paintDiagram(
  target: OffscreenCanvasRenderingContext2D,
  { shot, pictures, board }: PictureJob,
  evaluation: Evaluation,
): Promise<void> {
  // Drawn as for a screen, and made as large as the page is.
  const scale = 2;
  const width = (PAGE.width - 2 * PAGE.margin) / scale;
  const height = (PAGE.height * DIAGRAM - PAGE.margin) / scale;
  const shapes = runDiagramShapes({
    shot,
    evaluation,
    width,
    height,
    theme: DAY,
    shown: { paths: 'own', frames: null, metres: null, axis: 'frames', strip: 'speed' },
    selected: shot.riders.find(({ id }) => id === board) ?? null,
    marked: pictures.map(({ frame }) => frame),
  });
  target.save();
  target.translate(PAGE.margin, PAGE.height * (1 - DIAGRAM));
  target.scale(scale, scale);
  paintShapes(target, shapes);
  target.restore();
}

async function pdfOf(png: Blob, title: string): Promise<Blob> {
  const { PDFDocument } = await import('pdf-lib');
  const document = await PDFDocument.create();
  document.setTitle(title);
  const [width, height] = PAGE_POINTS;
  const picture = await document.embedPng(await png.arrayBuffer());
  document.addPage([width, height]).drawImage(picture, { width, height });
  const bytes = await document.save({ useObjectStreams: false });
  return new Blob([Uint8Array.from(bytes)], { type: 'application/pdf' });
}
