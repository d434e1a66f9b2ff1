import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { BadRequestException, Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';
import { ThreadRefusal } from '../threads/work-threads.js';
import { LibraryThreads } from './library-threads.js';
import type { RestoredDto, RestoreProgressDto } from './library.dto.js';

/** Takes backups in again, beside what is there: nothing that is kept is changed. */
@Injectable()
export class RestoreService implements OnModuleInit {
  private readonly folder: string;
  private readonly running = new Map<string, RestoreProgressDto>();

  constructor(
    @Inject(SETTINGS) private readonly settings: Settings,
    private readonly threads: LibraryThreads,
  ) {
    this.folder = join(settings.dataFolder, 'staging');
  }

  /** A server that ended in the middle of a restore has written nothing of it. */
  async onModuleInit(): Promise<void> {
    await rm(this.folder, { recursive: true, force: true });
  }

  /** How far the restore of a name is; null before it has begun and after it has ended. */
  progressOf(name: string): RestoreProgressDto | null {
    return this.running.get(name) ?? null;
  }

  /**
   * Takes a backup in. What is there already is left; a shot that was changed since comes beside it under a name that says so. What
   * cannot be read is listed, and all else is taken in one transaction.
   *
   * @param zip    the backup's file
   * @param name   what its progress is asked for by
   * @param signal cancels it; nothing of it is written then
   * @throws BadRequestException for what is no backup
   */
  async restore(zip: string, name: string, signal?: AbortSignal): Promise<RestoredDto> {
    const { dataFolder } = this.settings;
    const staging = join(this.folder, randomUUID());
    try {
      for await (const part of this.threads.changing.run(
        { kind: 'restore', dataFolder, zip, staging },
        signal,
      )) {
        if ('restored' in part) return part.restored;
        if ('done' in part) this.running.set(name, part);
      }
      throw new Error('The restore ended without an answer.');
    } catch (error) {
      if (error instanceof ThreadRefusal && error.reason === 'refused')
        throw new BadRequestException(`${error.message} Nothing was changed.`);
      throw error;
    } finally {
      this.running.delete(name);
      // A thread that was ended may write a moment longer.
      await rm(staging, { recursive: true, force: true, maxRetries: 5 });
    }
  }
}
