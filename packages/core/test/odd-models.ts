// Models as GLB that no tidy exporter writes, put together from their description.

type Json = Record<string, unknown>;

/** A GLB of a description and the bytes of its buffer. */
export function glbOf(json: Json, bytes: Uint8Array = new Uint8Array(0)): Uint8Array {
  const text = new TextEncoder().encode(JSON.stringify({ asset: { version: '2.0' }, ...json }));
  const padded = (size: number) => size + ((4 - (size % 4)) % 4);
  const body = bytes.length > 0 ? 8 + padded(bytes.length) : 0;
  const out = new Uint8Array(20 + padded(text.length) + body).fill(0x20, 20);
  const view = new DataView(out.buffer);
  const words = [0x46546c67, 2, out.length, padded(text.length), 0x4e4f534a];
  words.forEach((word, i) => view.setUint32(4 * i, word, true));
  out.set(text, 20);
  if (body > 0) {
    const at = 20 + padded(text.length);
    view.setUint32(at, padded(bytes.length), true);
    view.setUint32(at + 4, 0x004e4942, true);
    out.fill(0, at + 8);
    out.set(bytes, at + 8);
  }
  return out;
}

/** A box of 1 × 1 × 2 m on the ground, as one mesh that many nodes may share. */
const box = (() => {
  const places = [-0.5, 0.5].flatMap((x) => [0, 1].flatMap((y) => [-1, 1].flatMap((z) => [x, y, z])));
  return {
    bytes: new Uint8Array(Float32Array.from(places).buffer),
    json: {
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      accessors: [
        {
          componentType: 5126,
          count: 8,
          type: 'VEC3',
          bufferView: 0,
          min: [-0.5, 0, -1],
          max: [0.5, 1, 1],
        },
      ],
      bufferViews: [{ buffer: 0, byteLength: 96 }],
      buffers: [{ byteLength: 96 }],
    },
  };
})();

/** Nodes with the box each, by their parents. */
export function boxesGlb(nodes: readonly Json[], tops: readonly number[], more: Json = {}): Uint8Array {
  const described = nodes.map((node) => ({ mesh: 0, ...node }));
  return glbOf({ ...box.json, scene: 0, scenes: [{ nodes: tops }], nodes: described, ...more }, box.bytes);
}

/** Nodes of which each hangs on the one before, a centimetre ahead of it. */
export function chainGlb(count: number): Uint8Array {
  const links = Array.from({ length: count }, (_, i) => ({
    name: `link ${i}`,
    translation: [0, 0, 0.01],
    ...(i + 1 < count ? { children: [i + 1] } : {}),
  }));
  return boxesGlb(links, [0]);
}
