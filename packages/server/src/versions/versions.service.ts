import { randomUUID } from 'node:crypto';
import { Injectable, NotFoundException } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Repository } from 'typeorm';
import type { ShotDto } from '../shots/shots.dto.js';
import { ShotsService } from '../shots/shots.service.js';
import { VersionEntity } from './version.entity.js';
import type { VersionDto } from './versions.dto.js';

/** Named states of a shot to come back to. */
@Injectable()
export class VersionsService {
  constructor(
    @InjectRepository(VersionEntity) private readonly versions: Repository<VersionEntity>,
    private readonly shots: ShotsService,
  ) {}

  /** A shot's checkpoints, newest first. */
  async list(shotId: string): Promise<VersionDto[]> {
    return this.versions.find({
      select: { id: true, name: true, revision: true, createdAt: true },
      where: { shotId },
      order: { createdAt: 'DESC' },
    });
  }

  /** Keeps the shot as it was last saved under a name. */
  async checkpoint(shotId: string, name: string): Promise<VersionDto> {
    const { shot, revision } = await this.shots.documentOf(shotId);
    const createdAt = new Date().toISOString();
    const version = { id: randomUUID(), shotId, name, revision, document: JSON.stringify(shot), createdAt };
    await this.versions.insert(version);
    return { id: version.id, name, revision, createdAt };
  }

  /** Goes back to a checkpoint; what stood until now is kept as one of its own first. */
  async restore(shotId: string, versionId: string, revision: number): Promise<ShotDto> {
    const version = await this.versions.findOneBy({ id: versionId, shotId });
    if (version === null) throw new NotFoundException(`This shot has no checkpoint "${versionId}".`);
    await this.checkpoint(shotId, `Before going back to "${version.name.slice(0, 150)}"`);
    return this.shots.save(shotId, revision, JSON.parse(version.document));
  }
}
