import { strToU8, zipSync, type ZippableFile } from 'fflate';
import type { UsdFiles } from './usd-write.js';

/** Data begins at whole multiples of this in a package, so that it can be used where it lies. */
const ALIGNMENT = 64;
/** Bytes of a file's entry before its name (ZIP, 4.3.7), and before the data of an extra field (4.5.1). */
const ENTRY_HEAD = 30;
const EXTRA_HEAD = 4;
/** An extra field that only pads. */
const FILLER = 0x1986;

/**
 * A layer and its pictures as one `.usdz` (USDZ file format specification 1.3): a zip whose files are stored as they are, the
 * layer first, each beginning at a multiple of 64 bytes.
 */
export function packUsdz({ layer, pictures }: UsdFiles, name: string): Uint8Array {
  const files = [{ name, bytes: strToU8(layer.join('')) }, ...pictures];
  let at = 0;
  const entries = files.map((file): [string, ZippableFile] => {
    const head = ENTRY_HEAD + strToU8(file.name).byteLength + EXTRA_HEAD;
    const filler = (ALIGNMENT - ((at + head) % ALIGNMENT)) % ALIGNMENT;
    at += head + filler + file.bytes.byteLength;
    return [file.name, [file.bytes, { level: 0, extra: { [FILLER]: new Uint8Array(filler) } }]];
  });
  return zipSync(Object.fromEntries(entries));
}

/** Files as one zip. */
export function packZip(files: readonly { readonly name: string; readonly bytes: Uint8Array }[]): Uint8Array {
  return zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes])));
}
