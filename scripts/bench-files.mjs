// How long files take to read and to write.
import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import { Document, WebIO } from '@gltf-transform/core';
import { evaluateShot, parseShotText, sampleShot } from '@fleet-rail/core';
import {
  assetsOf,
  readModelDocument,
  readPaths,
  takeModelWithFacts,
  writeCsv,
  writeGlb,
  writeUsd,
} from '@fleet-rail/core/formats';

const MADE = new URL('../demo/made/', import.meta.url);

async function timed(work) {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** A sphere of 1.4 million vertices, as indexed triangles. */
async function largeModel() {
  const document = new Document();
  const buffer = document.createBuffer();
  const [rings, sides] = [1000, 1400];
  const positions = new Float32Array(3 * rings * sides);
  for (let r = 0; r < rings; r++)
    for (let s = 0; s < sides; s++) {
      const [a, b] = [(Math.PI * (r + 0.5)) / rings, (2 * Math.PI * s) / sides];
      positions.set(
        [Math.sin(a) * Math.cos(b), 1 + Math.cos(a), Math.sin(a) * Math.sin(b)],
        3 * (r * sides + s),
      );
    }
  const indices = new Uint32Array(6 * (rings - 1) * sides);
  for (let r = 0, at = 0; r + 1 < rings; r++)
    for (let s = 0; s < sides; s++, at += 6) {
      const [i, j] = [r * sides + s, r * sides + ((s + 1) % sides)];
      indices.set([i, j, i + sides, j, j + sides, i + sides], at);
    }
  const accessor = (type, array) => document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', positions))
    .setIndices(accessor('SCALAR', indices));
  const node = document.createNode('globe').setMesh(document.createMesh('globe').addPrimitive(primitive));
  document.createScene().addChild(node);
  return new WebIO().writeBinary(document);
}

/** A drawing of 5 MB: paths of cubics in groups with transforms and classes. */
function largeDrawing() {
  const paths = Array.from({ length: 1500 }, (_, i) => {
    const curves = Array.from({ length: 60 }, (_, k) => {
      const at = (n) => (((i * 7919 + k * 104729 + n * 1299709) % 100000) / 100).toFixed(2);
      return `C${at(1)} ${at(2)} ${at(3)} ${at(4)} ${at(5)} ${at(6)}`;
    });
    return `<path class="way" id="p${i}" transform="rotate(${i % 360})" d="M0 0${curves.join('')}"/>`;
  });
  const text = `<svg xmlns="http://www.w3.org/2000/svg"><style>.way{stroke:#000;fill:none}</style>${paths.join('')}</svg>`;
  return new Uint8Array(Buffer.from(text));
}

export async function benchFiles({ line }) {
  const glb = await largeModel();
  const size = (bytes) => `${(bytes.byteLength / 1e6).toFixed(0)} MB`;
  line(
    `A GLB of ${size(glb)} taken in, with all that is found in it (wanted: 1,500 ms or less)`,
    `${(await timed(() => takeModelWithFacts([{ name: 'globe.glb', bytes: glb }]))).toFixed(0)} ms`,
  );
  const svg = largeDrawing();
  const options = { scale: 1, fps: 24, firstFrame: 1, tolerance: 0.01 };
  line(
    `A drawing of ${size(svg)}, 1,500 paths of 60 curves`,
    `${(await timed(() => readPaths(svg, 'large.svg', options))).toFixed(0)} ms`,
  );
  const shot = parseShotText(readFileSync(new URL('quillfen-orchard.shot.json', MADE), 'utf8'));
  const models = new Map();
  for (const { id, source } of shot.models)
    models.set(
      id,
      await readModelDocument(new Uint8Array(readFileSync(new URL(source.file, MADE))), source.file),
    );
  const evaluated = evaluateShot(shot, await assetsOf(shot, models));
  const frames = shot.range.last - shot.range.first + 1;
  const sampled = sampleShot(evaluated, { closing: true, between: true });
  for (const [name, write] of [
    ['GLB', () => writeGlb(sampled, models)],
    ['GLB, thinned within 5 mm', () => writeGlb(sampled, models, { within: 0.005 })],
    ['USD', () => writeUsd(sampled, models)],
    ['CSV, sampled with it', () => writeCsv(evaluated)],
  ])
    line(`The demo, ${frames} frames, as ${name}`, `${(await timed(write)).toFixed(0)} ms`);
}
