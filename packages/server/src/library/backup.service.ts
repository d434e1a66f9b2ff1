import { existsSync } from 'node:fs';
import { Inject, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Repository } from 'typeorm';
import { ModelEntity } from '../models/model.entity.js';
import { ModelFiles } from '../models/model-files.js';
import { ModelsService } from '../models/models.service.js';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';
import { LibraryThreads } from './library-threads.js';
import type { MissingModelDto } from './library.dto.js';

/** Hands out everything that is kept as one zip. */
@Injectable()
export class BackupService {
  constructor(
    @Inject(SETTINGS) private readonly settings: Settings,
    @InjectRepository(ModelEntity) private readonly rows: Repository<ModelEntity>,
    private readonly files: ModelFiles,
    private readonly models: ModelsService,
    private readonly threads: LibraryThreads,
  ) {}

  /**
   * The zip, in parts that a thread makes as they are requested.
   *
   * @param signal ends it when nobody waits for it any more
   */
  async *parts(signal?: AbortSignal): AsyncGenerator<Uint8Array, void, undefined> {
    const { dataFolder } = this.settings;
    for await (const part of this.threads.reading.run({ kind: 'backup', dataFolder }, signal))
      if (part instanceof Uint8Array) yield part;
  }

  /** Models whose files are gone, which a backup leaves out. */
  async missing(): Promise<MissingModelDto[]> {
    const all = await this.rows.find({ select: { id: true, fileName: true, sha256: true } });
    const gone = all.filter(({ sha256 }) => !existsSync(this.files.pathOf(sha256)));
    return Promise.all(
      gone.map(async ({ id, fileName }) => ({ id, fileName, usedBy: await this.models.usersOf(id) })),
    );
  }
}
