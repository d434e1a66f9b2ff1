import { open, readFile } from 'node:fs/promises';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { isFilm, type PictureWish } from '@fleet-rail/core/shots';
import { FilePathSource, Input, MP4, WEBM } from 'mediabunny';
import { openZip } from '../files/open-zip.js';
import { WorkThreads, threadScript } from '../threads/work-threads.js';
import type { PictureSize } from './check-png.js';
import type { PictureCheck } from './picture-worker.js';

/** The file that a job asks for. */
export interface FileWish {
  readonly wish: Pick<PictureWish, 'file' | 'width' | 'height' | 'rounds'>;
  readonly pictures: number;
}

/** Checks what renderers give back, pictures in threads of their own. */
@Injectable()
export class PictureChecker implements OnModuleDestroy {
  private readonly threads = new WorkThreads<PictureCheck, { problem: string | null }>(
    threadScript('pool/picture-worker'),
    'Checking this picture',
    { threads: 2, seconds: 30, megabytes: 512 },
  );

  /** Says why bytes are no PNG of a size; null where they are one. */
  async problemOfPicture(bytes: Uint8Array, size: PictureSize | null): Promise<string | null> {
    return (await this.threads.answer({ bytes, size })).problem;
  }

  /** Says why a file is not what a job asked for; null where it is. */
  async problemOfFile(path: string, { wish, pictures }: FileWish): Promise<string | null> {
    const { file } = wish;
    if (isFilm(file) && file !== 'gif') return problemOfFilm(path, wish, pictures * Math.max(1, wish.rounds));
    if (file === 'gif') return problemOfGif(path, wish);
    if (file === 'pdf') return problemOfPdf(path);
    if (file === 'png' && pictures > 1) return problemOfZip(path, pictures);
    const bytes = await readFile(path);
    return this.problemOfPicture(bytes, file === 'sheet' ? null : wish);
  }

  onModuleDestroy(): Promise<void> {
    return this.threads.close();
  }
}

async function problemOfFilm(path: string, { width, height }: PictureSize, frames: number) {
  const input = new Input({ formats: [MP4, WEBM], source: new FilePathSource(path) });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (track === null) return 'The film has no picture track.';
    if (track.codedWidth !== width || track.codedHeight !== height)
      return `The film is ${track.codedWidth} × ${track.codedHeight}; expected ${width} × ${height}.`;
    const { packetCount } = await track.computePacketStats();
    return packetCount === frames ? null : `The film has ${packetCount} pictures; expected ${frames}.`;
  } catch {
    return 'This film cannot be read; expected a complete WebM or MP4.';
  } finally {
    input.dispose();
  }
}

async function problemOfGif(path: string, { width, height }: PictureSize) {
  const { head, tail } = await endsOf(path);
  const isWhole = /^GIF8[79]a/.test(head.toString('latin1')) && head.length >= 10 && tail.at(-1) === 0x3b;
  if (!isWhole) return 'This is not a complete GIF.';
  const found = { width: head.readUInt16LE(6), height: head.readUInt16LE(8) };
  return found.width === width && found.height === height
    ? null
    : `The GIF is ${found.width} × ${found.height}; expected ${width} × ${height}.`;
}

async function problemOfPdf(path: string) {
  const { head, tail } = await endsOf(path);
  const isWhole = head.toString('latin1').startsWith('%PDF-') && /%%EOF\s*$/.test(tail.toString('latin1'));
  return isWhole ? null : 'This is not a complete PDF.';
}

async function problemOfZip(path: string, pictures: number) {
  try {
    const zip = await openZip(path);
    zip.close();
    return zip.entryCount === pictures
      ? null
      : `The zip holds ${zip.entryCount} files; expected ${pictures}.`;
  } catch {
    return 'This zip cannot be read; expected one with a picture for each frame.';
  }
}

const END = 1024;

/** The first and the last kilobyte of a file. */
async function endsOf(path: string): Promise<{ head: Buffer; tail: Buffer }> {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    const length = Math.min(END, size);
    const read = async (at: number) => (await file.read(Buffer.alloc(length), 0, length, at)).buffer;
    return { head: await read(0), tail: await read(size - length) };
  } finally {
    await file.close();
  }
}
