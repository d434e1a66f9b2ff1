import { readFile } from 'node:fs/promises';
import { evaluateShot, sampleShot } from '@fleet-rail/core';
import {
  assetsOf,
  csvParts,
  csvTables,
  describeGlb,
  packUsdz,
  packZip,
  readModelDocument,
  writeGlb,
  writeLaidGlb,
  writePath,
  writeUsd,
  type PathKind,
} from '@fleet-rail/core/formats';
import { serveJobs } from '../threads/serve-jobs.js';
import type { BakeJob } from './bake-job.js';

serveJobs<BakeJob, Uint8Array>(async function* ({ shot, format, models, choice, only }) {
  const path = format.startsWith('path.') && shot.paths.find(({ id }) => id === only);
  if (path) {
    yield (await writePath(path, format.slice('path.'.length) as PathKind, choice.within)).bytes;
    return;
  }
  const documents = new Map();
  for (const [id, { path, fileName }] of models) {
    documents.set(id, await readModelDocument(await readFile(path), fileName));
  }
  const evaluated = evaluateShot(shot, await assetsOf(shot, documents));
  const text = new TextEncoder();
  const sampled = () => sampleShot(evaluated, { ...choice, between: true });
  switch (format) {
    case 'laid': {
      const things = evaluated.laid().filter((thing) => thing.laid.id === only);
      yield await writeLaidGlb(shot.name, things, documents);
      break;
    }
    case 'csv':
      for (const part of csvParts(evaluated, choice)) yield text.encode(part);
      break;
    case 'tables': {
      const tables = csvTables(evaluated, choice).map((table) => ({ name: table.name, parts: [table.text] }));
      const poses = { name: 'poses.csv', parts: csvParts(evaluated, choice) };
      yield packZip([poses, ...tables].map(({ name, parts }) => ({ name, bytes: encoded(parts) })));
      break;
    }
    case 'usd': {
      const { layer, pictures } = writeUsd(sampled(), documents, choice);
      if (pictures.length === 0) for (const part of layer) yield text.encode(part);
      else yield packZip([{ name: 'shot.usda', bytes: encoded(layer) }, ...pictures]);
      break;
    }
    case 'usdz':
      yield packUsdz(writeUsd(sampled(), documents, choice), 'shot.usda');
      break;
    case 'about':
      yield text.encode(JSON.stringify(await describeGlb(sampled(), documents, choice)));
      break;
    case 'glb':
      yield await writeGlb(sampled(), documents, choice);
  }
});

/** Texts as the bytes of one file; joined first, they could be longer than a text may be. */
function encoded(parts: Iterable<string>): Uint8Array {
  return Buffer.concat(Array.from(parts, (part) => Buffer.from(part)));
}
