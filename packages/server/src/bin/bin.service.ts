import {
  Inject,
  Injectable,
  Logger,
  NotFoundException,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
} from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, LessThanOrEqual, Not, type Repository } from 'typeorm';
import { LibraryThreads } from '../library/library-threads.js';
import type { BinChoice } from '../library/library-job.js';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';
import { ThreadRefusal } from '../threads/work-threads.js';
import { ShotEntity } from '../shots/shot.entity.js';
import type { EmptiedDto } from './bin.dto.js';

const DAY = 86_400_000;
/** Milliseconds after the start at which orphans are collected, so that it does not slow the first shots down. */
const SETTLED = 60_000;

/** Frees deleted data: on request, and by itself after the days in which it can be restored. */
@Injectable()
export class BinService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('Bin');
  private readonly timers: NodeJS.Timeout[] = [];

  constructor(
    @Inject(SETTINGS) private readonly settings: Settings,
    @InjectRepository(ShotEntity) private readonly shots: Repository<ShotEntity>,
    private readonly threads: LibraryThreads,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.timers.push(
      setTimeout(() => void this.sweep(), SETTLED).unref(),
      setInterval(() => void this.sweep(), DAY).unref(),
    );
    // This also finishes an emptying that was ended in the middle.
    if (await this.shots.existsBy({ deleteAfter: LessThanOrEqual(new Date().toISOString()) }))
      void this.sweep();
  }

  onModuleDestroy(): void {
    for (const timer of this.timers) clearTimeout(timer);
  }

  /** @throws NotFoundException where the bin has no such shot */
  async emptyOne(id: string): Promise<EmptiedDto> {
    if (!(await this.shots.existsBy({ id, deletedAt: Not(IsNull()) })))
      throw new NotFoundException(`The bin has no shot "${id}".`);
    return this.empty({ id });
  }

  emptyAll(): Promise<EmptiedDto> {
    return this.empty('all');
  }

  private async empty(which: BinChoice): Promise<EmptiedDto> {
    const { dataFolder } = this.settings;
    const answer = await this.threads.changing.answer({ kind: 'empty', dataFolder, which });
    if (!('emptied' in answer)) throw new Error('The bin was to be emptied.');
    return answer.emptied;
  }

  private async sweep(): Promise<void> {
    try {
      const { shots } = await this.empty('expired');
      if (shots > 0) this.log.log(`${shots} shots that were deleted long ago are gone for good.`);
    } catch (error) {
      // It goes on at the next start.
      if (error instanceof ThreadRefusal && error.reason === 'stopped') return;
      this.log.warn(`The bin could not be emptied: ${(error as Error).message}`);
    }
  }
}
