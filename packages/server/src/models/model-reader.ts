import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { GivenFile, ModelPlacing } from '@fleet-rail/core/formats';
import { WorkThreads, threadScript } from '../threads/work-threads.js';
import type { ModelAnswer, ModelJob } from './model-job.js';

/**
 * Reads and checks models in their own threads, so that a large or broken one holds up nobody. The largest allowed,
 * 64 MB, takes a second or two.
 */
@Injectable()
export class ModelReader implements OnModuleDestroy {
  private readonly threads = new WorkThreads<ModelJob, ModelAnswer>(
    threadScript('models/model-worker'),
    'Reading this model',
    { threads: 2, seconds: 20, megabytes: 2048 },
  );

  /** @throws ThreadRefusal with what is wrong with the files */
  read(files: readonly GivenFile[], placing: ModelPlacing | null = null): Promise<ModelAnswer> {
    return this.threads.answer({ files, placing });
  }

  onModuleDestroy(): Promise<void> {
    return this.threads.close();
  }
}
