import 'reflect-metadata';
import { emptyBin } from '../bin/empty-bin.js';
import { takeLowPriority } from '../threads/low-priority.js';
import { serveJobs } from '../threads/serve-jobs.js';
import { backupParts } from './backup-parts.js';
import { LibraryDatabase } from './library-database.js';
import type { LibraryJob, LibraryPart } from './library-job.js';
import { Restore } from './restore-backup.js';

takeLowPriority();
serveJobs<LibraryJob, LibraryPart>(async function* (job) {
  const { dataFolder } = job;
  const database = await LibraryDatabase.open(dataFolder);
  try {
    if (job.kind === 'backup') yield* backupParts(database, dataFolder);
    else if (job.kind === 'empty') yield { emptied: await emptyBin(database, dataFolder, job.which) };
    else yield* (await Restore.open(database, job.zip, dataFolder, job.staging)).run();
  } finally {
    await database.close();
  }
});
