/**
 * SQL for the names of everything that has a model: shots, deleted ones too, checkpoints, and pictures that are not drawn yet. Its
 * parameters are {@link mentionsOf}.
 */
export const MODEL_USERS = `SELECT name FROM shot WHERE instr(document, ?) > 0
  UNION ALL SELECT name FROM checkpoint WHERE instr(document, ?) > 0
  UNION ALL SELECT file_name FROM picture_job WHERE state <> 'done' AND instr(work, ?) > 0`;

/** How documents name a model, once for each of their tables. */
export function mentionsOf(id: string): string[] {
  const mention = JSON.stringify({ asset: id });
  return [mention, mention, mention];
}
