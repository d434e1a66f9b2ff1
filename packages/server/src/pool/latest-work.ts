import { parseShot } from '@fleet-rail/core/shots';

/** How the work of a job begins whose shot is of version 1: documents are stored with all their fields in order. */
const VERSION_1 = '{"shot":{"format":"fleet-rail-shot","version":1,';

/** A job's work with its shot in the latest version; a job may have waited while the server was upgraded. */
export function latestWork(work: string): string {
  if (!work.startsWith(VERSION_1)) return work;
  const job = JSON.parse(work) as { shot: unknown };
  return JSON.stringify({ ...job, shot: parseShot(job.shot) });
}
