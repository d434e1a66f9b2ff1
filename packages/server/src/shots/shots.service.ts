import { createHash, randomUUID } from 'node:crypto';
import { ConflictException, Injectable, NotFoundException } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { newShot, type Shot } from '@fleet-rail/core/shots';
import { IsNull, MoreThan, Not, type FindManyOptions, type Repository } from 'typeorm';
import { binUntil } from '../bin/bin-until.js';
import { CheckedShot, columnsOf, type ShotColumns } from '../documents/checked-shot.js';
import { DocumentThreads } from '../documents/document-threads.js';
import { ModelsService } from '../models/models.service.js';
import { ShotEntity } from './shot.entity.js';
import type { SavedDto, ShotCardDto, ShotDto } from './shots.dto.js';

/** Length from which on stored documents are checked in a thread, characters. */
const LARGE = 2 ** 20;

/** Keeps shots. Every write is one statement, so nothing is ever stored half. */
@Injectable()
export class ShotsService {
  /** By id the digest of the document that was stored from here: one that still has it was checked then, and is not again. */
  private readonly checked = new Map<string, string>();

  constructor(
    @InjectRepository(ShotEntity) private readonly shots: Repository<ShotEntity>,
    private readonly models: ModelsService,
    private readonly threads: DocumentThreads,
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
    const select = { id: true, name: true, revision: true, updatedAt: true, deleteAfter: true, sketch: true };
    const found = await this.shots.find({ select, ...which });
    return found.map(({ sketch, ...rest }) => {
      return { ...rest, sketch: JSON.parse(sketch) as object };
    });
  }

  /** An empty shot under a name, or one from a document whose models are looked up by file name. */
  async create(name: string | undefined, raw: unknown): Promise<ShotDto> {
    const shot =
      raw === undefined
        ? CheckedShot.from(newShot({ name: name ?? 'Untitled shot', ground: { level: 0 } }))
        : CheckedShot.of(raw);
    const document = await this.models.findFiles(shot.columns.document);
    return this.insert({ ...shot.columns, document });
  }

  async open(id: string): Promise<ShotDto> {
    return JSON.parse(await this.textOf(id)) as ShotDto;
  }

  /** The same as JSON: a document that needs no check is passed on as stored. */
  async textOf(id: string): Promise<string> {
    const found = await this.find(id);
    const { name, revision, updatedAt, lastSave: save } = found;
    const rest = JSON.stringify({ id, name, revision, updatedAt, save });
    return `${rest.slice(0, -1)},"document":${await this.checkedText(found)}}`;
  }

  /** A shot without its document: how often it was saved, and when last. */
  async revisionOf(id: string): Promise<SavedDto> {
    const select = { id: true, name: true, revision: true, updatedAt: true };
    const found = await this.shots.findOne({ where: { id, deletedAt: IsNull() }, select });
    if (found === null) throw noShot(id);
    return { id, name: found.name, revision: found.revision, updatedAt: found.updatedAt };
  }

  /** The last save of an existing shot. */
  async documentOf(id: string): Promise<{ shot: Shot; revision: number }> {
    const found = await this.find(id);
    return { shot: JSON.parse(await this.checkedText(found)) as Shot, revision: found.revision };
  }

  /**
   * Saves a document that was made from `revision`.
   *
   * @param saveId names the save: sent a second time it is the same one, and no conflict with itself
   * @throws ConflictException where another save came between; ShotError where the document is refused
   */
  async save(id: string, revision: number, raw: unknown, saveId: string | null = null): Promise<SavedDto> {
    const { columns } = CheckedShot.of(raw);
    const updatedAt = new Date().toISOString();
    const change = { ...columns, revision: revision + 1, updatedAt, lastSave: saveId };
    const { affected } = await this.shots.update({ id, revision, deletedAt: IsNull() }, change);
    if (affected === 1) {
      this.checked.set(id, digestOf(change.document));
      return { id, name: columns.name, revision: revision + 1, updatedAt };
    }
    const kept = await this.find(id);
    const isSame = saveId !== null && kept.lastSave === saveId && kept.revision === revision + 1;
    if (!isSame) throw saveConflict(kept);
    return { id, name: kept.name, revision: kept.revision, updatedAt: kept.updatedAt };
  }

  async rename(id: string, name: string): Promise<SavedDto> {
    const { shot, revision } = await this.documentOf(id);
    return this.save(id, revision, CheckedShot.from({ ...shot, name }));
  }

  async duplicate(id: string): Promise<ShotDto> {
    const { shot } = await this.documentOf(id);
    return this.insert(columnsOf({ ...shot, name: `${shot.name.slice(0, 190)} copy` }));
  }

  /** Takes a shot off the list; {@link undelete} brings it back. */
  async delete(id: string): Promise<void> {
    const now = new Date();
    const change = { deletedAt: now.toISOString(), deleteAfter: binUntil(now) };
    const { affected } = await this.shots.update({ id, deletedAt: IsNull() }, change);
    if (affected !== 1) throw noShot(id);
  }

  async undelete(id: string): Promise<ShotDto> {
    // One that is going for good at this moment does not come back in parts.
    const inBin = { id, deletedAt: Not(IsNull()), deleteAfter: MoreThan(new Date().toISOString()) };
    const { affected } = await this.shots.update(inBin, { deletedAt: null, deleteAfter: null });
    if (affected !== 1) throw noShot(id);
    return this.open(id);
  }

  private async insert(columns: ShotColumns): Promise<ShotDto> {
    const now = new Date().toISOString();
    const entity = {
      id: randomUUID(),
      ...columns,
      revision: 1,
      createdAt: now,
      updatedAt: now,
      lastSave: null,
      deletedAt: null,
      deleteAfter: null,
    };
    await this.shots.insert(entity);
    this.checked.set(entity.id, digestOf(entity.document));
    return this.open(entity.id);
  }

  /** A stored document as JSON; one that an earlier version saved is completed with defaults. */
  private async checkedText({ id, document }: ShotEntity): Promise<string> {
    const digest = digestOf(document);
    if (this.checked.get(id) === digest) return document;
    const isLarge = document.length >= LARGE;
    const { columns } = isLarge ? await this.threads.check(document) : CheckedShot.of(JSON.parse(document));
    if (columns.document === document) this.checked.set(id, digest);
    return columns.document;
  }

  private async find(id: string): Promise<ShotEntity> {
    const found = await this.shots.findOneBy({ id, deletedAt: IsNull() });
    if (found === null) throw noShot(id);
    return found;
  }
}

/** Another save came between: what is kept is newer than what a change was made from. */
function saveConflict({ revision }: ShotEntity): ConflictException {
  const message = 'A newer version of this shot was saved in another window.';
  return new ConflictException({ statusCode: 409, message, revision });
}

const digestOf = (document: string): string => createHash('sha256').update(document).digest('base64');

function noShot(id: string): NotFoundException {
  return new NotFoundException(`There is no shot "${id}", or it was deleted.`);
}
