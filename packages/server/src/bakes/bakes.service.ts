import { Worker } from 'node:worker_threads';
import { Injectable, UnprocessableEntityException } from '@nestjs/common';
import { frameCount, isMoving, modelsInPlay, writeShotText, type Shot } from '@fleet-rail/core';
import { needsAssets } from '@fleet-rail/core/formats';
import { ModelsService } from '../models/models.service.js';
import { ShotsService } from '../shots/shots.service.js';
import type { BakeAnswer, BakeFormat, BakeJob } from './bake-job.js';

/** The most numbers a bake may hold: 100 riders for 100,000 frames, or the like. */
const MOST_POSES = 10_000_000;

/** Makes the files a shot is handed over as, in a thread of their own. */
@Injectable()
export class BakesService {
  private waiting: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly shots: ShotsService,
    private readonly models: ModelsService,
  ) {}

  /** A baked shot. Bakes run one after another, so that the desk stays answered. */
  async bake(shotId: string, format: BakeFormat, within = 0): Promise<{ name: string; bytes: Uint8Array }> {
    const { shot } = await this.shots.documentOf(shotId);
    refuseTooMuch(shot);
    // A CSV of riders alone needs no model: parts that move by themselves do, and so does the ground.
    const needsModels = format === 'glb' || needsAssets(shot);
    const models = needsModels ? await this.modelFiles(shot) : new Map();
    const job: BakeJob = { shot, format, models, within };
    const turn = this.waiting.then(() => run(job));
    this.waiting = turn.catch(() => undefined);
    const result = await turn;
    if ('refusal' in result) throw new UnprocessableEntityException(result.refusal);
    return { name: `${shot.name}.${format}`, bytes: result.bytes };
  }

  /** The shot file, its models named as files to lie beside it. */
  async shotFile(shotId: string): Promise<{ name: string; bytes: Uint8Array }> {
    const { shot } = await this.shots.documentOf(shotId);
    const models = await Promise.all(
      shot.models.map(async (model) => {
        if (model.source.asset === undefined) return model;
        const { fileName } = await this.models.fileOf(model.source.asset);
        return { ...model, source: { file: fileName } };
      }),
    );
    const bytes = new TextEncoder().encode(writeShotText({ ...shot, models }));
    return { name: `${shot.name}.shot.json`, bytes };
  }

  private async modelFiles(shot: Shot): Promise<BakeJob['models']> {
    const files = new Map<string, { path: string; fileName: string }>();
    const needed = modelsInPlay(shot);
    for (const model of shot.models) {
      if (!needed.has(model.id)) continue;
      if (model.source.asset === undefined) {
        const worn = shot.riders.find((rider) => rider.model === model.id);
        throw new UnprocessableEntityException(
          `${worn ? `${worn.badge} wears` : 'The shot is played with'} "${model.name}", whose file ${model.source.file} is not here; add it under Attach first.`,
        );
      }
      files.set(model.id, await this.models.fileOf(model.source.asset));
    }
    return files;
  }
}

function refuseTooMuch(shot: Shot): void {
  const frames = frameCount(shot);
  const riders = shot.riders.filter((rider) => isMoving(shot, rider)).length;
  if (frames * riders <= MOST_POSES) return;
  throw new UnprocessableEntityException(
    `${riders} moving riders for ${frames} frames are ${frames * riders} poses; at most ${MOST_POSES} are baked at once. Shorten the range.`,
  );
}

function run(job: BakeJob): Promise<BakeAnswer> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./bake-worker.js', import.meta.url), { workerData: job });
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.once('exit', (code) => reject(new Error(`The bake thread ended with ${code}.`)));
  });
}
