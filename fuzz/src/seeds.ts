import type { Random } from './random.js';

// Small files that are whole, of every kind that is read; fuzzing spoils them.

export function svgText(random: Random): string {
  const number = () => String(Math.round(random.between(-100, 100) * 100) / 100);
  const d = () =>
    `M${number()} ${number()} L${number()},${number()} h${number()} V${number()} C${number()} ${number()} ${number()} ${number()} ${number()} ${number()} s${number()} ${number()} ${number()} ${number()} Q${number()} ${number()} ${number()} ${number()} t${number()} ${number()} A${number()} ${number()} 30 1 0 ${number()} ${number()} z`;
  const inside = random.list(1, 4, () =>
    random.of([
      `<path id="p" d="${d()}"/>`,
      `<rect x="${number()}" y="1" width="20" height="10" rx="2"/>`,
      `<circle cx="${number()}" cy="3" r="9"/>`,
      `<ellipse rx="4" ry="9"/>`,
      `<polyline points="0,0 ${number()},${number()} 9,9"/>`,
      `<g transform="translate(3 4) rotate(30) scale(2)"><polygon points="0 0 9 0 9 9"/></g>`,
      `<line x1="0" y1="0" x2="${number()}" y2="4"/><text>no path</text>`,
    ]),
  );
  return `<?xml version="1.0"?>\n<!DOCTYPE svg>\n<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${inside.join('\n')}</svg>`;
}

export function objText(random: Random): string {
  const vertices = random.list(
    3,
    12,
    () => `v ${random.between(-9, 9)} ${random.next()} ${random.between(-9, 9)}`,
  );
  const names = [...vertices.keys()].map((i) => i + 1);
  return `# lines\no track\n${vertices.join('\n')}\nl ${names.join(' ')}\nl 1 2\nl -1 -2\ng other\nl 1 3\nf 1 2 3\n`;
}

export function csvText(random: Random): string {
  const rows = random.list(3, 40, (i) => [
    i * 2 + 1,
    random.between(-9, 9),
    random.next(),
    random.between(-9, 9),
  ]);
  return random.of([
    () => rows.map(([, x, y, z]) => [x, y, z].join(',')).join('\n'),
    () => `x,y,z,frame\n${rows.map(([frame, x, y, z]) => [x, y, z, frame].join(',')).join('\n')}`,
    () => `x;z;time\n${rows.map(([time, x, , z]) => [x, z, time].join(';')).join('\n')}`,
    () =>
      `frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw\n${rows.map(([frame, x, y, z]) => `${frame},0,r,,${x},${y},${z},0,0,0,1`).join('\n')}`,
  ])();
}

export function bvhText(random: Random): string {
  const frames = random.whole(2, 5);
  const values = () => Array.from({ length: 9 }, () => random.between(-90, 90).toFixed(2)).join(' ');
  return `HIERARCHY
ROOT hips
{
  OFFSET 0 0 0
  CHANNELS 6 Xposition Yposition Zposition Zrotation Xrotation Yrotation
  JOINT leg
  {
    OFFSET 0 -40 0
    CHANNELS 3 Zrotation Xrotation Yrotation
    End Site
    {
      OFFSET 0 -40 0
    }
  }
}
MOTION
Frames: ${frames}
Frame Time: 0.0333
${Array.from({ length: frames }, values).join('\n')}
`;
}

/** The description of a glTF model and the bytes of its buffer. */
export function gltf(random: Random): { json: Record<string, unknown>; bytes: Uint8Array } {
  const corners = [-1, 1].flatMap((x) => [0, 1].flatMap((y) => [-2, 2].flatMap((z) => [x, y, z])));
  const times = [0, 0.5, 1];
  const places = times.flatMap((time) => [0, 0, 4 * time]);
  const floats = Float32Array.from([...corners, ...times, ...places]);
  const indices = Uint16Array.from([0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5]);
  const bytes = new Uint8Array(floats.byteLength + indices.byteLength);
  bytes.set(new Uint8Array(floats.buffer));
  bytes.set(new Uint8Array(indices.buffer), floats.byteLength);
  const view = (byteOffset: number, byteLength: number) => ({ buffer: 0, byteOffset, byteLength });
  const float = (bufferView: number, count: number, type: string) => ({
    bufferView,
    count,
    type,
    componentType: 5126,
  });
  return {
    bytes,
    json: {
      asset: { version: '2.0' },
      scene: 0,
      scenes: [{ name: 'scene', nodes: [0] }],
      nodes: [
        { name: 'car', children: [1, 2], rotation: [0, 0, 0, 1] },
        { name: 'body', mesh: 0, translation: [0, random.next(), 0], scale: [1, 1, 1] },
        { name: 'wheel', mesh: 1, matrix: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 1] },
      ],
      meshes: [
        { name: 'box', primitives: [{ attributes: { POSITION: 0 }, indices: 3, material: 0 }] },
        { name: 'line', primitives: [{ attributes: { POSITION: 0 }, mode: 3 }] },
      ],
      materials: [{ name: 'paint', pbrMetallicRoughness: { baseColorFactor: [1, 0, 0, 1] } }],
      animations: [
        {
          name: 'go',
          samplers: [{ input: 1, output: 2, interpolation: 'LINEAR' }],
          channels: [{ sampler: 0, target: { node: 1, path: 'translation' } }],
        },
      ],
      accessors: [
        { ...float(0, 8, 'VEC3'), min: [-1, 0, -2], max: [1, 1, 2] },
        { ...float(1, 3, 'SCALAR'), min: [0], max: [1] },
        float(2, 3, 'VEC3'),
        { bufferView: 3, count: 12, type: 'SCALAR', componentType: 5123 },
      ],
      bufferViews: [view(0, 96), view(96, 12), view(108, 36), view(144, 24)],
      buffers: [{ byteLength: bytes.length }],
    },
  };
}

/** @param described the description, as text */
export function glbOf(described: string, bytes: Uint8Array): Uint8Array {
  const text = new TextEncoder().encode(described);
  const padded = (size: number) => size + ((4 - (size % 4)) % 4);
  const out = new Uint8Array(28 + padded(text.length) + padded(bytes.length)).fill(0x20, 20);
  const view = new DataView(out.buffer);
  [0x46546c67, 2, out.length, padded(text.length), 0x4e4f534a].forEach((word, i) =>
    view.setUint32(4 * i, word, true),
  );
  out.set(text, 20);
  const at = 20 + padded(text.length);
  view.setUint32(at, padded(bytes.length), true);
  view.setUint32(at + 4, 0x004e4942, true);
  out.fill(0, at + 8);
  out.set(bytes, at + 8);
  return out;
}
