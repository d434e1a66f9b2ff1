import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import {
  BadRequestException,
  ConflictException,
  Inject,
  Injectable,
  type OnModuleInit,
} from '@nestjs/common';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';
import { ThreadRefusal } from '../threads/work-threads.js';
import { LibraryThreads } from './library-threads.js';
import type { RestoredDto, RestoreProgressDto } from './library.dto.js';

/** A restore under its name: it can be cancelled until all of it is read, and from then on it is written. */
interface Running {
  readonly control: AbortController;
  progress: RestoreProgressDto | null;
  isWritten: boolean;
}

/** Names remembered after the end of their restore, so that a written one is never reported as cancelled. */
const REMEMBERED = 1000;

/** Takes backups in again, beside what is there: nothing that is kept is changed. */
@Injectable()
export class RestoreService implements OnModuleInit {
  private readonly folder: string;
  private readonly restores = new Map<string, Running>();

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
    return this.restores.get(name)?.progress ?? null;
  }

  /**
   * Cancels a restore, also one whose backup is still on its way: nothing of it is written then.
   *
   * @returns false where it is too late: all of it is read and is being written, or it is written
   */
  cancel(name: string): boolean {
    const running = this.known(name);
    if (!running.isWritten) running.control.abort();
    return !running.isWritten;
  }

  /**
   * Restores a backup. Existing data is left; a shot that changed since is added beside it under a name that says so.
   * Unreadable data is listed, and all else is restored in one transaction.
   *
   * @param zip    the backup's file
   * @param name   what its progress is asked for by
   * @param signal cancels it; nothing of it is written then
   * @throws BadRequestException for what is no backup
   * @throws ConflictException   where it was cancelled
   */
  async restore(zip: string, name: string, signal?: AbortSignal): Promise<RestoredDto> {
    const { dataFolder } = this.settings;
    const staging = join(this.folder, randomUUID());
    const running = this.known(name);
    const signals = [running.control.signal, ...(signal ? [signal] : [])];
    try {
      for await (const part of this.threads.changing.run(
        { kind: 'restore', dataFolder, zip, staging },
        AbortSignal.any(signals),
      )) {
        if ('restored' in part) return part.restored;
        if (!('done' in part)) continue;
        running.progress = part;
        running.isWritten = part.done === part.of;
      }
      throw new Error('The restore ended without an answer.');
    } catch (error) {
      if (error instanceof ThreadRefusal && error.reason === 'refused')
        throw new BadRequestException(`${error.message} Nothing was changed.`);
      if (error instanceof ThreadRefusal && error.reason === 'cancelled')
        throw new ConflictException('The restore was cancelled. Nothing was changed.');
      throw error;
    } finally {
      running.progress = null;
      // A thread that was ended may write a moment longer.
      await rm(staging, { recursive: true, force: true, maxRetries: 5 });
    }
  }

  private known(name: string): Running {
    const known = this.restores.get(name);
    if (known) return known;
    const running = { control: new AbortController(), progress: null, isWritten: false };
    this.restores.set(name, running);
    const [oldest] = this.restores.keys();
    if (this.restores.size > REMEMBERED) this.restores.delete(oldest);
    return running;
  }
}
