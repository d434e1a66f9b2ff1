import { createHash, randomUUID } from 'node:crypto';
import { ConflictException, Injectable, NotFoundException } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { newShot, parseShot, type Shot } from '@fleet-rail/core/shots';
import { IsNull, Not, type FindManyOptions, type Repository } from 'typeorm';
import { ModelsService } from '../models/models.service.js';
import { ShotEntity } from './shot.entity.js';
import { sketchShot } from './shot-sketch.js';
import type { SavedDto, ShotCardDto, ShotDto } from './shots.dto.js';

/** Keeps shots. Every write is one statement, so nothing is ever stored half. */
@Injectable()
export class ShotsService {
  /** By id the digest of the document that was stored from here: one that still has it was checked then, and is not again. */
  private readonly checked = new Map<string, string>();

  constructor(
    @InjectRepository(ShotEntity) private readonly shots: Repository<ShotEntity>,
    private readonly models: ModelsService,
  ) {}

  /** Shots that are not deleted, newest change first. */
  list(): Promise<ShotCardDto[]> {
    return this.cards({ where: { deletedAt: IsNull() }, order: { updatedAt: 'DESC' } });
  }

  /** Shots that were deleted and can be brought back, the last deleted first. */
  listDeleted(): Promise<ShotCardDto[]> {
    return this.cards({ where: { deletedAt: Not(IsNull()) }, order: { deletedAt: 'DESC' } });
  }

  private async cards(which: FindManyOptions<ShotEntity>): Promise<ShotCardDto[]> {
    const select = { id: true, name: true, revision: true, updatedAt: true, sketch: true };
    const found = await this.shots.find({ select, ...which });
    return found.map(({ id, name, revision, updatedAt, sketch }) => {
      return { id, name, revision, updatedAt, sketch: JSON.parse(sketch) as object };
    });
  }

  /** An empty shot under a name, or one from a document whose models are looked up by file name. */
  async create(name: string | undefined, raw: unknown): Promise<ShotDto> {
    const shot = raw === undefined ? newShot({ name: name ?? 'Untitled shot' }) : parseShot(raw);
    return this.insert(await this.models.findFiles(shot));
  }

  async open(id: string): Promise<ShotDto> {
    const found = await this.find(id);
    return toDto(found, this.shotOf(found));
  }

  /** A shot without its document: how often it was saved, and when last. */
  async revisionOf(id: string): Promise<SavedDto> {
    const select = { id: true, name: true, revision: true, updatedAt: true };
    const found = await this.shots.findOne({ where: { id, deletedAt: IsNull() }, select });
    if (found === null) throw noShot(id);
    return { id, name: found.name, revision: found.revision, updatedAt: found.updatedAt };
  }

  /** The document of a shot that exists, as it was last saved. */
  async documentOf(id: string): Promise<{ shot: Shot; revision: number }> {
    const found = await this.find(id);
    return { shot: this.shotOf(found), revision: found.revision };
  }

  /**
   * Saves a document that was made from `revision`.
   *
   * @param saveId names the save: sent a second time it is the same one, and no conflict with itself
   * @throws ConflictException where another save came between; ShotError where the document is refused
   */
  async save(id: string, revision: number, raw: unknown, saveId: string | null = null): Promise<SavedDto> {
    const shot = parseShot(raw);
    const updatedAt = new Date().toISOString();
    const change = { ...columnsOf(shot), revision: revision + 1, updatedAt, lastSave: saveId };
    const { affected } = await this.shots.update({ id, revision, deletedAt: IsNull() }, change);
    if (affected === 1) {
      this.checked.set(id, digestOf(change.document));
      return { id, name: shot.name, revision: revision + 1, updatedAt };
    }
    const kept = await this.find(id);
    const isSame = saveId !== null && kept.lastSave === saveId && kept.revision === revision + 1;
    if (!isSame) throw saveConflict(kept);
    return { id, name: kept.name, revision: kept.revision, updatedAt: kept.updatedAt };
  }

  async rename(id: string, name: string): Promise<SavedDto> {
    const { shot, revision } = await this.documentOf(id);
    return this.save(id, revision, { ...shot, name });
  }

  async duplicate(id: string): Promise<ShotDto> {
    const { shot } = await this.documentOf(id);
    return this.insert({ ...shot, name: `${shot.name.slice(0, 190)} copy` });
  }

  /** Takes a shot off the list; {@link undelete} brings it back. */
  async delete(id: string): Promise<void> {
    const deletedAt = new Date().toISOString();
    const { affected } = await this.shots.update({ id, deletedAt: IsNull() }, { deletedAt });
    if (affected !== 1) throw noShot(id);
  }

  async undelete(id: string): Promise<ShotDto> {
    const { affected } = await this.shots.update({ id, deletedAt: Not(IsNull()) }, { deletedAt: null });
    if (affected !== 1) throw noShot(id);
    return this.open(id);
  }

  private async insert(shot: Shot): Promise<ShotDto> {
    const now = new Date().toISOString();
    const entity = {
      id: randomUUID(),
      ...columnsOf(shot),
      revision: 1,
      createdAt: now,
      updatedAt: now,
      lastSave: null,
      deletedAt: null,
    };
    await this.shots.insert(entity);
    this.checked.set(entity.id, digestOf(entity.document));
    return toDto(entity, shot);
  }

  /** A stored document; what it was saved without by an earlier version has its defaults. */
  private shotOf({ id, document }: ShotEntity): Shot {
    const raw: unknown = JSON.parse(document);
    return this.checked.get(id) === digestOf(document) ? (raw as Shot) : parseShot(raw);
  }

  private async find(id: string): Promise<ShotEntity> {
    const found = await this.shots.findOneBy({ id, deletedAt: IsNull() });
    if (found === null) throw noShot(id);
    return found;
  }
}

/** What is stored of a document. */
export function columnsOf(shot: Shot): { name: string; document: string; sketch: string } {
  return { name: shot.name, document: JSON.stringify(shot), sketch: JSON.stringify(sketchShot(shot)) };
}

/** Another save came between: what is kept is newer than what a change was made from. */
function saveConflict({ revision }: ShotEntity): ConflictException {
  const message = 'A newer version of this shot was saved in another window.';
  return new ConflictException({ statusCode: 409, message, revision });
}

function toDto({ id, name, revision, updatedAt, lastSave }: ShotEntity, document: Shot): ShotDto {
  return { id, name, revision, updatedAt, document, save: lastSave };
}

const digestOf = (document: string): string => createHash('sha256').update(document).digest('base64');

function noShot(id: string): NotFoundException {
  return new NotFoundException(`There is no shot "${id}", or it was deleted.`);
}
