import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Deleted shots go for good after a while. Those that lie in the bin already have as long as one that is deleted today. */
export class Bin1764700000000 implements MigrationInterface {
  readonly name = 'Bin1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shot ADD COLUMN delete_after TEXT');
    await runner.query(`UPDATE shot SET delete_after = strftime('%Y-%m-%dT%H:%M:%fZ', 'now', '+30 days')
      WHERE deleted_at IS NOT NULL`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shot DROP COLUMN delete_after');
  }
}
