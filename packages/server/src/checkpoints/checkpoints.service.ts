import { randomUUID } from 'node:crypto';
import { Injectable, NotFoundException } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Shot } from '@fleet-rail/core/shots';
import { In, type Repository } from 'typeorm';
import type { ShotDto } from '../shots/shots.dto.js';
import { ShotsService } from '../shots/shots.service.js';
import { CheckpointEntity } from './checkpoint.entity.js';
import type { CheckpointDto } from './checkpoints.dto.js';
import { PieceEntity } from './piece.entity.js';
import { digestsOf, piecesOf, wholeOf } from './pieces.js';

/** Named states of a shot to come back to. */
@Injectable()
export class CheckpointsService {
  constructor(
    @InjectRepository(CheckpointEntity) private readonly checkpoints: Repository<CheckpointEntity>,
    @InjectRepository(PieceEntity) private readonly pieces: Repository<PieceEntity>,
    private readonly shots: ShotsService,
  ) {}

  /** A shot's checkpoints, newest first. */
  async list(shotId: string): Promise<CheckpointDto[]> {
    return this.checkpoints.find({
      select: { id: true, name: true, revision: true, createdAt: true },
      where: { shotId },
      order: { createdAt: 'DESC' },
    });
  }

  /** Keeps the last save of the shot under a name. */
  async add(shotId: string, name: string): Promise<CheckpointDto> {
    return this.keep(shotId, name, await this.shots.documentOf(shotId));
  }

  /** Restores a checkpoint; the state until now is kept as one of its own. A refused save leaves none. */
  async restore(shotId: string, checkpointId: string, revision: number): Promise<ShotDto> {
    const checkpoint = await this.checkpoints.findOneBy({ id: checkpointId, shotId });
    if (checkpoint === null) throw new NotFoundException(`This shot has no checkpoint "${checkpointId}".`);
    const until = await this.shots.documentOf(shotId);
    // Refused before anything is kept: unreferenced pieces would remain.
    if (until.revision !== revision)
      await this.shots.save(shotId, revision, JSON.parse(await this.whole(checkpoint)));
    const kept = await this.keep(shotId, `Before going back to "${checkpoint.name.slice(0, 150)}"`, until);
    try {
      await this.shots.save(shotId, revision, JSON.parse(await this.whole(checkpoint)));
    } catch (error) {
      await this.checkpoints.delete(kept.id);
      throw error;
    }
    return this.shots.open(shotId);
  }

  /** The document of a checkpoint, as JSON; null where there is none. */
  async documentOf(id: string): Promise<string | null> {
    const checkpoint = await this.checkpoints.findOneBy({ id });
    return checkpoint && this.whole(checkpoint);
  }

  private async whole({ document }: CheckpointEntity): Promise<string> {
    const found = await this.pieces.findBy({ digest: In(digestsOf(document)) });
    return wholeOf(document, new Map(found.map(({ digest, bytes }) => [digest, bytes])));
  }

  /** Keeps a document as a checkpoint of a shot. */
  async keep(
    shotId: string,
    name: string,
    { shot, revision }: { shot: Shot; revision: number },
    createdAt = new Date().toISOString(),
    id: string = randomUUID(),
  ): Promise<CheckpointDto> {
    const { outline, pieces } = piecesOf(JSON.stringify(shot));
    const checkpoint = { id, shotId, name, revision, document: outline, createdAt };
    await this.checkpoints.manager.transaction(async (manager) => {
      // Those that are there already are the same.
      for (const [digest, bytes] of pieces)
        await manager
          .createQueryBuilder()
          .insert()
          .into(PieceEntity)
          .values({ digest, bytes })
          .orIgnore()
          .execute();
      await manager.insert(CheckpointEntity, checkpoint);
    });
    return { id: checkpoint.id, name, revision, createdAt };
  }
}
