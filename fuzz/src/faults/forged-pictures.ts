import { crc32, deflateSync } from 'node:zlib';
import type { Random } from '../random.js';

/** The side of the picture that is asked for, pixels. */
const SIDE = 16;

interface PngParts {
  readonly width?: number;
  readonly height?: number;
  readonly bits?: number;
  readonly color?: number;
  readonly interlace?: number;
  readonly data?: Uint8Array;
}

/** A picture of grey that is whole. */
export const wholePicture = (grey: number): Buffer => png({ data: deflateSync(rows(SIDE, grey)) });

/** By name what makes a picture that is none of 16 × 16, however much it looks like one. */
const FORGERIES: Readonly<Record<string, (random: Random) => Uint8Array>> = {
  'cut anywhere': (random) => {
    const whole = wholePicture(random.whole(0, 255));
    return whole.subarray(0, random.whole(0, whole.length - 13));
  },
  'with a byte changed in its pixels': (random) => {
    const whole = wholePicture(random.whole(0, 255));
    whole[random.whole(41, whole.length - 17)] ^= 1 << random.whole(0, 7);
    return whole;
  },
  'with too few rows': (random) => png({ data: deflateSync(rows(random.whole(0, SIDE - 1), 7)) }),
  'with a thousand times the rows': (random) =>
    png({ data: deflateSync(rows(SIDE * random.whole(900, 1100), 7)) }),
  'with one row too many': () => png({ data: deflateSync(rows(SIDE + 1, 7)) }),
  'with a stream that is cut': (random) => {
    const noise = Buffer.from(
      random.list(SIDE * 17, SIDE * 17, (i) => (i % 17 === 0 ? 0 : random.whole(0, 255))),
    );
    const stream = deflateSync(noise);
    return png({ data: stream.subarray(0, random.whole(0, stream.length - 1)) });
  },
  'with bytes after its stream': (random) =>
    png({ data: Buffer.concat([deflateSync(rows(SIDE, 7)), Buffer.alloc(random.whole(1, 2000), 1)]) }),
  'with a filter there is not': (random) => {
    const raw = rows(SIDE, 7);
    raw[17 * random.whole(0, SIDE - 1)] = random.whole(5, 255);
    return png({ data: deflateSync(raw) });
  },
  'interlaced and cut': (random) =>
    png({ interlace: 1, data: deflateSync(rows(SIDE, 7)).subarray(0, random.whole(0, 9)) }),
  'said to be interlaced': () => png({ interlace: 1, data: deflateSync(rows(SIDE, 7)) }),
  'of no size': () => png({ width: 0, height: 0, data: deflateSync(Buffer.alloc(0)) }),
  'of a size without end': () => png({ width: 65535, height: 65535, data: deflateSync(rows(SIDE, 7)) }),
  'of four thousand million columns': () =>
    png({ width: 0xffffffff, height: 1, data: deflateSync(rows(1, 7)) }),
  'of another size': (random) => png({ width: random.whole(1, 15), data: deflateSync(rows(SIDE, 7)) }),
  'of seven bits': () => png({ bits: 7, data: deflateSync(rows(SIDE, 7)) }),
  'of a kind of colour there is not': (random) =>
    png({ color: random.of([1, 5, 7, 255]), data: deflateSync(rows(SIDE, 7)) }),
  'in colours of a table that is missing': () => png({ color: 3, data: deflateSync(rows(SIDE, 7)) }),
  'without pixels': () => png({}),
  'that is a page': () => Buffer.from('<html></html>\n'),
  'that is noise': (random) => Buffer.from(random.list(1, 3000, () => random.whole(0, 255))),
  'of nothing': () => Buffer.alloc(0),
};

/** Names of all kinds of forgery. */
export const KINDS_OF_FORGERY = Object.keys(FORGERIES);

/** A picture that has to be refused; every kind comes in turn. */
export function forgedPicture(seed: number, random: Random): { name: string; bytes: Uint8Array } {
  const name = KINDS_OF_FORGERY[seed % KINDS_OF_FORGERY.length];
  return { name, bytes: FORGERIES[name](random) };
}

/** Rows of grey pixels, each with its filter byte. */
function rows(count: number, grey: number): Buffer {
  const raw = Buffer.alloc((SIDE + 1) * count, grey);
  for (let row = 0; row < count; row++) raw[row * (SIDE + 1)] = 0;
  return raw;
}

function png({ width = SIDE, height = SIDE, bits = 8, color = 0, interlace = 0, data }: PngParts): Buffer {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([bits, color, 0, 0, interlace], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    ...(data === undefined ? [] : [chunk('IDAT', data)]),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

function chunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, sum]);
}
