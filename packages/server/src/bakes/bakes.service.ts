import { Readable } from 'node:stream';
import {
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
  type OnModuleDestroy,
} from '@nestjs/common';
import {
  sampledRange,
  isMoving,
  modelsInPlay,
  needsAssets,
  writeShotText,
  type Shot,
} from '@fleet-rail/core/shots';
import type { PathKind } from '@fleet-rail/core/format-facts';
import { ModelsService } from '../models/models.service.js';
import { ShotsService } from '../shots/shots.service.js';
import { WorkThreads, threadScript, type PartStream } from '../threads/work-threads.js';
import type { BakeChoice, BakeFormat, BakeJob, PathFormat } from './bake-job.js';
import { GivenOutDto } from './bakes.dto.js';

/** Most numbers of a bake: 100 riders for 100,000 frames, for example. */
const MOST_POSES = 10_000_000;

/** Names of files that can be asked for. */
export type GivenFormat = Exclude<BakeFormat, 'laid' | PathFormat>;

const ENDINGS: Readonly<Record<BakeFormat, string>> = {
  glb: 'glb',
  laid: 'glb',
  'path.svg': 'svg',
  'path.obj': 'obj',
  'path.csv': 'csv',
  'path.glb': 'glb',
  csv: 'csv',
  tables: 'zip',
  usd: 'usda',
  usdz: 'usdz',
  about: 'json',
};

/** Tolerance of a file that cannot express a path exactly, metres. */
const PATH_WITHIN = 0.001;

/** A file under way. */
export interface Download {
  readonly name: string;
  readonly parts: AsyncIterable<Uint8Array>;
}

/** Makes the files a shot is handed over as, in threads of their own. */
@Injectable()
export class BakesService implements OnModuleDestroy {
  /** The longest bakes that are taken, ten million poses, take about a minute. */
  private readonly threads = new WorkThreads<BakeJob, Uint8Array>(
    threadScript('bakes/bake-worker'),
    'The bake',
    { threads: 2, seconds: 300, megabytes: 2048 },
  );

  constructor(
    private readonly shots: ShotsService,
    private readonly models: ModelsService,
  ) {}

  /**
   * A baked shot; when it resolves, its first part is made.
   *
   * @param signal ends the bake when nobody waits for it any more
   */
  async bake(
    shotId: string,
    format: GivenFormat,
    given: GivenOutDto,
    signal: AbortSignal,
  ): Promise<Download> {
    const { shot } = await this.shots.documentOf(shotId);
    const choice = choiceOf(shot, given);
    refuseTooMuch(shot, choice);
    // A CSV of riders alone needs no model: parts that move by themselves do, and so does the ground.
    const needsModels = format !== 'csv' || needsAssets(shot);
    const models = needsModels ? await this.modelFiles(shot) : new Map();
    return this.run({ shot, format, models, choice, only: null }, shot.name, signal);
  }

  /** Dressing of a path, alone, as GLB. */
  async laid(shotId: string, laidId: string, signal: AbortSignal): Promise<Download> {
    const { shot } = await this.shots.documentOf(shotId);
    const laid = shot.dressing.find(({ id }) => id === laidId);
    if (laid === undefined) throw new NotFoundException(`Nothing that is laid has the id "${laidId}".`);
    const models = await this.modelFiles(shot);
    const choice = choiceOf(shot, new GivenOutDto());
    return this.run({ shot, format: 'laid', models, choice, only: laidId }, laid.name, signal);
  }

  /** A path alone. */
  async path(shotId: string, pathId: string, kind: PathKind, signal: AbortSignal): Promise<Download> {
    const { shot } = await this.shots.documentOf(shotId);
    const path = shot.paths.find(({ id }) => id === pathId);
    if (path === undefined) throw new NotFoundException(`No path has the id "${pathId}".`);
    const choice = { ...choiceOf(shot, new GivenOutDto()), within: PATH_WITHIN };
    const job: BakeJob = { shot, format: `path.${kind}`, models: new Map(), choice, only: pathId };
    return this.run(job, path.name, signal);
  }

  private async run(job: BakeJob, name: string, signal: AbortSignal): Promise<Download> {
    const parts = this.threads.run(job, signal);
    const first = await parts.next();
    const ending = ENDINGS[job.format];
    // A layer that has pictures beside it comes with them in a zip, which begins so.
    const zipped = !first.done && first.value[0] === 0x50 && first.value[1] === 0x4b;
    return { name: `${name}.${ending === 'usda' && zipped ? 'zip' : ending}`, parts: after(first, parts) };
  }

  onModuleDestroy(): Promise<void> {
    return this.threads.close();
  }

  /** The shot file, its models named as files to lie beside it. */
  async shotFile(shotId: string): Promise<Download> {
    const { shot } = await this.shots.documentOf(shotId);
    const models = await Promise.all(
      shot.models.map(async (model) => {
        if (model.source.asset === undefined) return model;
        const { fileName } = await this.models.open(model.source.asset);
        return { ...model, source: { file: fileName } };
      }),
    );
    const bytes = new TextEncoder().encode(writeShotText({ ...shot, models }));
    return { name: `${shot.name}.shot.json`, parts: Readable.from([bytes]) };
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

/** Requested part of a shot that has it. */
function choiceOf(shot: Shot, given: GivenOutDto): BakeChoice {
  const { within, turns, closing, clips, facts, riders, from, to } = given;
  const ids = riders === undefined ? null : new Set(riders.split(','));
  for (const id of ids ?? [])
    if (!shot.riders.some((rider) => rider.id === id))
      throw new UnprocessableEntityException(`riders: found "${id.slice(0, 100)}"; expected ids of riders.`);
  const { first, last } = shot.range;
  for (const [name, frame] of [
    ['from', from],
    ['to', to],
  ] as const)
    if (frame !== undefined && (frame < first || frame > last))
      throw new UnprocessableEntityException(
        `${name}: found ${frame}; expected a frame from ${first} to ${last}.`,
      );
  if ((from ?? first) > (to ?? last))
    throw new UnprocessableEntityException(`from: found ${from}, which is after ${to ?? last}.`);
  return {
    riders: ids,
    first: from ?? null,
    last: to ?? null,
    closing,
    clips,
    facts,
    within,
    turns: turns === undefined ? within : (turns * Math.PI) / 180,
  };
}

function refuseTooMuch(shot: Shot, choice: BakeChoice): void {
  const { first, last } = sampledRange(shot, choice);
  const frames = last - first + 1;
  const given = shot.riders.filter(({ id }) => choice.riders?.has(id) ?? true);
  const riders = given.filter((rider) => isMoving(shot, rider)).length;
  if (frames * riders <= MOST_POSES) return;
  throw new UnprocessableEntityException(
    `${riders} moving riders for ${frames} frames are ${frames * riders} poses; at most ${MOST_POSES} are baked at once. Shorten the range.`,
  );
}

async function* after(first: IteratorResult<Uint8Array, void>, rest: PartStream<Uint8Array>) {
  if (!first.done) yield first.value;
  yield* rest;
}
