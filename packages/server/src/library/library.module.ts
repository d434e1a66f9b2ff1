import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { CheckpointEntity } from '../checkpoints/checkpoint.entity.js';
import { CheckpointsModule } from '../checkpoints/checkpoints.module.js';
import { ModelEntity } from '../models/model.entity.js';
import { ModelsModule } from '../models/models.module.js';
import { ShotEntity } from '../shots/shot.entity.js';
import { BackupService } from './backup.service.js';
import { LibraryController } from './library.controller.js';
import { RestoreService } from './restore.service.js';

@Module({
  imports: [
    TypeOrmModule.forFeature([ShotEntity, CheckpointEntity, ModelEntity]),
    ModelsModule,
    CheckpointsModule,
  ],
  controllers: [LibraryController],
  providers: [BackupService, RestoreService],
})
export class LibraryModule {}
