import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { setImmediate } from 'node:timers/promises';
import {
  GoneException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
  type OnModuleInit,
} from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { batchesOf, type JobCard, type PictureJob, type ClaimedBatch } from '@fleet-rail/core/shots';
import type { FindOptionsWhere, Repository } from 'typeorm';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';
import { JobRows, shownOf } from './job-rows.js';
import { latestWork } from './latest-work.js';
import { PictureChecker } from './picture-checker.js';
import { PictureJobEntity } from './picture-job.entity.js';
import { PictureQueue, type NewJob } from './picture-queue.js';
import { PictureRunEntity } from './picture-batch.entity.js';
import { PoolFiles } from './pool-files.js';

/** A run that was lost so often is paused: it may be what its renderers die of. */
const MOST_LOST = 5;
/** Runs that are stored in one statement. */
const SLICE = 250;

/** The queue of one server: rows in its database, pictures beside it. Whatever kills the server, it goes on where it was. */
@Injectable()
export class DatabaseQueue extends PictureQueue implements OnModuleInit {
  constructor(
    @InjectRepository(PictureJobEntity) private readonly jobs: Repository<PictureJobEntity>,
    @InjectRepository(PictureRunEntity) private readonly runs: Repository<PictureRunEntity>,
    private readonly rows: JobRows,
    private readonly files: PoolFiles,
    private readonly checker: PictureChecker,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {
    super();
  }

  async onModuleInit(): Promise<void> {
    // A server that ended while it stored a job has answered nobody.
    await this.jobs.delete({ state: 'adding' });
    const kept = await this.jobs.find({ select: { id: true } });
    await this.files.clean(new Set(kept.map(({ id }) => id)));
  }

  async add(job: NewJob): Promise<JobCard> {
    const id = randomUUID();
    const { pictures } = job;
    await this.jobs.insert({ ...job, id, state: 'adding', createdAt: new Date().toISOString() });
    const parts = [
      ...batchesOf(pictures).map((run) => ({ kind: 'draw' as const, ...run })),
      { kind: 'join' as const, first: 0, count: pictures },
    ];
    const rows = parts.map((part, place) => {
      return { id: randomUUID(), jobId: id, place, ...part, state: 'waiting' as const, done: 0, lost: 0 };
    });
    for (let from = 0; from < rows.length; from += SLICE) {
      await this.runs.insert(rows.slice(from, from + SLICE));
      // Others have their turn between two slices.
      await setImmediate();
    }
    await this.jobs.update(id, { state: 'drawing' });
    return this.open(id);
  }

  list(): Promise<JobCard[]> {
    return this.rows.newest();
  }

  async open(id: string): Promise<JobCard> {
    const card = await this.rows.one(id);
    if (card === null) throw noJob(id);
    return card;
  }

  async work(id: string): Promise<string> {
    const found = await this.jobs.findOne({ where: { id }, select: { id: true, work: true } });
    if (found === null) throw noJob(id);
    return latestWork(found.work);
  }

  async remove(id: string): Promise<void> {
    await this.find(id);
    await this.runs.delete({ jobId: id });
    await this.jobs.delete(id);
    await this.files.drop(id);
  }

  async tryAgain(id: string): Promise<JobCard> {
    await this.find(id);
    await this.runs.update({ jobId: id, state: 'paused' }, { state: 'waiting', lost: 0, problem: null });
    return this.open(id);
  }

  async claim(renderer: string, only: { shot?: string; job?: string }): Promise<ClaimedBatch | null> {
    const now = Date.now();
    await this.takeBackLost(now);
    // One statement, so that no two renderers get the same run.
    const [taken] = (await this.runs.query(
      `UPDATE picture_run SET state = 'taken', taker = ?, until = ?, done = 0 WHERE id = (
         SELECT run.id FROM picture_run run JOIN picture_job job ON job.id = run.job_id
         WHERE job.state = 'drawing' AND run.state = 'waiting'
           AND (? IS NULL OR job.id = ?)
           AND (? IS NULL OR job.shot_id = ? OR NOT EXISTS (
             SELECT 1 FROM picture_run other WHERE other.job_id = job.id AND other.state = 'taken'))
           AND (run.kind = 'draw' OR NOT EXISTS (
             SELECT 1 FROM picture_run other
             WHERE other.job_id = job.id AND other.kind = 'draw' AND other.state <> 'given'))
         ORDER BY (? IS NOT NULL AND job.shot_id IS NOT ?), job.created_at, run.lost, run.place LIMIT 1)
       RETURNING id, job_id, kind, first, count`,
      [renderer, now + this.settings.lease, ...both(only.job), ...both(only.shot), ...both(only.shot)],
    )) as { id: string; job_id: string; kind: 'draw' | 'join'; first: number; count: number }[];
    if (taken === undefined) return null;
    const { id, job_id: job, kind, first, count } = taken;
    return { run: id, job, kind, first, count, lease: this.settings.lease };
  }

  async beat(id: string, renderer: string, done: number): Promise<void> {
    const { count } = await this.own(id, renderer);
    if (done > count)
      throw new UnprocessableEntityException(
        `done: found ${done}; expected at most ${count}, the run's pictures.`,
      );
    const until = Date.now() + this.settings.lease;
    const { affected } = await this.runs.update({ id, renderer, state: 'taken' }, { until, done });
    if (affected !== 1) throw lost();
  }

  async givePicture(id: string, renderer: string, index: number, png: Buffer): Promise<void> {
    const run = await this.own(id, renderer);
    if (run.kind !== 'draw' || index < run.first || index >= run.first + run.count)
      throw new UnprocessableEntityException(`Picture ${index} is none of this run.`);
    const problem = await this.checker.problemOfPicture(png, await this.find(run.jobId));
    if (problem !== null) {
      await this.waitAgain(run, problem);
      throw new UnprocessableEntityException(problem);
    }
    // The batch may have been lost, or its job cancelled, while the picture was checked.
    await this.own(id, renderer);
    await this.files.putPicture(run.jobId, index, png);
    await this.beat(id, renderer, index - run.first + 1);
  }

  async give(id: string, renderer: string): Promise<void> {
    const run = await this.own(id, renderer);
    const missing = Array.from({ length: run.count }, (_, i) => run.first + i).find(
      (index) => !existsSync(this.files.picture(run.jobId, index)),
    );
    if (run.kind !== 'draw' || missing !== undefined)
      throw new UnprocessableEntityException(
        `The run is not whole: ${missing === undefined ? 'its file' : `picture ${missing}`} is missing.`,
      );
    await this.runs.update(
      { id, renderer, state: 'taken' },
      { state: 'given', until: null, done: run.count },
    );
  }

  async giveFile(id: string, renderer: string, file: NodeJS.ReadableStream): Promise<void> {
    const run = await this.own(id, renderer);
    if (run.kind !== 'join')
      throw new UnprocessableEntityException('This run is of pictures, not of a file.');
    const wish = await this.wishOf(run.jobId);
    const bytes = await this.files.putFile(run.jobId, file, async (path) => {
      const problem = await this.checker.problemOfFile(path, { wish, pictures: run.count });
      if (problem !== null) {
        await this.waitAgain(run, problem);
        throw new UnprocessableEntityException(problem);
      }
      // Another may have given the file while this one was on its way.
      await this.own(id, renderer);
    });
    const { affected } = await this.runs.update(
      { id, renderer, state: 'taken' },
      { state: 'given', until: null, done: run.count },
    );
    if (affected !== 1) throw lost();
    await this.jobs.update(run.jobId, { state: 'done', bytes, doneAt: new Date().toISOString() });
    await this.files.dropPictures(run.jobId, shownOf(run.count));
  }

  async fail(id: string, renderer: string, problem: string, final: boolean): Promise<void> {
    const run = await this.own(id, renderer);
    if (!final) return this.waitAgain(run, problem);
    await this.pause({ id: run.id, renderer, state: 'taken' }, problem);
    await this.pause({ jobId: run.jobId, state: 'waiting' }, problem);
  }

  async picture(job: string, index: number): Promise<string> {
    await this.find(job);
    const path = this.files.picture(job, index);
    if (!existsSync(path)) throw new NotFoundException(`Picture ${index} is not drawn yet.`);
    return path;
  }

  async file(id: string): Promise<{ path: string; fileName: string }> {
    const { state, fileName } = await this.find(id);
    if (state !== 'done') throw new NotFoundException('The pictures are not all drawn yet.');
    return { path: this.files.file(id), fileName };
  }

  /** Batches without a heartbeat in time become available again. */
  private async takeBackLost(now: number): Promise<void> {
    const late = await this.runs.find({ where: { state: 'taken' } });
    for (const run of late)
      if (run.until !== null && run.until < now)
        await this.waitAgain(run, 'its renderer did not answer in time.');
  }

  private async waitAgain(run: PictureRunEntity, problem: string): Promise<void> {
    const lost = run.lost + 1;
    const held = { id: run.id, renderer: run.renderer ?? undefined, state: 'taken' as const };
    if (lost < MOST_LOST) {
      await this.runs.update(held, { state: 'waiting', renderer: null, until: null, done: 0, lost });
      return;
    }
    const what =
      run.kind === 'join' ? 'Joining them' : `Pictures ${run.first + 1} to ${run.first + run.count}`;
    await this.pause(held, `${what} failed ${lost} times. Last reason: ${problem}`, lost);
  }

  /** Pauses batches until someone tries them again; drawn pictures stay. */
  private async pause(
    which: FindOptionsWhere<PictureRunEntity>,
    problem: string,
    lost?: number,
  ): Promise<void> {
    const change = { state: 'paused' as const, renderer: null, until: null, done: 0 };
    await this.runs.update(which, { ...change, problem: problem.slice(0, 500), ...(lost && { lost }) });
  }

  private async wishOf(id: string): Promise<PictureJob['wish']> {
    const query = "SELECT json_extract(work, '$.wish') AS wish FROM picture_job WHERE id = ?";
    const [row] = (await this.jobs.query(query, [id])) as { wish: string }[];
    if (row === undefined) throw noJob(id);
    return JSON.parse(row.wish) as PictureJob['wish'];
  }

  /** A run that is this renderer's. */
  private async own(id: string, renderer: string): Promise<PictureRunEntity> {
    const run = await this.runs.findOneBy({ id, renderer, state: 'taken' });
    if (run === null) throw lost();
    return run;
  }

  private async find(id: string): Promise<PictureJobEntity> {
    const found = await this.jobs.findOne({ where: { id }, select: WITHOUT_WORK });
    if (found === null) throw noJob(id);
    return found;
  }
}

/** All but the work itself, which may be large. */
const WITHOUT_WORK = {
  id: true,
  shotId: true,
  name: true,
  fileName: true,
  pictures: true,
  width: true,
  height: true,
  state: true,
  bytes: true,
  createdAt: true,
  doneAt: true,
} as const;

const both = (value: string | undefined): [string | null, string | null] => [value ?? null, value ?? null];

const lost = () => new GoneException('This run is another’s now, or its job was taken back.');

const noJob = (id: string) => new NotFoundException(`There are no pictures "${id}".`);
