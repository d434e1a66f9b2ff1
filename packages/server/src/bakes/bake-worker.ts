import { readFile } from 'node:fs/promises';
import { evaluateShot, sampleShot } from '@fleet-rail/core/shots';
import { assetsOf, csvParts, csvTables, readModelDocument, textBlocks } from '@fleet-rail/core/models';
import type { PathKind } from '@fleet-rail/core/format-facts';
import { serveJobs } from '../threads/serve-jobs.js';
import type { BakeJob } from './bake-job.js';

serveJobs<BakeJob, Uint8Array>(async function* (job) {
  const { shot, format, choice, only } = job;
  if (format === 'csv') {
    const { evaluated } = await played(job);
    yield* textBlocks(csvParts(evaluated, choice));
    return;
  }
  // Writers of models need memory of their own; a table does not.
  const { describeGlb, packUsdz, packZip, writeGlb, writeDressingGlb, writePath, writeUsd } =
    await import('@fleet-rail/core/formats');
  const path = format.startsWith('path.') && shot.paths.find(({ id }) => id === only);
  if (path) {
    yield (await writePath(path, format.slice('path.'.length) as PathKind, choice.within)).bytes;
    return;
  }
  const { evaluated, documents } = await played(job);
  const sampled = () => sampleShot(evaluated, { ...choice, between: true });
  switch (format) {
    case 'laid': {
      const things = evaluated.dressings().filter((thing) => thing.laid.id === only);
      yield await writeDressingGlb(shot.name, things, documents);
      break;
    }
    case 'tables': {
      const tables = csvTables(evaluated, choice).map((table) => ({ name: table.name, parts: [table.text] }));
      const poses = { name: 'poses.csv', parts: csvParts(evaluated, choice) };
      yield packZip([poses, ...tables].map(({ name, parts }) => ({ name, bytes: encoded(parts) })));
      break;
    }
    case 'usd': {
      const { layer, pictures } = writeUsd(sampled(), documents, choice);
      if (pictures.length === 0) yield* textBlocks(layer);
      else yield packZip([{ name: 'shot.usda', bytes: encoded(layer) }, ...pictures]);
      break;
    }
    case 'usdz':
      yield packUsdz(writeUsd(sampled(), documents, choice), 'shot.usda');
      break;
    case 'about':
      yield new TextEncoder().encode(JSON.stringify(await describeGlb(sampled(), documents, choice)));
      break;
    case 'glb':
      yield await writeGlb(sampled(), documents, choice);
  }
});

/** A job's shot with the models that it is played with, by the document's ids. */
async function played({ shot, models }: BakeJob) {
  const documents = new Map();
  for (const [id, { path, fileName }] of models) {
    documents.set(id, await readModelDocument(await readFile(path), fileName));
  }
  return { documents, evaluated: evaluateShot(shot, await assetsOf(shot, documents)) };
}

/** Texts as the bytes of one file; joined first, they could be longer than a text may be. */
function encoded(parts: Iterable<string>): Uint8Array {
  return Buffer.concat([...textBlocks(parts)]);
}
