import { LONGEST_GIF, filmBits, filmRate, fourDigits, isSheet, type PictureWish } from '@fleet-rail/core';
import { Zip, ZipPassThrough } from 'fflate';
import {
  BufferTarget,
  Mp4OutputFormat,
  Output,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
  canEncodeVideo,
  type VideoCodec,
} from 'mediabunny';
import type { DrawnPictures } from './drawn-pictures';
import { makeSheet } from './sheet';

type FilmKind = 'webm' | 'av1' | 'mp4';

/** By kind of film which codecs are tried, the best known first. */
const CODECS: Readonly<Record<FilmKind, readonly VideoCodec[]>> = {
  webm: ['vp9', 'vp8'],
  av1: ['av1'],
  mp4: ['avc', 'av1', 'vp9'],
};

/** More would be more than a browser holds while a GIF finds its colours. */
const MOST_GIF_PIXELS = 120e6;

/**
 * Makes one file of drawn pictures: the PNG itself, a zip of them, a film, a GIF, or a sheet.
 *
 * @throws Error in words where this browser encodes no such film, or what was asked for is too large
 */
export async function makeFile(drawn: DrawnPictures): Promise<Blob> {
  const { file } = drawn.job.wish;
  if (file === 'png') return drawn.job.pictures.length === 1 ? drawn.picture(0) : zipOf(drawn);
  if (file === 'gif') return gifOf(drawn);
  if (isSheet(file)) return makeSheet(drawn);
  return filmOf(drawn, file as FilmKind);
}

/** The pictures in the order in which a film shows them: as often as it goes round. */
async function* inOrder({ job, picture, told, signal }: DrawnPictures, rounds = 1) {
  const of = job.pictures.length * rounds;
  for (let i = 0; i < of; i++) {
    signal.throwIfAborted();
    yield { i, blob: await picture(i % job.pictures.length) };
    told(i + 1, of);
  }
}

async function zipOf(drawn: DrawnPictures): Promise<Blob> {
  const parts: BlobPart[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    parts.push(chunk as Uint8Array<ArrayBuffer>);
  });
  for await (const { i, blob } of inOrder(drawn)) {
    const entry = new ZipPassThrough(`frame-${fourDigits(drawn.job.pictures[i].frame)}.png`);
    // Equal pictures make equal zips, whenever they are made.
    entry.mtime = new Date(1980, 0, 1);
    zip.add(entry);
    entry.push(new Uint8Array(await blob.arrayBuffer()), true);
  }
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
}

async function filmOf(drawn: DrawnPictures, kind: FilmKind): Promise<Blob> {
  const { wish, shot } = drawn.job;
  const rate = filmRate(shot.fps, wish.every);
  const bitrate = filmBits(wish, rate);
  const codec = await encoderFor(wish, kind, bitrate);
  const canvas = new OffscreenCanvas(wish.width, wish.height);
  const target = new BufferTarget();
  const output = new Output({
    format: kind === 'mp4' ? new Mp4OutputFormat() : new WebMOutputFormat(),
    target,
  });
  const source = new VideoSampleSource({ codec, bitrate });
  output.addVideoTrack(source, { frameRate: rate });
  await output.start();
  try {
    for await (const { i, blob } of inOrder(drawn, Math.max(1, wish.rounds))) {
      // By its numbers, and not as a canvas: how that is read depends on what draws it, and equal pictures would make
      // films that are not.
      const sample = new VideoSample(await pixelsOf(canvas, blob), {
        format: 'RGBX',
        codedWidth: wish.width,
        codedHeight: wish.height,
        timestamp: i / rate,
        duration: 1 / rate,
      });
      await source.add(sample);
      sample.close();
    }
  } catch (error) {
    await output.cancel();
    throw error;
  }
  await output.finalize();
  return new Blob([target.buffer ?? new ArrayBuffer(0)], {
    type: kind === 'mp4' ? 'video/mp4' : 'video/webm',
  });
}

const NAMES: Record<FilmKind, string> = { webm: 'WebM', av1: 'WebM with AV1', mp4: 'MP4' };

/** The first codec of a kind of film that this browser encodes. */
async function encoderFor(
  { width, height }: PictureWish,
  kind: FilmKind,
  bitrate: number,
): Promise<VideoCodec> {
  for (const codec of CODECS[kind]) if (await canEncodeVideo(codec, { width, height, bitrate })) return codec;
  throw new Error(
    `This browser encodes no ${NAMES[kind]} of ${width} × ${height}. Choose the other kind of film, another size, or PNG.`,
  );
}

async function gifOf(drawn: DrawnPictures): Promise<Blob> {
  const { wish, shot, pictures } = drawn.job;
  const rate = filmRate(shot.fps, wish.every);
  const { width, height } = wish;
  if (pictures.length / rate > LONGEST_GIF + 1e-9)
    throw new Error(
      `A GIF is of ${LONGEST_GIF} seconds at most; this one would be of ${(pictures.length / rate).toFixed(1)}. Make a film, or shorten the range.`,
    );
  if (width * height * pictures.length > MOST_GIF_PIXELS)
    throw new Error(
      `A GIF of ${pictures.length} pictures of ${width} × ${height} is too large; choose a smaller size, or every second frame.`,
    );
  const { Encoder } = await import('modern-gif');
  const encoder = new Encoder({ width, height, looped: true, loopCount: 0 });
  const canvas = new OffscreenCanvas(width, height);
  for await (const { i, blob } of inOrder(drawn)) {
    const data = await pixelsOf(canvas, blob);
    // In hundredths of a second; what is rounded off one picture goes to the next.
    const delay = 10 * (Math.round((100 * (i + 1)) / rate) - Math.round((100 * i) / rate));
    await encoder.encode({ data, delay });
  }
  return encoder.flush('blob');
}

/** A picture's pixels: red, green, blue and opacity of each. */
async function pixelsOf(canvas: OffscreenCanvas, blob: Blob): Promise<Uint8ClampedArray<ArrayBuffer>> {
  const { width, height } = canvas;
  const target = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
  const bitmap = await createImageBitmap(blob);
  target.clearRect(0, 0, width, height);
  target.drawImage(bitmap, 0, 0);
  bitmap.close();
  return target.getImageData(0, 0, width, height).data as Uint8ClampedArray<ArrayBuffer>;
}
