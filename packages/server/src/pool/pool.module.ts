import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DatabaseQueue } from './database-queue.js';
import { HeadlessRenderers } from './headless-renderers.js';
import { JobRows } from './job-rows.js';
import { PictureChecker } from './picture-checker.js';
import { PictureJobEntity } from './picture-job.entity.js';
import { PictureQueue } from './picture-queue.js';
import { PictureRunEntity } from './picture-batch.entity.js';
import { PoolController } from './pool.controller.js';
import { PoolFiles } from './pool-files.js';
import { Renderers } from './renderers.js';

@Module({
  imports: [TypeOrmModule.forFeature([PictureJobEntity, PictureRunEntity])],
  controllers: [PoolController],
  providers: [
    { provide: PictureQueue, useClass: DatabaseQueue },
    JobRows,
    PictureChecker,
    PoolFiles,
    Renderers,
    HeadlessRenderers,
  ],
})
export class PoolModule {}
