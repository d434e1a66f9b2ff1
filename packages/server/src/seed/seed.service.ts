import { existsSync } from 'node:fs';
import { readFile, readdir } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Repository } from 'typeorm';
import { ModelsService } from '../models/models.service.js';
import type { Settings } from '../settings.js';
import { SETTINGS } from '../settings.token.js';
import { ShotsService } from '../shots/shots.service.js';
import { SeedEntity } from './seed.entity.js';

/** Seeds in order, each once: databases with an earlier demo get the later ones. */
const SEEDS = [
  { name: 'catalogue', takes: (file: string) => /^(tie|post|lamp|cone)\.glb$/.test(file) },
  { name: 'quillfen-orchard', takes: () => true },
];

/** Adds models for dressing, and the demo's models and shots, once; those deleted afterwards stay deleted. */
@Injectable()
export class SeedService implements OnApplicationBootstrap {
  constructor(
    @InjectRepository(SeedEntity) private readonly seeds: Repository<SeedEntity>,
    @Inject(SETTINGS) private readonly settings: Settings,
    private readonly models: ModelsService,
    private readonly shots: ShotsService,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    for (const { name, takes } of SEEDS) await this.put(name, this.settings.demoFolder, takes);
  }

  private async put(name: string, folder: string, takes: (file: string) => boolean): Promise<void> {
    if (!existsSync(folder) || (await this.seeds.existsBy({ name }))) return;
    const files = (await readdir(folder)).filter(takes).sort();
    for (const file of files.filter((name) => name.endsWith('.glb'))) {
      const bytes = await readFile(join(folder, file));
      await this.models.add([{ name: file, bytes }], basename(file, '.glb'));
    }
    for (const file of files.filter((name) => name.endsWith('.shot.json'))) {
      const document: unknown = JSON.parse(await readFile(join(folder, file), 'utf8'));
      await this.shots.create(undefined, document);
    }
    await this.seeds.insert({ name, createdAt: new Date().toISOString() });
  }
}
