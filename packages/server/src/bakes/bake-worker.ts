import { readFile } from 'node:fs/promises';
import { parentPort, workerData } from 'node:worker_threads';
import { evaluateShot, sampleShot } from '@fleet-rail/core';
import { FormatError, readModelDocument, assetsOf, writeCsv, writeGlb } from '@fleet-rail/core/formats';
import type { BakeAnswer, BakeJob } from './bake-job.js';

async function bake({ shot, format, models, within }: BakeJob): Promise<Uint8Array> {
  const documents = new Map();
  for (const [id, { path, fileName }] of models) {
    documents.set(id, await readModelDocument(await readFile(path), fileName));
  }
  const sampled = sampleShot(evaluateShot(shot, assetsOf(shot, documents)));
  if (format === 'csv') return new TextEncoder().encode(writeCsv(sampled));
  return writeGlb(sampled, documents, within);
}

async function answer(): Promise<BakeAnswer> {
  try {
    return { bytes: await bake(workerData as BakeJob) };
  } catch (error) {
    if (error instanceof FormatError) return { refusal: error.message };
    throw error;
  }
}

parentPort?.postMessage(await answer());
