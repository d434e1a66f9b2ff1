import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { Repository } from 'typeorm';
import { CheckpointEntity } from '../checkpoints/checkpoint.entity.js';
import { CheckpointsService } from '../checkpoints/checkpoints.service.js';
import { ModelEntity } from '../models/model.entity.js';
import { ModelFiles } from '../models/model-files.js';
import { ShotEntity } from '../shots/shot.entity.js';
import { INDEX_FILE, type LibraryIndex } from './library-index.js';

/** Gives out everything that is kept, as one zip. */
@Injectable()
export class BackupService {
  constructor(
    @InjectRepository(ShotEntity) private readonly shots: Repository<ShotEntity>,
    @InjectRepository(CheckpointEntity) private readonly checkpoints: Repository<CheckpointEntity>,
    @InjectRepository(ModelEntity) private readonly models: Repository<ModelEntity>,
    private readonly files: ModelFiles,
    private readonly documents: CheckpointsService,
  ) {}

  /** The zip, in parts that are made as they are asked for: no more than a file of it is held at a time. */
  async *parts(): AsyncGenerator<Uint8Array, void, undefined> {
    let ready: Uint8Array[] = [];
    const zip = new Zip((error, part) => {
      if (error) throw error;
      ready.push(part);
    });
    const add = (name: string, bytes: Uint8Array, packed: boolean) => {
      // Models are packed by their own formats, or would hardly get smaller.
      const entry = packed ? new ZipDeflate(name, { level: 6 }) : new ZipPassThrough(name);
      zip.add(entry);
      entry.push(bytes, true);
      const made = ready;
      ready = [];
      return made;
    };
    const text = (value: string) => new TextEncoder().encode(value);
    const index = await this.index();
    yield* add(INDEX_FILE, text(JSON.stringify(index, null, 1)), true);
    for (const { id } of index.shots) {
      const shot = await this.shots.findOneBy({ id });
      if (shot) yield* add(`shots/${id}.json`, text(shot.document), true);
    }
    for (const { id } of index.checkpoints) {
      const document = await this.documents.documentOf(id);
      if (document !== null) yield* add(`checkpoints/${id}.json`, text(document), true);
    }
    for (const sha256 of new Set(index.models.map((model) => model.sha256)))
      yield* add(`models/${sha256}`, await readFile(this.files.pathOf(sha256)), false);
    zip.end();
    yield* ready;
  }

  private async index(): Promise<LibraryIndex> {
    const shots = await this.shots.find({
      select: { id: true, name: true, revision: true, createdAt: true, updatedAt: true, deletedAt: true },
    });
    const checkpoints = await this.checkpoints.find({
      select: { id: true, shotId: true, name: true, revision: true, createdAt: true },
    });
    const models = (await this.models.find()).map(({ id, name, fileName, sha256, shipped }) => {
      return { id, name, fileName, sha256, shipped };
    });
    return { format: 'fleet-rail-library', version: 1, shots, checkpoints, models };
  }
}
