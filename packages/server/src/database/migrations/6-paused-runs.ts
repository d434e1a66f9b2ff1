import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * A run that fails again and again is paused by itself, with its reason, and the job goes on. A job that was given up before has lost
 * its pictures: all its runs are paused, so that it can be tried again.
 */
export class PausedRuns1764600000000 implements MigrationInterface {
  readonly name = 'PausedRuns1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE picture_run ADD COLUMN problem TEXT');
    await runner.query(`UPDATE picture_run SET state = 'paused', taker = NULL, until = NULL, done = 0,
      problem = (SELECT coalesce(problem, 'It failed.') FROM picture_job WHERE id = job_id)
      WHERE job_id IN (SELECT id FROM picture_job WHERE state = 'failed')`);
    await runner.query("UPDATE picture_job SET state = 'drawing' WHERE state = 'failed'");
    await runner.query('ALTER TABLE picture_job DROP COLUMN problem');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE picture_job ADD COLUMN problem TEXT');
    await runner.query(`UPDATE picture_job SET state = 'failed',
      problem = (SELECT problem FROM picture_run WHERE job_id = picture_job.id AND state = 'paused' LIMIT 1)
      WHERE id IN (SELECT job_id FROM picture_run WHERE state = 'paused')`);
    await runner.query("DELETE FROM picture_job WHERE state = 'adding'");
    await runner.query('ALTER TABLE picture_run DROP COLUMN problem');
  }
}
