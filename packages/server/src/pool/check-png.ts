import { inflateSync } from 'node:zlib';
import { PNG } from 'pngjs';

/** The width and height of a picture, pixels. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

const SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Length, type, the thirteen bytes of IHDR and its checksum. */
const HEADER_END = SIGNATURE.length + 12 + 13;
/** Samples a pixel by colour type (PNG specification, third edition, table 9). */
const CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** First column, first row and steps of the seven Adam7 passes. */
const ADAM7 = [
  [0, 0, 8, 8],
  [4, 0, 8, 8],
  [0, 4, 4, 8],
  [2, 0, 4, 4],
  [0, 2, 2, 4],
  [1, 0, 2, 2],
  [0, 1, 1, 2],
] as const;

/**
 * Says why bytes are no whole PNG of a size; null where they are one. Nothing is unpacked before the declared size is the expected
 * one, and never more than that size needs. Takes as long as decoding, so it runs in a thread.
 *
 * @param size what it has to be; null where any size up to 2^28 pixels will do
 */
export function problemOfPng(bytes: Buffer, size: PictureSize | null): string | null {
  try {
    const header = readHeader(bytes);
    if (typeof header === 'string') return header;
    const { width, height } = header;
    if (size !== null && (width !== size.width || height !== size.height))
      return `The picture is ${width} × ${height}; expected ${size.width} × ${size.height}.`;
    if (width === 0 || height === 0 || width * height > 2 ** 28)
      return `The picture declares ${width} × ${height} pixels; expected at least one and at most 2^28.`;
    const problem = problemOfData(bytes, rawLength(header));
    if (problem !== null) return problem;
    PNG.sync.read(bytes);
    return null;
  } catch (error) {
    return `The picture is broken: ${(error as Error).message.slice(0, 200)}.`;
  }
}

interface Header extends PictureSize {
  readonly bitsPerPixel: number;
  readonly interlaced: boolean;
}

function readHeader(bytes: Buffer): Header | string {
  if (bytes.length < HEADER_END || !bytes.subarray(0, 8).equals(SIGNATURE))
    return 'This is not a PNG picture: it does not begin with the PNG signature.';
  if (bytes.toString('latin1', 12, 16) !== 'IHDR') return 'The picture does not begin with its header.';
  const channels = CHANNELS[bytes[25]];
  if (channels === undefined)
    return `The picture has the colour type ${bytes[25]}; expected 0, 2, 3, 4 or 6.`;
  return {
    width: bytes.readUInt32BE(16),
    height: bytes.readUInt32BE(20),
    bitsPerPixel: channels * bytes[24],
    interlaced: bytes[28] === 1,
  };
}

/** Bytes of the unpacked rows, each with its filter byte. */
function rawLength({ width, height, bitsPerPixel, interlaced }: Header): number {
  const passes = interlaced ? ADAM7 : ([[0, 0, 1, 1]] as const);
  return passes.reduce((sum, [left, top, across, down]) => {
    const columns = Math.ceil((width - left) / across);
    const rows = Math.ceil((height - top) / down);
    return columns <= 0 || rows <= 0 ? sum : sum + rows * (1 + Math.ceil((columns * bitsPerPixel) / 8));
  }, 0);
}

/** The reader is content with a stream that is cut or goes on too long; this is not. */
function problemOfData(bytes: Buffer, expected: number): string | null {
  const packed = Buffer.concat([...dataChunks(bytes)]);
  const { buffer, engine } = inflateSync(packed, {
    maxOutputLength: expected + 1,
    info: true,
  }) as unknown as {
    buffer: Buffer;
    engine: { bytesWritten: number };
  };
  if (buffer.length !== expected)
    return `The picture holds ${buffer.length > expected ? `over ${expected}` : buffer.length} bytes of pixels; expected ${expected}.`;
  if (engine.bytesWritten !== packed.length)
    return `The picture has ${packed.length - engine.bytesWritten} bytes after its pixels; expected none.`;
  return null;
}

function* dataChunks(bytes: Buffer): Generator<Buffer> {
  for (let at = SIGNATURE.length; at + 12 <= bytes.length;) {
    const length = bytes.readUInt32BE(at);
    if (bytes.toString('latin1', at + 4, at + 8) === 'IDAT')
      yield bytes.subarray(at + 8, Math.min(at + 8 + length, bytes.length));
    at += 12 + length;
  }
}
