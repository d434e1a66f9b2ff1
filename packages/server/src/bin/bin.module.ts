import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LibraryThreadsModule } from '../library/library-threads.module.js';
import { ShotEntity } from '../shots/shot.entity.js';
import { BinController } from './bin.controller.js';
import { BinService } from './bin.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([ShotEntity]), LibraryThreadsModule],
  controllers: [BinController],
  providers: [BinService],
})
export class BinModule {}
