import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Saves have names, so that one whose answer was lost is known again. */
export class NamedSaves1764300000000 implements MigrationInterface {
  readonly name = 'NamedSaves1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shot ADD COLUMN last_save TEXT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shot DROP COLUMN last_save');
  }
}
