import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ShotsModule } from '../shots/shots.module.js';
import { CheckpointEntity } from './checkpoint.entity.js';
import { PieceEntity } from './piece.entity.js';
import { CheckpointsController } from './checkpoints.controller.js';
import { CheckpointsService } from './checkpoints.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([CheckpointEntity, PieceEntity]), ShotsModule],
  controllers: [CheckpointsController],
  providers: [CheckpointsService],
  exports: [CheckpointsService],
})
export class CheckpointsModule {}
