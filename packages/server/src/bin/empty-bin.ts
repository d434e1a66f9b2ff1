import { existsSync, statSync } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { setTimeout } from 'node:timers/promises';
import { digestsOf } from '../checkpoints/pieces.js';
import { databaseFile } from '../database/database-options.js';
import type { BinChoice } from '../library/library-job.js';
import type { LibraryDatabase } from '../library/library-database.js';
import { modelPath } from '../models/model-files.js';
import { MODEL_USERS, mentionsOf } from '../models/model-users.js';
import type { EmptiedDto } from './bin.dto.js';

/** Rows that one write deletes: it keeps other writes waiting for some milliseconds. */
const ROWS = 100;
/** Pages of the file that one write gives back. */
const PAGES = 500;
/** Milliseconds between two writes, in which others have theirs. */
const PAUSE = 2;

/**
 * Deletes shots of the bin for good, with their checkpoints, the pieces that no other checkpoint has and the models that only they
 * used, and makes the file of the database smaller. Done in small writes; ended in the middle it goes on at the next start.
 */
export async function emptyBin(
  database: LibraryDatabase,
  dataFolder: string,
  which: BinChoice,
): Promise<EmptiedDto> {
  const before = sizeOf(dataFolder);
  const shots = await markedShots(database, which);
  const assets = await assetsOf(database, shots);
  let checkpoints = 0;
  for (const id of shots) checkpoints += await deleteShot(database, id);
  await deleteLoosePieces(database);
  let models = 0;
  let bytes = 0;
  for (const asset of assets) {
    const freed = await deleteUnusedModel(database, dataFolder, asset);
    if (freed === null) continue;
    models++;
    bytes += freed;
  }
  await giveBackPages(database);
  return {
    shots: shots.length,
    checkpoints,
    models,
    bytes: bytes + Math.max(0, before - sizeOf(dataFolder)),
  };
}

/** The shots that go, from here on closed to being brought back. */
async function markedShots(database: LibraryDatabase, which: BinChoice): Promise<string[]> {
  const now = new Date().toISOString();
  return database.write(async () => {
    const [where, values] =
      which === 'all'
        ? ['1', []]
        : which === 'expired'
          ? ['delete_after <= ?', [now]]
          : ['(id = ? OR delete_after <= ?)', [which.id, now]];
    const rows = await database.all<{ id: string }>(
      `SELECT id FROM shot WHERE deleted_at IS NOT NULL AND ${where}`,
      values,
    );
    await database.run(
      'UPDATE shot SET delete_after = ? WHERE id IN (SELECT value FROM json_each(?)) AND deleted_at IS NOT NULL',
      [now, JSON.stringify(rows.map(({ id }) => id))],
    );
    return rows.map(({ id }) => id);
  });
}

/** Ids of the models that shots and their checkpoints name. */
async function assetsOf(database: LibraryDatabase, shots: readonly string[]): Promise<Set<string>> {
  const assets = new Set<string>();
  for (const id of shots) {
    const rows = await database.all<{ asset: string }>(
      `SELECT DISTINCT json_extract(model.value, '$.source.asset') AS asset
       FROM (SELECT document FROM shot WHERE id = ? UNION ALL SELECT document FROM checkpoint WHERE shot_id = ?) one,
         json_each(one.document, '$.models') model
       WHERE asset IS NOT NULL`,
      [id, id],
    );
    for (const { asset } of rows) assets.add(asset);
  }
  return assets;
}

/** Checkpoints first, a few at a time: all of them in one write would keep others waiting. */
async function deleteShot(database: LibraryDatabase, id: string): Promise<number> {
  let deleted = 0;
  for (;;) {
    const rows = await database.all<{ id: string }>(
      `DELETE FROM checkpoint WHERE rowid IN (SELECT rowid FROM checkpoint WHERE shot_id = ? LIMIT ${ROWS}) RETURNING id`,
      [id],
    );
    deleted += rows.length;
    if (rows.length < ROWS) break;
    await setTimeout(PAUSE);
  }
  await database.run('DELETE FROM shot WHERE id = ? AND deleted_at IS NOT NULL', [id]);
  return deleted;
}

/** Deletes pieces that no checkpoint names. One that is kept meanwhile may name a loose piece, so each write looks at the new ones. */
async function deleteLoosePieces(database: LibraryDatabase): Promise<void> {
  const read = new Set<string>();
  const named = new Set<string>();
  const readNew = async () => {
    for (const { id } of await database.all<{ id: string }>('SELECT id FROM checkpoint')) {
      if (read.has(id)) continue;
      read.add(id);
      const row = await database.one<{ document: string }>('SELECT document FROM checkpoint WHERE id = ?', [
        id,
      ]);
      for (const digest of row ? digestsOf(row.document) : []) named.add(digest);
    }
  };
  await readNew();
  const all = await database.all<{ digest: string }>('SELECT digest FROM piece');
  const loose = all.filter(({ digest }) => !named.has(digest)).map(({ digest }) => digest);
  for (let from = 0; from < loose.length; from += ROWS) {
    await database.write(async () => {
      await readNew();
      const still = loose.slice(from, from + ROWS).filter((digest) => !named.has(digest));
      await database.run('DELETE FROM piece WHERE digest IN (SELECT value FROM json_each(?))', [
        JSON.stringify(still),
      ]);
    });
    await setTimeout(PAUSE);
  }
}

/** @returns bytes that its file had; null where something uses the model, or it came with the application */
async function deleteUnusedModel(
  database: LibraryDatabase,
  dataFolder: string,
  id: string,
): Promise<number | null> {
  const [gone] = await database.all<{ sha256: string }>(
    `DELETE FROM model WHERE id = ? AND shipped = 0 AND NOT EXISTS (${MODEL_USERS}) RETURNING sha256`,
    [id, ...mentionsOf(id)],
  );
  await setTimeout(PAUSE);
  if (gone === undefined) return null;
  if ((await database.one('SELECT 1 FROM model WHERE sha256 = ?', [gone.sha256])) !== null) return 0;
  const path = modelPath(dataFolder, gone.sha256);
  const size = existsSync(path) ? (await stat(path)).size : 0;
  await rm(path, { force: true });
  return size;
}

async function giveBackPages(database: LibraryDatabase): Promise<void> {
  for (;;) {
    const free = await database.one<{ freelist_count: number }>('PRAGMA freelist_count');
    if (free === null || free.freelist_count === 0) break;
    await database.run(`PRAGMA incremental_vacuum(${PAGES})`);
    await setTimeout(PAUSE);
  }
  await database.run('PRAGMA wal_checkpoint(TRUNCATE)');
}

/** Of the database with its log. */
function sizeOf(dataFolder: string): number {
  const file = databaseFile(dataFolder);
  return [file, `${file}-wal`].reduce((sum, one) => sum + (existsSync(one) ? statSync(one).size : 0), 0);
}
