import { Zip, ZipPassThrough } from 'fflate';
import {
  BufferTarget,
  CanvasSource,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
  canEncodeVideo,
  type VideoCodec,
} from 'mediabunny';
import { filmBits, filmRate, fourDigits, type PictureWish, type PlannedPicture } from './picture-plan';

/** A file that pictures became. */
export interface MadeFile {
  readonly name: string;
  readonly content: Blob;
}

/** What is told after each picture. */
export type Told = (done: number, picture: HTMLCanvasElement) => void;

interface Work {
  readonly wish: PictureWish;
  readonly pictures: readonly PlannedPicture[];
  /** What the file is called, without its ending. */
  readonly name: string;
  readonly fps: number;
  /** The picture is drawn into it, at its size. */
  readonly canvas: HTMLCanvasElement;
  /** @throws where a picture cannot be drawn */
  readonly draw: (picture: PlannedPicture) => void;
  readonly told: Told;
  readonly signal: AbortSignal;
}

/** By kind of film which codecs are tried, the best known first. */
const CODECS: Readonly<Record<'webm' | 'mp4', readonly VideoCodec[]>> = {
  webm: ['vp9', 'av1', 'vp8'],
  mp4: ['avc', 'av1', 'vp9'],
};

/**
 * Draws pictures and makes a file of them: one PNG, a zip of them, or a film. Between two of them the page gets its turn.
 *
 * @throws Error in words where this browser encodes no such film, a picture cannot be drawn, or it was cancelled
 */
export async function makeFile(work: Work): Promise<MadeFile> {
  return work.wish.file === 'png' ? makePictures(work) : makeFilm(work, work.wish.file);
}

/** Draws one after the other; after each the page gets its turn. */
async function eachDrawn(
  { pictures, draw, canvas, told, signal }: Work,
  take: (picture: PlannedPicture, i: number) => Promise<void>,
): Promise<void> {
  for (const [i, picture] of pictures.entries()) {
    if (signal.aborted) throw new Error('Cancelled; nothing was made.');
    draw(picture);
    await take(picture, i);
    told(i + 1, canvas);
    await new Promise((turn) => setTimeout(turn));
  }
}

async function makePictures(work: Work): Promise<MadeFile> {
  const { name, pictures, canvas } = work;
  const called = (frame: number) => `frame-${fourDigits(frame)}.png`;
  if (pictures.length === 1) {
    let only: Blob | null = null;
    await eachDrawn(work, async () => {
      only = await pngOf(canvas);
    });
    return { name: `${name} ${called(pictures[0].frame)}`, content: only ?? new Blob() };
  }
  const parts: BlobPart[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    parts.push(chunk as Uint8Array<ArrayBuffer>);
  });
  await eachDrawn(work, async ({ frame }) => {
    const entry = new ZipPassThrough(called(frame));
    zip.add(entry);
    entry.push(new Uint8Array(await (await pngOf(canvas)).arrayBuffer()), true);
  });
  zip.end();
  return { name: `${name}.zip`, content: new Blob(parts, { type: 'application/zip' }) };
}

async function makeFilm(work: Work, kind: 'webm' | 'mp4'): Promise<MadeFile> {
  const { wish, name, fps, canvas } = work;
  const rate = filmRate(fps, wish.every);
  const bitrate = filmBits(wish, rate);
  const codec = await firstOf(CODECS[kind], (one) =>
    canEncodeVideo(one, { width: wish.width, height: wish.height, bitrate }),
  );
  if (codec === null)
    throw new Error(
      `This browser encodes no ${kind === 'mp4' ? 'MP4' : 'WebM'} of ${wish.width} × ${wish.height}. Choose the other kind of film, another size, or PNG.`,
    );
  const target = new BufferTarget();
  const output = new Output({
    format: kind === 'mp4' ? new Mp4OutputFormat() : new WebMOutputFormat(),
    target,
  });
  const source = new CanvasSource(canvas, { codec, bitrate });
  output.addVideoTrack(source, { frameRate: rate });
  await output.start();
  try {
    await eachDrawn(work, (_, i) => source.add(i / rate, 1 / rate));
  } catch (error) {
    await output.cancel();
    throw error;
  }
  await output.finalize();
  return {
    name: `${name}.${kind}`,
    content: new Blob([target.buffer ?? new ArrayBuffer(0)], { type: `video/${kind}` }),
  };
}

async function firstOf<T>(list: readonly T[], holds: (one: T) => Promise<boolean>): Promise<T | null> {
  for (const one of list) if (await holds(one)) return one;
  return null;
}

function pngOf(canvas: HTMLCanvasElement): Promise<Blob> {
  return new Promise((done, failed) =>
    canvas.toBlob(
      (blob) => (blob ? done(blob) : failed(new Error('The picture is too large to be kept.'))),
      'image/png',
    ),
  );
}
