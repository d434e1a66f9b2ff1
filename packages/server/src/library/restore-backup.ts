import { createHash, randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { parseShot, type Shot } from '@fleet-rail/core/shots';
import { binUntil } from '../bin/bin-until.js';
import { piecesOf } from '../checkpoints/pieces.js';
import { columnsOf } from '../documents/checked-shot.js';
import { modelPath } from '../models/model-files.js';
import { ModelReader } from '../models/model-reader.js';
import { nameOf } from '../models/model-name.js';
import { BackupRefused, BackupZip } from './backup-zip.js';
import type { LibraryDatabase } from './library-database.js';
import { INDEX_FILE, IndexError, readIndex, type LibraryIndex, type ShotEntry } from './library-index.js';
import type { RestoredDto } from './library.dto.js';

type Progress = { readonly done: number; readonly of: number };

/** Tables beside the library, in a file of their own, that hold what is to be written until all of it is known. */
const STAGING = ['shot', 'checkpoint', 'piece', 'model'];

/**
 * Takes a backup in beside what is there: nothing that is kept is changed. The whole index is checked first; documents and models are
 * read into tables beside the library, and all of them are written in one transaction at the end.
 */
export class Restore {
  private readonly result: RestoredDto = { shots: 0, checkpoints: 0, models: 0, there: 0, refused: [] };
  /** Ids of models here by their ids in the backup. */
  private readonly assets = new Map<string, string>();
  /** By digest and file name the models of this backup that are taken. */
  private readonly taken = new Map<string, string>();
  /** Ids of shots here by their ids in the backup, without those restored before. */
  private readonly shots = new Map<string, string>();
  private readonly reader = new ModelReader();

  private constructor(
    private readonly database: LibraryDatabase,
    private readonly zip: BackupZip,
    private readonly index: LibraryIndex,
    private readonly dataFolder: string,
    private readonly staging: string,
  ) {}

  /**
   * @param staging a folder that is this restore's alone, deleted by whoever made it
   * @throws BackupRefused for what is no backup
   */
  static async open(
    database: LibraryDatabase,
    path: string,
    dataFolder: string,
    staging: string,
  ): Promise<Restore> {
    const zip = await BackupZip.open(path);
    if (!zip.has(INDEX_FILE)) {
      zip.close();
      throw new BackupRefused(`This is not a backup: expected a zip with ${INDEX_FILE} in it.`);
    }
    try {
      const index = readIndex((await zip.read(INDEX_FILE)).toString('utf8'));
      return new Restore(database, zip, index, dataFolder, staging);
    } catch (error) {
      zip.close();
      throw error instanceof IndexError ? new BackupRefused(error.message) : error;
    }
  }

  /** Does all of it; gives how far it is, then that all is read and is written now, then what came of it. */
  async *run(): AsyncGenerator<Progress | { restored: RestoredDto }> {
    const { models, shots, checkpoints } = this.index;
    const of = models.length + shots.length + checkpoints.length;
    let done = 0;
    try {
      await this.openStaging();
      for (const model of models) {
        yield { done: done++, of };
        await this.takeModel(model);
      }
      await this.database.run('BEGIN');
      for (const shot of shots) {
        yield { done: done++, of };
        await this.takeShot(shot);
      }
      for (const checkpoint of checkpoints) {
        yield { done: done++, of };
        await this.takeCheckpoint(checkpoint);
      }
      await this.database.run('COMMIT');
      // The client is told before anything is written; it cannot cancel from here on.
      yield { done: of, of };
      await this.write();
      yield { restored: this.result };
    } finally {
      this.zip.close();
      await this.reader.onModuleDestroy();
    }
  }

  private async openStaging(): Promise<void> {
    await mkdir(this.staging, { recursive: true });
    await this.database.run('ATTACH ? AS staging', [join(this.staging, 'staging.sqlite')]);
    await this.database.run('PRAGMA staging.journal_mode = MEMORY');
    await this.database.run('PRAGMA staging.synchronous = OFF');
    for (const table of STAGING)
      await this.database.run(`CREATE TABLE staging.${table} AS SELECT * FROM main.${table} WHERE 0`);
    await this.database.run('CREATE UNIQUE INDEX staging.piece_digest ON piece (digest)');
  }

  private async takeModel({ id, fileName, sha256 }: LibraryIndex['models'][number]): Promise<void> {
    const same = await this.database.one<{ id: string }>(
      'SELECT id FROM main.model WHERE sha256 = ? AND (id = ? OR file_name = ?) ORDER BY id = ? DESC',
      [sha256, id, fileName, id],
    );
    const twin = this.taken.get(`${sha256} ${fileName}`);
    if (same !== null || twin !== undefined) {
      this.assets.set(id, same?.id ?? twin ?? id);
      this.result.there++;
      return;
    }
    try {
      const bytes = await this.zip.read(`models/${sha256}`);
      if (digestOf(bytes) !== sha256)
        throw new BackupRefused('is not what was backed up: its bytes were changed');
      const { facts, fileName: kept, converted } = await this.reader.read([{ name: fileName, bytes }]);
      const stored = converted ?? bytes;
      const digest = digestOf(stored);
      const own = await this.freeId('model', id);
      await writeFile(join(this.staging, digest), stored);
      await this.insert('model', {
        id: own,
        name: nameOf(kept),
        file_name: kept,
        sha256: digest,
        bytes: stored.byteLength,
        facts: JSON.stringify(facts),
        shipped: 0,
        created_at: new Date().toISOString(),
      });
      this.assets.set(id, own);
      this.taken.set(`${sha256} ${fileName}`, own);
      this.result.models++;
    } catch (error) {
      this.result.refused.push(`model ${fileName}: ${(error as Error).message.slice(0, 300)}`);
    }
  }

  private async takeShot(entry: ShotEntry): Promise<void> {
    const shot = await this.documentOf(`shots/${entry.id}.json`, `shot "${entry.name}"`);
    if (shot === null) return;
    const there = await this.database.one<{ document: string }>(
      'SELECT document FROM main.shot WHERE id = ?',
      [entry.id],
    );
    const columns = columnsOf(shot);
    // As it would be stored today: one that an earlier version saved lacks what is new.
    if (there && columnsOf(parseShot(JSON.parse(there.document))).document === columns.document) {
      this.result.there++;
      this.shots.set(entry.id, entry.id);
      return;
    }
    // One that was restored before, and not touched since, is not taken twice.
    const again = there && columnsOf({ ...shot, name: `${shot.name.slice(0, 180)}, restored` });
    const known =
      again && (await this.database.one('SELECT 1 FROM main.shot WHERE document = ?', [again.document]));
    if (known) {
      this.result.there++;
      return;
    }
    const id = there === null ? entry.id : randomUUID();
    const { revision, createdAt, updatedAt } = entry;
    const deletedAt = entry.deletedAt ?? null;
    await this.insert('shot', {
      id,
      ...(again ?? columns),
      revision,
      created_at: createdAt,
      updated_at: updatedAt,
      deleted_at: deletedAt,
      delete_after: deletedAt === null ? null : binUntil(new Date()),
    });
    this.shots.set(entry.id, id);
    this.result.shots++;
  }

  private async takeCheckpoint(entry: LibraryIndex['checkpoints'][number]): Promise<void> {
    const { id, shotId, name, revision, createdAt } = entry;
    const own = this.shots.get(shotId);
    if (own === undefined) return;
    const isThere =
      (await this.database.one('SELECT 1 FROM main.checkpoint WHERE id = ? AND shot_id = ?', [id, own])) !==
      null;
    if (isThere) {
      this.result.there++;
      return;
    }
    const shot = await this.documentOf(`checkpoints/${id}.json`, `checkpoint "${name}"`);
    if (shot === null) return;
    const { outline, pieces } = piecesOf(JSON.stringify(shot));
    for (const [digest, bytes] of pieces)
      await this.database.run('INSERT OR IGNORE INTO staging.piece (digest, bytes) VALUES (?, ?)', [
        digest,
        bytes,
      ]);
    await this.insert('checkpoint', {
      id: own === shotId ? await this.freeId('checkpoint', id) : randomUUID(),
      shot_id: own,
      name,
      revision,
      document: outline,
      created_at: createdAt,
    });
    this.result.checkpoints++;
  }

  private async documentOf(file: string, what: string): Promise<Shot | null> {
    try {
      const shot = parseShot(JSON.parse((await this.zip.read(file)).toString('utf8')));
      const models = shot.models.map((model) => {
        const asset = model.source.asset && this.assets.get(model.source.asset);
        return asset ? { ...model, source: { asset } } : model;
      });
      return { ...shot, models };
    } catch (error) {
      this.result.refused.push(`${what}: ${(error as Error).message.slice(0, 200)}`);
      return null;
    }
  }

  /** Files first, then all rows in one transaction: files that no row is kept for are deleted again. */
  private async write(): Promise<void> {
    const placed: string[] = [];
    try {
      const models = await this.database.all<{ sha256: string }>('SELECT DISTINCT sha256 FROM staging.model');
      for (const { sha256 } of models) {
        const path = modelPath(this.dataFolder, sha256);
        if (existsSync(path)) continue;
        await mkdir(dirname(path), { recursive: true });
        await rename(join(this.staging, sha256), path);
        placed.push(path);
      }
      await this.database.write(async () => {
        for (const table of ['model', 'shot', 'checkpoint'])
          await this.database.run(`INSERT INTO main.${table} SELECT * FROM staging.${table}`);
        await this.database.run('INSERT OR IGNORE INTO main.piece SELECT * FROM staging.piece');
      });
    } catch (error) {
      for (const path of placed) await rm(path, { force: true });
      throw error;
    }
  }

  private async freeId(table: string, id: string): Promise<string> {
    const taken = await this.database.one(`SELECT 1 FROM main.${table} WHERE id = ?`, [id]);
    return taken === null ? id : randomUUID();
  }

  private insert(table: string, row: Readonly<Record<string, unknown>>): Promise<void> {
    const names = Object.keys(row);
    return this.database.run(
      `INSERT INTO staging.${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`,
      Object.values(row),
    );
  }
}

const digestOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
