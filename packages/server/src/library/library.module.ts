import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ModelEntity } from '../models/model.entity.js';
import { ModelsModule } from '../models/models.module.js';
import { BackupService } from './backup.service.js';
import { LibraryController } from './library.controller.js';
import { LibraryThreadsModule } from './library-threads.module.js';
import { RestoreService } from './restore.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([ModelEntity]), ModelsModule, LibraryThreadsModule],
  controllers: [LibraryController],
  providers: [BackupService, RestoreService],
})
export class LibraryModule {}
