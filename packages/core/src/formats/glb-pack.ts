import type { GLTF } from '@gltf-transform/core';

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BINARY_CHUNK = 0x004e4942;

/** A description and its one buffer as one file (glTF 2.0, chapter 4). */
export function packGlb(json: GLTF.IGLTF, buffer: Uint8Array | undefined): Uint8Array {
  const text = padded(new TextEncoder().encode(JSON.stringify(json)), 0x20);
  const binary = buffer && buffer.byteLength > 0 ? padded(buffer, 0) : null;
  const out = new Uint8Array(12 + 8 + text.byteLength + (binary ? 8 + binary.byteLength : 0));
  const view = new DataView(out.buffer);
  [MAGIC, 2, out.byteLength, text.byteLength, JSON_CHUNK].forEach((n, i) => view.setUint32(4 * i, n, true));
  out.set(text, 20);
  if (binary === null) return out;
  const at = 20 + text.byteLength;
  view.setUint32(at, binary.byteLength, true);
  view.setUint32(at + 4, BINARY_CHUNK, true);
  out.set(binary, at + 8);
  return out;
}

/** Chunks begin at whole multiples of four bytes. */
function padded(bytes: Uint8Array, filler: number): Uint8Array {
  if (bytes.byteLength % 4 === 0) return bytes;
  const out = new Uint8Array(4 * Math.ceil(bytes.byteLength / 4)).fill(filler, bytes.byteLength);
  out.set(bytes);
  return out;
}
