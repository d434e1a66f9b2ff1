import { readFile } from 'node:fs/promises';
import { evaluateShot, sampleShot } from '@fleet-rail/core';
import { assetsOf, csvParts, readModelDocument, writeGlb, writeLaidGlb } from '@fleet-rail/core/formats';
import { serveJobs } from '../threads/serve-jobs.js';
import type { BakeJob } from './bake-job.js';

serveJobs<BakeJob, Uint8Array>(async function* ({ shot, format, models, within, laid }) {
  const documents = new Map();
  for (const [id, { path, fileName }] of models) {
    documents.set(id, await readModelDocument(await readFile(path), fileName));
  }
  const evaluated = evaluateShot(shot, await assetsOf(shot, documents));
  const text = new TextEncoder();
  if (format === 'laid') {
    const things = evaluated.laid().filter((thing) => thing.laid.id === laid);
    yield await writeLaidGlb(shot.name, things, documents);
  } else if (format === 'csv') for (const part of csvParts(evaluated)) yield text.encode(part);
  else yield await writeGlb(sampleShot(evaluated), documents, { within });
});
