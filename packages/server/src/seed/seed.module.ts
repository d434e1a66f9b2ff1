import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ModelsModule } from '../models/models.module.js';
import { ShotsModule } from '../shots/shots.module.js';
import { SeedEntity } from './seed.entity.js';
import { SeedService } from './seed.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([SeedEntity]), ModelsModule, ShotsModule],
  providers: [SeedService],
})
export class SeedModule {}
