import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import Database from 'better-sqlite3';

/** A data folder that another server uses. */
export class FolderInUse extends Error {
  override readonly name = 'FolderInUse';
}

/**
 * Restricts a data folder to one server. SQLite locks a file in it while the process lives: the system releases that
 * lock however the process ends, so a killed server leaves nothing behind that stops the next one.
 */
@Injectable()
export class FolderLock implements OnApplicationShutdown {
  private constructor(
    private readonly folder: string,
    private readonly database: Database.Database,
  ) {}

  /** @throws FolderInUse where another server has the folder */
  static take(folder: string): FolderLock {
    const database = openLock(folder);
    try {
      database.exec('BEGIN EXCLUSIVE');
    } catch (error) {
      database.close();
      if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
      throw new FolderInUse(
        `Another Fleet Rail server${addressIn(folder)} uses the folder ${folder}. Close it, or set FLEET_RAIL_DATA to another folder.`,
      );
    }
    return new FolderLock(folder, database);
  }

  /** Notes where this server is, for one that finds the folder taken. */
  note(address: string): void {
    writeFileSync(addressFile(this.folder), address);
  }

  onApplicationShutdown(): void {
    rmSync(addressFile(this.folder), { force: true });
    this.database.close();
  }
}

function openLock(folder: string): Database.Database {
  try {
    mkdirSync(folder, { recursive: true });
    return new Database(join(folder, 'server.lock'), { timeout: 0 });
  } catch (error) {
    const { message } = error as Error;
    throw new Error(`the data folder ${folder} cannot be used: ${message}`, { cause: error });
  }
}

const addressFile = (folder: string): string => join(folder, 'server.address');

function addressIn(folder: string): string {
  try {
    return ` (${readFileSync(addressFile(folder), 'utf8').slice(0, 100)})`;
  } catch {
    return '';
  }
}
