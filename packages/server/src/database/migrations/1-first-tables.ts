import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Shots, their versions, models, and the record of what was seeded. */
export class FirstTables1764000000000 implements MigrationInterface {
  readonly name = 'FirstTables1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE shot (
      id TEXT PRIMARY KEY, name TEXT NOT NULL, revision INTEGER NOT NULL, document TEXT NOT NULL,
      sketch TEXT NOT NULL, created_at TEXT NOT NULL, updated_at TEXT NOT NULL, deleted_at TEXT
    ) STRICT`);
    await runner.query(`CREATE TABLE version (
      id TEXT PRIMARY KEY, shot_id TEXT NOT NULL REFERENCES shot(id) ON DELETE CASCADE,
      name TEXT NOT NULL, revision INTEGER NOT NULL, document TEXT NOT NULL, created_at TEXT NOT NULL
    ) STRICT`);
    await runner.query(`CREATE INDEX version_of_shot ON version (shot_id, created_at)`);
    await runner.query(`CREATE TABLE model (
      id TEXT PRIMARY KEY, name TEXT NOT NULL, file_name TEXT NOT NULL, sha256 TEXT NOT NULL,
      bytes INTEGER NOT NULL, facts TEXT NOT NULL, shipped INTEGER NOT NULL, created_at TEXT NOT NULL
    ) STRICT`);
    await runner.query(`CREATE INDEX model_file_name ON model (file_name)`);
    await runner.query(`CREATE TABLE seed (name TEXT PRIMARY KEY, created_at TEXT NOT NULL) STRICT`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['seed', 'model', 'version', 'shot']) await runner.query(`DROP TABLE ${table}`);
  }
}
