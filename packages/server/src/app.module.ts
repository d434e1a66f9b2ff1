import { Module, type DynamicModule } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { BinModule } from './bin/bin.module.js';
import { BakesModule } from './bakes/bakes.module.js';
import { databaseOptions } from './database/database-options.js';
import { FolderLock } from './database/folder-lock.js';
import { DocumentsModule } from './documents/documents.module.js';
import { LibraryModule } from './library/library.module.js';
import { ModelsModule } from './models/models.module.js';
import { PoolModule } from './pool/pool.module.js';
import { SeedModule } from './seed/seed.module.js';
import { SettingsModule } from './settings.module.js';
import type { Settings } from './settings.js';
import { ShotsModule } from './shots/shots.module.js';
import { CheckpointsModule } from './checkpoints/checkpoints.module.js';

/** The whole server, for given settings. */
@Module({})
export class AppModule {
  static of(settings: Settings, lock: FolderLock): DynamicModule {
    return {
      module: AppModule,
      providers: [{ provide: FolderLock, useValue: lock }],
      imports: [
        SettingsModule.of(settings),
        TypeOrmModule.forRoot({ ...databaseOptions(settings.dataFolder), retryAttempts: 0 }),
        DocumentsModule,
        ModelsModule,
        ShotsModule,
        CheckpointsModule,
        BakesModule,
        LibraryModule,
        BinModule,
        PoolModule,
        SeedModule,
      ],
    };
  }
}
