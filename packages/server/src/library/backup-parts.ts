import { createReadStream, existsSync } from 'node:fs';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { wholeOf, digestsOf } from '../checkpoints/pieces.js';
import { modelPath } from '../models/model-files.js';
import type { LibraryDatabase } from './library-database.js';
import {
  INDEX_FILE,
  type CheckpointEntry,
  type LibraryIndex,
  type ModelEntry,
  type ShotEntry,
} from './library-index.js';

/** Twice as quick as the usual level, for a tenth more bytes. */
const LEVEL = 2;
/** Bytes that are sent from thread to thread at a time. */
const BLOCK = 2 ** 20;

/**
 * All stored data, as the parts of one zip: a snapshot of the moment at which the first part was requested. Missing
 * or broken data is left out and listed in the index.
 */
export async function* backupParts(
  database: LibraryDatabase,
  dataFolder: string,
): AsyncGenerator<Uint8Array> {
  await database.run('BEGIN');
  const missing: string[] = [];
  const shots = await database.all<ShotEntry>(
    'SELECT id, name, revision, created_at AS createdAt, updated_at AS updatedAt, deleted_at AS deletedAt FROM shot',
  );
  const checkpoints = await database.all<CheckpointEntry>(
    'SELECT id, shot_id AS shotId, name, revision, created_at AS createdAt FROM checkpoint',
  );
  const models = (
    await database.all<ModelEntry>('SELECT id, name, file_name AS fileName, sha256, shipped FROM model')
  ).map((model) => ({ ...model, shipped: Boolean(model.shipped) }));
  const zip = new ZipFile();
  const add = (name: string, text: () => Promise<string>) =>
    zip.addReadStreamLazy(name, { compressionLevel: LEVEL }, (give) => {
      text().then(
        (content) => give(null, Readable.from([Buffer.from(content)])),
        (error: unknown) => give(error, Readable.from([])),
      );
    });
  for (const { id } of shots) add(`shots/${id}.json`, () => documentOf(database, 'shot', id));
  for (const { id, name } of checkpoints)
    add(`checkpoints/${id}.json`, async () => {
      try {
        return await wholeCheckpoint(database, id);
      } catch (error) {
        missing.push(`The checkpoint "${name}" is broken: ${(error as Error).message}`);
        return 'null';
      }
    });
  for (const { sha256, fileName } of new Map(models.map((model) => [model.sha256, model])).values()) {
    const path = modelPath(dataFolder, sha256);
    // Models are packed by their own formats, or would hardly get smaller.
    if (existsSync(path))
      zip.addReadStreamLazy(`models/${sha256}`, { compress: false }, (give) =>
        give(null, createReadStream(path)),
      );
    else missing.push(`The model file ${fileName} is missing.`);
  }
  // Last, when all that is missing is known.
  add(INDEX_FILE, async () => {
    const index: LibraryIndex = {
      format: 'fleet-rail-library',
      version: 1,
      shots,
      checkpoints,
      models,
      missing,
    };
    return JSON.stringify(index, null, 1);
  });
  zip.end();
  yield* inBlocks(zip.outputStream as AsyncIterable<Buffer>);
  await database.run('COMMIT');
}

/** A zip comes in many small parts, each of which would be a message between threads: joined to blocks they are a hundredth. */
async function* inBlocks(parts: AsyncIterable<Buffer>): AsyncGenerator<Uint8Array> {
  let held: Buffer[] = [];
  let bytes = 0;
  for await (const part of parts) {
    held.push(part);
    bytes += part.length;
    if (bytes < BLOCK) continue;
    yield Uint8Array.from(Buffer.concat(held));
    held = [];
    bytes = 0;
  }
  if (bytes > 0) yield Uint8Array.from(Buffer.concat(held));
}

async function documentOf(
  database: LibraryDatabase,
  table: 'shot' | 'checkpoint',
  id: string,
): Promise<string> {
  const row = await database.one<{ document: string }>(`SELECT document FROM ${table} WHERE id = ?`, [id]);
  return row?.document ?? 'null';
}

async function wholeCheckpoint(database: LibraryDatabase, id: string): Promise<string> {
  const outline = await documentOf(database, 'checkpoint', id);
  const digests = digestsOf(outline);
  const rows = await database.all<{ digest: string; bytes: Buffer }>(
    'SELECT digest, bytes FROM piece WHERE digest IN (SELECT value FROM json_each(?))',
    [JSON.stringify(digests)],
  );
  return wholeOf(outline, new Map(rows.map(({ digest, bytes }) => [digest, bytes])));
}
