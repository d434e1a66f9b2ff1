import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures are jobs, split into batches that renderers draw. */
export class PicturePool1764500000000 implements MigrationInterface {
  readonly name = 'PicturePool1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE picture_job (
      id TEXT PRIMARY KEY, shot_id TEXT, name TEXT NOT NULL, work TEXT NOT NULL, pictures INTEGER NOT NULL,
      width INTEGER NOT NULL, height INTEGER NOT NULL, state TEXT NOT NULL, problem TEXT,
      file_name TEXT NOT NULL, bytes INTEGER, created_at TEXT NOT NULL, done_at TEXT) STRICT`);
    await runner.query(`CREATE TABLE picture_run (
      id TEXT PRIMARY KEY, job_id TEXT NOT NULL REFERENCES picture_job (id) ON DELETE CASCADE,
      place INTEGER NOT NULL, kind TEXT NOT NULL, first INTEGER NOT NULL, count INTEGER NOT NULL,
      state TEXT NOT NULL, taker TEXT, until INTEGER, done INTEGER NOT NULL, lost INTEGER NOT NULL) STRICT`);
    await runner.query('CREATE INDEX picture_run_of_job ON picture_run (job_id, place)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE picture_run');
    await runner.query('DROP TABLE picture_job');
  }
}
