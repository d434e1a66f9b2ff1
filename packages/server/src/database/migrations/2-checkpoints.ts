import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables use the word of the screen: checkpoints. */
export class Checkpoints1764200000000 implements MigrationInterface {
  readonly name = 'Checkpoints1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE version RENAME TO checkpoint');
    await runner.query('DROP INDEX version_of_shot');
    await runner.query('CREATE INDEX checkpoint_of_shot ON checkpoint (shot_id, created_at)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX checkpoint_of_shot');
    await runner.query('ALTER TABLE checkpoint RENAME TO version');
    await runner.query('CREATE INDEX version_of_shot ON version (shot_id, created_at)');
  }
}
