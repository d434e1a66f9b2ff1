import { readFile } from 'node:fs/promises';
import { evaluateShot, sampleShot } from '@fleet-rail/core/shots';
import { assetsOf, csvParts, csvTables, readModelDocument, textBlocks } from '@fleet-rail/core/models';
import type { PathKind } from '@fleet-rail/core/format-facts';
import { serveJobs } from '../threads/serve-jobs.js';
import type { BakeJob } from './bake-job.js';

serveJobs<BakeJob, Uint8Array>(async function* ({ shot, format, models, choice, only }) {
  // What writes models takes memory of its own, which a table has no use for.
  const writers = () => import('@fleet-rail/core/formats');
  const path = format.startsWith('path.') && shot.paths.find(({ id }) => id === only);
  if (path) {
    const { writePath } = await writers();
    yield (await writePath(path, format.slice('path.'.length) as PathKind, choice.within)).bytes;
    return;
  }
  const documents = new Map();
  for (const [id, { path, fileName }] of models) {
    documents.set(id, await readModelDocument(await readFile(path), fileName));
  }
  const evaluated = evaluateShot(shot, await assetsOf(shot, documents));
  const sampled = () => sampleShot(evaluated, { ...choice, between: true });
  switch (format) {
    case 'laid': {
      const { writeLaidGlb } = await writers();
      const things = evaluated.laid().filter((thing) => thing.laid.id === only);
      yield await writeLaidGlb(shot.name, things, documents);
      break;
    }
    case 'csv':
      yield* textBlocks(csvParts(evaluated, choice));
      break;
    case 'tables': {
      const { packZip } = await writers();
      const tables = csvTables(evaluated, choice).map((table) => ({ name: table.name, parts: [table.text] }));
      const poses = { name: 'poses.csv', parts: csvParts(evaluated, choice) };
      yield packZip([poses, ...tables].map(({ name, parts }) => ({ name, bytes: encoded(parts) })));
      break;
    }
    case 'usd': {
      const { packZip, writeUsd } = await writers();
      const { layer, pictures } = writeUsd(sampled(), documents, choice);
      if (pictures.length === 0) yield* textBlocks(layer);
      else yield packZip([{ name: 'shot.usda', bytes: encoded(layer) }, ...pictures]);
      break;
    }
    case 'usdz': {
      const { packUsdz, writeUsd } = await writers();
      yield packUsdz(writeUsd(sampled(), documents, choice), 'shot.usda');
      break;
    }
    case 'about': {
      const { describeGlb } = await writers();
      yield new TextEncoder().encode(JSON.stringify(await describeGlb(sampled(), documents, choice)));
      break;
    }
    case 'glb': {
      const { writeGlb } = await writers();
      yield await writeGlb(sampled(), documents, choice);
    }
  }
});

/** Texts as the bytes of one file; joined first, they could be longer than a text may be. */
function encoded(parts: Iterable<string>): Uint8Array {
  return Buffer.concat(Array.from(parts, (part) => Buffer.from(part)));
}
