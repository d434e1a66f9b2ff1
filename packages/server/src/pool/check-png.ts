import { PNG } from 'pngjs';

/** Why bytes are no picture of a size, in words; null where they are one. */
export function problemOfPng(
  bytes: Buffer,
  { width, height }: { readonly width: number; readonly height: number },
): Promise<string | null> {
  return new Promise((resolve) => {
    new PNG().parse(bytes, (error, png) => {
      if (error) resolve(`The picture is broken: ${error.message.slice(0, 200)}.`);
      else if (png.width !== width || png.height !== height)
        resolve(`The picture is ${png.width} × ${png.height}; expected ${width} × ${height}.`);
      else resolve(null);
    });
  });
}
