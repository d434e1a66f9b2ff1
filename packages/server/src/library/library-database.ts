import { DataSource } from 'typeorm';
import { databaseOptions } from '../database/database-options.js';

/** Milliseconds to wait for the server's own writes, each of which takes a few. */
const BUSY_TIMEOUT = 10_000;

/** A connection of a thread's own to the server's database, whose tables are there already. */
export class LibraryDatabase {
  private constructor(private readonly source: DataSource) {}

  static async open(dataFolder: string): Promise<LibraryDatabase> {
    const source = new DataSource({ ...databaseOptions(dataFolder), migrationsRun: false });
    await source.initialize();
    await source.query(`PRAGMA busy_timeout = ${BUSY_TIMEOUT}`);
    return new LibraryDatabase(source);
  }

  all<Row>(sql: string, values: readonly unknown[] = []): Promise<Row[]> {
    return this.source.query(sql, [...values]) as Promise<Row[]>;
  }

  async one<Row>(sql: string, values: readonly unknown[] = []): Promise<Row | null> {
    return (await this.all<Row>(sql, values))[0] ?? null;
  }

  async run(sql: string, values: readonly unknown[] = []): Promise<void> {
    await this.source.query(sql, [...values]);
  }

  /** Runs something as one write, wholly or not at all; no one else writes in between. */
  async write<Result>(work: () => Promise<Result>): Promise<Result> {
    await this.run('BEGIN IMMEDIATE');
    try {
      const result = await work();
      await this.run('COMMIT');
      return result;
    } catch (error) {
      await this.run('ROLLBACK');
      throw error;
    }
  }

  close(): Promise<void> {
    return this.source.destroy();
  }
}
