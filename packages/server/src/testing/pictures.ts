import { crc32, deflateSync } from 'node:zlib';
import { zipSync } from 'fflate';
import { newShot, type PictureJob } from '@fleet-rail/core';

const SIZE = { width: 16, height: 16 };

/** A job of pictures of 16 × 16. */
export const job = (pictures: number): PictureJob => ({
  shot: newShot({ name: 'Far' }),
  wish: {
    frames: 'range',
    every: 1,
    eye: 'view',
    ...SIZE,
    times: 1,
    file: 'png',
    quality: 0.5,
    rounds: 1,
    burnIn: { frame: false, timecode: false, name: false, board: false, safe: false },
    helpers: false,
    clear: false,
  },
  pictures: Array.from({ length: pictures }, (_, i) => ({ frame: i + 1, eyes: [{ rider: 'c' }] })),
  theme: 'day',
  board: null,
});

/** A job as the queue takes it. */
export const stored = (work: PictureJob) => {
  return { name: 'Far', pictures: work.pictures.length, ...SIZE, work: JSON.stringify(work) };
};

/** A PNG written by hand: one grey for each index. */
export function png(index: number, { width, height } = SIZE): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const sized = Buffer.alloc(4);
    sized.writeUInt32BE(data.length);
    const sum = Buffer.alloc(4);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([sized, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const rows = Buffer.alloc((width + 1) * height, index % 256);
  for (let row = 0; row < height; row++) rows[row * (width + 1)] = 0;
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** Numbered pictures in the zip they are handed over in. */
export const whole = (pictures: number) => zipOf(Array.from({ length: pictures }, (_, i) => png(i)));

/** Pictures as the zip they are handed over in. */
export function zipOf(pictures: readonly Buffer[]): Buffer {
  const entries = pictures.map((bytes, i) => [`frame-${i}.png`, bytes] as const);
  return Buffer.from(zipSync(Object.fromEntries(entries), { level: 0, mtime: new Date(2000, 0, 1) }));
}
