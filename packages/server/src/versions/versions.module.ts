import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ShotsModule } from '../shots/shots.module.js';
import { VersionEntity } from './version.entity.js';
import { VersionsController } from './versions.controller.js';
import { VersionsService } from './versions.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([VersionEntity]), ShotsModule],
  controllers: [VersionsController],
  providers: [VersionsService],
})
export class VersionsModule {}
