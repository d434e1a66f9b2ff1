import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { WorkThreads, threadScript, type ThreadLimits } from '../threads/work-threads.js';
import type { LibraryJob, LibraryPart } from './library-job.js';

/** A library of gigabytes takes minutes, and a download as long as its line. */
const LIMITS: ThreadLimits = { threads: 2, seconds: 6 * 3600, megabytes: 4096 };

/** Threads for work on the whole library: what reads it never waits for what changes it, which is one at a time. */
@Injectable()
export class LibraryThreads implements OnModuleDestroy {
  readonly reading = newThreads('The backup', LIMITS);
  readonly changing = newThreads('This change of the library', { ...LIMITS, threads: 1 });

  async onModuleDestroy(): Promise<void> {
    await Promise.all([this.reading.close(), this.changing.close()]);
  }
}

const newThreads = (what: string, limits: ThreadLimits) =>
  new WorkThreads<LibraryJob, LibraryPart>(threadScript('library/library-worker'), what, limits);
