import { randomUUID } from 'node:crypto';
import { Injectable, NotFoundException } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Shot } from '@fleet-rail/core';
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
    return this.keep(shotId, name, await this.shots.documentOf(shotId));
  }

  /** Goes back to a checkpoint; what stood until now is kept as one of its own. A save that is refused leaves none. */
  async restore(shotId: string, versionId: string, revision: number): Promise<ShotDto> {
    const version = await this.versions.findOneBy({ id: versionId, shotId });
    if (version === null) throw new NotFoundException(`This shot has no checkpoint "${versionId}".`);
    const until = await this.shots.documentOf(shotId);
    const kept = await this.keep(shotId, `Before going back to "${version.name.slice(0, 150)}"`, until);
    try {
      return await this.shots.save(shotId, revision, JSON.parse(version.document));
    } catch (error) {
      await this.versions.delete(kept.id);
      throw error;
    }
  }

  private async keep(
    shotId: string,
    name: string,
    { shot, revision }: { shot: Shot; revision: number },
  ): Promise<VersionDto> {
    const createdAt = new Date().toISOString();
    const version = { id: randomUUID(), shotId, name, revision, document: JSON.stringify(shot), createdAt };
    await this.versions.insert(version);
    return { id: version.id, name, revision, createdAt };
  }
}
