import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { ConflictException, Injectable, Logger, NotFoundException, type OnModuleInit } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { FACTS_VERSION } from '@fleet-rail/core/format-facts';
import type { GivenFile, ModelPlacing } from '@fleet-rail/core/formats';
import type { Repository } from 'typeorm';
import { ModelEntity } from './model.entity.js';
import { ModelFiles } from './model-files.js';
import type { ModelAnswer } from './model-job.js';
import { ModelReader } from './model-reader.js';
import { nameOf } from './model-name.js';
import { MODEL_USERS, mentionsOf } from './model-users.js';
import type { ModelDto } from './models.dto.js';

/** A model that is named by file; quotes within a text are escaped, so no text looks like this. */
const SOURCE_FILE = /"source":\{"file":("(?:[^"\\]|\\.)*")\}/g;

/** Keeps models: nothing is stored before it was read and checked. */
@Injectable()
export class ModelsService implements OnModuleInit {
  private readonly log = new Logger(ModelsService.name);

  constructor(
    @InjectRepository(ModelEntity) private readonly models: Repository<ModelEntity>,
    private readonly files: ModelFiles,
    private readonly reader: ModelReader,
  ) {}

  /** Models kept by a version that could not tell how they roll and walk are read anew. */
  async onModuleInit(): Promise<void> {
    const kept = await this.models.find();
    await this.files.clean(new Set(kept.map(({ sha256 }) => sha256)));
    for (const model of kept) {
      if (isWhole(JSON.parse(model.facts) as object)) continue;
      try {
        const bytes = await this.files.read(model.sha256);
        const { facts } = await this.reader.read([{ name: model.fileName, bytes }]);
        await this.models.update(model.id, { facts: JSON.stringify(facts) });
      } catch (error) {
        this.log.warn(`${model.fileName} cannot be read again: ${(error as Error).message}`);
      }
    }
  }

  /** Shipped models first, then by name. */
  async list(): Promise<ModelDto[]> {
    return (await this.models.find({ order: { shipped: 'DESC', name: 'ASC' } })).map(toDto);
  }

  async open(id: string): Promise<ModelDto> {
    return toDto(await this.find(id));
  }

  /**
   * The path of a model's bytes, and the name under which they came.
   *
   * @throws NotFoundException where the file is gone from the data folder
   */
  async fileOf(id: string): Promise<{ path: string; fileName: string }> {
    const { sha256, fileName } = await this.find(id);
    const path = this.files.pathOf(sha256);
    if (!existsSync(path))
      throw new NotFoundException(
        `The model file ${fileName} is missing from the data folder. Upload it again under Attach.`,
      );
    return { path, fileName };
  }

  /**
   * Reads, checks and stores a model from the files it comes as.
   *
   * @throws ThreadRefusal with the reason, before anything is stored
   */
  async add(given: readonly GivenFile[], shippedId?: string): Promise<ModelDto> {
    const own = shippedId === undefined ? undefined : { id: shippedId, shipped: true };
    return this.keep(await this.reader.read(given), given[0].bytes, own);
  }

  /** An existing model with another placement: a new one, so that riders with the former one keep it. */
  async place(id: string, placing: ModelPlacing): Promise<ModelDto> {
    const model = await this.find(id);
    const bytes = await readFile((await this.fileOf(id)).path);
    const answer = await this.reader.read([{ name: model.fileName, bytes }], placing);
    return this.keep(answer, bytes, undefined, model.name);
  }

  private async keep(
    { facts, fileName, converted }: ModelAnswer,
    given: Uint8Array,
    { id, shipped } = { id: randomUUID() as string, shipped: false },
    name = nameOf(fileName),
  ): Promise<ModelDto> {
    const bytes = converted ?? given;
    const sha256 = await this.files.put(bytes);
    const same = await this.models.findOneBy({ sha256, fileName });
    if (same !== null) return toDto(same);
    const entity: ModelEntity = {
      id,
      name,
      fileName,
      sha256,
      bytes: bytes.byteLength,
      facts: JSON.stringify(facts),
      shipped,
      createdAt: new Date().toISOString(),
    };
    await this.models.insert(entity);
    return toDto(entity);
  }

  /**
   * Deletes a model that nothing uses, and its file where no other model has the same.
   *
   * @throws ConflictException where a shot, a deleted one or a checkpoint has it, or it came with the application
   */
  async delete(id: string): Promise<void> {
    const model = await this.find(id);
    if (model.shipped) throw new ConflictException(`${model.name} came with the application and stays.`);
    const users = await this.usersOf(id);
    if (users.length > 0)
      throw new ConflictException(`${model.name} is used by ${users.join(', ')}, so it stays.`);
    await this.models.delete(id);
    if (!(await this.models.existsBy({ sha256: model.sha256 }))) await this.files.delete(model.sha256);
  }

  /** Names of everything that has a model, the first few. */
  async usersOf(id: string): Promise<string[]> {
    const found = (await this.models.query(`${MODEL_USERS} LIMIT 3`, mentionsOf(id))) as { name: string }[];
    return found.map(({ name }) => `"${name}"`);
  }

  /** A stored document, JSON, with models named by file pointed at the newest model kept under that name. */
  async findFiles(document: string): Promise<string> {
    const assets = new Map<string, string>();
    for (const [, quoted] of document.matchAll(SOURCE_FILE)) {
      const fileName = JSON.parse(quoted) as string;
      const found = await this.models.findOne({ where: { fileName }, order: { createdAt: 'DESC' } });
      if (found !== null) assets.set(quoted, found.id);
    }
    return document.replaceAll(SOURCE_FILE, (source, quoted: string) => {
      const asset = assets.get(quoted);
      return asset === undefined ? source : `"source":${JSON.stringify({ asset })}`;
    });
  }

  private async find(id: string): Promise<ModelEntity> {
    const found = await this.models.findOneBy({ id });
    if (found === null) throw new NotFoundException(`There is no model "${id}".`);
    return found;
  }
}

function toDto({ id, name, fileName, bytes, shipped, facts }: ModelEntity): ModelDto {
  return { id, name, fileName, bytes, shipped, facts: JSON.parse(facts) as object };
}

/** Whether all that is asked of a model today was read from it. */
const isWhole = (facts: { version?: number }): boolean => facts.version === FACTS_VERSION;
