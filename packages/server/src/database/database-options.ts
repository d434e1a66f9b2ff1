import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Database } from 'better-sqlite3';
import type { DataSourceOptions } from 'typeorm';
import { ModelEntity } from '../models/model.entity.js';
import { SeedEntity } from '../seed/seed.entity.js';
import { ShotEntity } from '../shots/shot.entity.js';
import { CheckpointEntity } from '../checkpoints/checkpoint.entity.js';
import { PieceEntity } from '../checkpoints/piece.entity.js';
import { PictureJobEntity } from '../pool/picture-job.entity.js';
import { PictureRunEntity } from '../pool/picture-batch.entity.js';
import { FirstTables1764000000000 } from './migrations/1-first-tables.js';
import { Checkpoints1764200000000 } from './migrations/2-checkpoints.js';
import { NamedSaves1764300000000 } from './migrations/3-named-saves.js';
import { Pieces1764400000000 } from './migrations/4-pieces.js';
import { PicturePool1764500000000 } from './migrations/5-picture-pool.js';
import { PausedRuns1764600000000 } from './migrations/6-paused-runs.js';
import { Bin1764700000000 } from './migrations/7-bin.js';

export const databaseFile = (dataFolder: string): string => join(dataFolder, 'fleet-rail.sqlite');

/** Lets the file of a database become smaller when rows are deleted; one that was made without that is rewritten once. */
function letShrink(database: Database): void {
  if (database.pragma('auto_vacuum', { simple: true }) === INCREMENTAL) return;
  database.pragma(`auto_vacuum = ${INCREMENTAL}`);
  database.exec('VACUUM');
}

const INCREMENTAL = 2;

/** SQLite in the data folder, with a write-ahead log; its tables come from migrations alone. */
export function databaseOptions(dataFolder: string): DataSourceOptions {
  mkdirSync(dataFolder, { recursive: true });
  return {
    type: 'better-sqlite3',
    database: databaseFile(dataFolder),
    prepareDatabase: letShrink,
    enableWAL: true,
    entities: [
      ShotEntity,
      CheckpointEntity,
      PieceEntity,
      ModelEntity,
      SeedEntity,
      PictureJobEntity,
      PictureRunEntity,
    ],
    migrations: [
      FirstTables1764000000000,
      Checkpoints1764200000000,
      NamedSaves1764300000000,
      Pieces1764400000000,
      PicturePool1764500000000,
      PausedRuns1764600000000,
      Bin1764700000000,
    ],
    migrationsRun: true,
    synchronize: false,
  };
}
