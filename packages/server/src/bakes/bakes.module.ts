import { Module } from '@nestjs/common';
import { ModelsModule } from '../models/models.module.js';
import { ShotsModule } from '../shots/shots.module.js';
import { BakesController } from './bakes.controller.js';
import { BakesService } from './bakes.service.js';

@Module({ imports: [ShotsModule, ModelsModule], controllers: [BakesController], providers: [BakesService] })
export class BakesModule {}
