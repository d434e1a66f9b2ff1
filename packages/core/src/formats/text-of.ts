/** The text of a file, in UTF-8 or, where it begins with their mark, in UTF-16. */
export function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  const kind = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
  return new TextDecoder(kind).decode(bytes);
}
