import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ModelsModule } from '../models/models.module.js';
import { ShotEntity } from './shot.entity.js';
import { ShotsController } from './shots.controller.js';
import { ShotsService } from './shots.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([ShotEntity]), ModelsModule],
  controllers: [ShotsController],
  providers: [ShotsService],
  exports: [ShotsService],
})
export class ShotsModule {}
