import type { MigrationInterface, QueryRunner } from 'typeorm';
import { piecesOf, wholeOf } from '../../checkpoints/pieces.js';

/** Checkpoints share what they have in common: each part of a document that is the same is kept once. */
export class Pieces1764400000000 implements MigrationInterface {
  readonly name = 'Pieces1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('CREATE TABLE piece (digest TEXT PRIMARY KEY, bytes BLOB NOT NULL) STRICT');
    await rewrite(runner, async (document) => {
      const { outline, pieces } = piecesOf(document);
      for (const [digest, bytes] of pieces)
        await runner.query('INSERT OR IGNORE INTO piece (digest, bytes) VALUES (?, ?)', [digest, bytes]);
      return outline;
    });
  }

  async down(runner: QueryRunner): Promise<void> {
    const rows = (await runner.query('SELECT digest, bytes FROM piece')) as {
      digest: string;
      bytes: Buffer;
    }[];
    const kept = new Map(rows.map(({ digest, bytes }) => [digest, bytes]));
    await rewrite(runner, async (outline) => wholeOf(outline, kept));
    await runner.query('DROP TABLE piece');
  }
}

/** One at a time: all of them may be more than there is memory for. */
async function rewrite(runner: QueryRunner, change: (document: string) => Promise<string>): Promise<void> {
  const rows = (await runner.query('SELECT id FROM checkpoint')) as { id: string }[];
  for (const { id } of rows) {
    const [{ document }] = (await runner.query('SELECT document FROM checkpoint WHERE id = ?', [id])) as {
      document: string;
    }[];
    await runner.query('UPDATE checkpoint SET document = ? WHERE id = ?', [await change(document), id]);
  }
}
