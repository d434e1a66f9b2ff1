import { randomUUID } from 'node:crypto';
import { BadRequestException, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { parseShot, type Shot } from '@fleet-rail/core/shots';
import { unzip, type Unzipped } from 'fflate';
import type { Repository } from 'typeorm';
import { CheckpointEntity } from '../checkpoints/checkpoint.entity.js';
import { CheckpointsService } from '../checkpoints/checkpoints.service.js';
import { ModelEntity } from '../models/model.entity.js';
import { ModelsService } from '../models/models.service.js';
import { ShotEntity } from '../shots/shot.entity.js';
import { columnsOf } from '../documents/checked-shot.js';
import { INDEX_FILE, readIndex, type LibraryIndex, type ShotEntry } from './library-index.js';
import type { RestoredDto } from './library.dto.js';

/** Takes a backup in again, beside what is there: nothing that is kept is changed. */
@Injectable()
export class RestoreService {
  constructor(
    @InjectRepository(ShotEntity) private readonly shots: Repository<ShotEntity>,
    @InjectRepository(CheckpointEntity) private readonly checkpoints: Repository<CheckpointEntity>,
    @InjectRepository(ModelEntity) private readonly kept: Repository<ModelEntity>,
    private readonly models: ModelsService,
    private readonly documents: CheckpointsService,
  ) {}

  /**
   * What is there already is left; a shot that was changed since comes beside it under a name that says so. What cannot be read is
   * told, and all else is taken.
   *
   * @throws BadRequestException for what is no backup
   */
  async restore(bytes: Uint8Array): Promise<RestoredDto> {
    const files = await unzipped(bytes);
    const index = files[INDEX_FILE] ? readIndex(textOf(files[INDEX_FILE])) : null;
    if (index === null)
      throw new BadRequestException('This is no backup: expected a zip with library.json in it.');
    const result: RestoredDto = { shots: 0, checkpoints: 0, models: 0, there: 0, refused: [] };
    const assets = await this.takeModels(index, files, result);
    const shotIds = new Map<string, string>();
    for (const entry of index.shots) {
      const id = await this.takeShot(entry, files[`shots/${entry.id}.json`], assets, result);
      if (id !== null) shotIds.set(entry.id, id);
    }
    for (const { id, shotId, name, revision, createdAt } of index.checkpoints) {
      const own = shotIds.get(shotId);
      if (own === undefined) continue;
      if (own === shotId && (await this.checkpoints.existsBy({ id }))) {
        result.there++;
        continue;
      }
      const shot = this.documentOf(files[`checkpoints/${id}.json`], `checkpoint "${name}"`, assets, result);
      if (shot === null) continue;
      await this.documents.keep(own, name, { shot, revision }, createdAt, own === shotId ? id : randomUUID());
      result.checkpoints++;
    }
    return result;
  }

  /** By the backup's model ids those that stand for them here. */
  private async takeModels(
    { models }: LibraryIndex,
    files: Unzipped,
    result: RestoredDto,
  ): Promise<Map<string, string>> {
    const assets = new Map<string, string>();
    for (const { id, fileName, sha256 } of models) {
      const same =
        (await this.kept.findOneBy({ id, sha256 })) ?? (await this.kept.findOneBy({ sha256, fileName }));
      if (same) {
        assets.set(id, same.id);
        result.there++;
        continue;
      }
      const bytes = files[`models/${sha256}`];
      try {
        if (!bytes) throw new Error(`${fileName}: is not in the backup.`);
        const free = !(await this.kept.existsBy({ id }));
        const added = await this.models.addAs([{ name: fileName, bytes }], free ? id : randomUUID());
        assets.set(id, added.id);
        result.models++;
      } catch (error) {
        result.refused.push((error as Error).message);
      }
    }
    return assets;
  }

  /** @returns the id it has here; null where it cannot be read */
  private async takeShot(
    entry: ShotEntry,
    bytes: Uint8Array | undefined,
    assets: ReadonlyMap<string, string>,
    result: RestoredDto,
  ): Promise<string | null> {
    const shot = this.documentOf(bytes, `shot "${entry.name}"`, assets, result);
    if (shot === null) return null;
    const there = await this.shots.findOneBy({ id: entry.id });
    const columns = columnsOf(shot);
    // As it would be stored today: one that an earlier version saved lacks what is new.
    if (there && columnsOf(parseShot(JSON.parse(there.document))).document === columns.document) {
      result.there++;
      return entry.id;
    }
    const now = new Date().toISOString();
    const id = there === null ? entry.id : randomUUID();
    // One that was restored before, and not touched since, is not taken twice.
    const again = there === null ? null : { ...shot, name: `${shot.name.slice(0, 180)}, restored` };
    if (again && (await this.shots.existsBy({ document: columnsOf(again).document }))) {
      result.there++;
      return null;
    }
    await this.shots.insert({
      id,
      ...(again ? columnsOf(again) : columns),
      revision: entry.revision,
      createdAt: entry.createdAt ?? now,
      updatedAt: entry.updatedAt ?? now,
      lastSave: null,
      deletedAt: entry.deletedAt ?? null,
    });
    result.shots++;
    return id;
  }

  private documentOf(
    bytes: Uint8Array | undefined,
    what: string,
    assets: ReadonlyMap<string, string>,
    result: RestoredDto,
  ): Shot | null {
    try {
      if (!bytes) throw new Error('is not in the backup');
      const shot = parseShot(JSON.parse(textOf(bytes)));
      const models = shot.models.map((model) => {
        const asset = model.source.asset && assets.get(model.source.asset);
        return asset ? { ...model, source: { asset } } : model;
      });
      return { ...shot, models };
    } catch (error) {
      result.refused.push(`${what}: ${(error as Error).message.slice(0, 200)}`);
      return null;
    }
  }
}

/** A zip's files; unpacked beside what else is done. */
function unzipped(bytes: Uint8Array): Promise<Unzipped> {
  return new Promise((resolve, reject) => {
    unzip(bytes, (error, files) => {
      if (error) reject(new BadRequestException('This is no zip that can be read; expected a backup.'));
      else resolve(files);
    });
  });
}

const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
