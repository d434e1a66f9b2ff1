import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import {
  GoneException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
  type OnModuleInit,
} from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { runsOf, type JobCard, type TakenRun } from '@fleet-rail/core/shots';
import { In, type Repository } from 'typeorm';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';
import { problemOfPng } from './check-png.js';
import { PictureJobEntity } from './picture-job.entity.js';
import { PictureQueue, type NewJob } from './picture-queue.js';
import { PictureRunEntity } from './picture-run.entity.js';
import { PoolFiles } from './pool-files.js';

/** A run that was lost so often is not tried again: it may be what its takers die of. */
const MOST_LOST = 5;

/** The queue of one server: rows in its database, pictures beside it. Whatever kills the server, it goes on where it was. */
@Injectable()
export class DatabaseQueue extends PictureQueue implements OnModuleInit {
  constructor(
    @InjectRepository(PictureJobEntity) private readonly jobs: Repository<PictureJobEntity>,
    @InjectRepository(PictureRunEntity) private readonly runs: Repository<PictureRunEntity>,
    private readonly files: PoolFiles,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {
    super();
  }

  async onModuleInit(): Promise<void> {
    const kept = await this.jobs.find({ select: { id: true } });
    await this.files.clean(new Set(kept.map(({ id }) => id)));
  }

  async add({ shotId, fileName, work }: NewJob): Promise<JobCard> {
    const id = randomUUID();
    const { pictures, wish, shot } = work;
    const parts = [
      ...runsOf(pictures.length).map((run) => ({ kind: 'draw' as const, ...run })),
      { kind: 'join' as const, first: 0, count: pictures.length },
    ];
    await this.jobs.manager.transaction(async (manager) => {
      await manager.insert(PictureJobEntity, {
        id,
        shotId,
        name: shot.name,
        work: JSON.stringify(work),
        pictures: pictures.length,
        width: wish.width,
        height: wish.height,
        state: 'drawing',
        fileName,
        createdAt: new Date().toISOString(),
      });
      for (const [place, part] of parts.entries())
        await manager.insert(PictureRunEntity, {
          id: randomUUID(),
          jobId: id,
          place,
          ...part,
          state: 'waiting',
          done: 0,
          lost: 0,
        });
    });
    return this.open(id);
  }

  async list(): Promise<JobCard[]> {
    const found = await this.jobs.find({ select: CARD, order: { createdAt: 'DESC' }, take: 200 });
    const told = found.filter(({ state }, i) => state === 'drawing' || i < TOLD_WHOLE);
    const runs = await this.runs.find({
      where: { jobId: In(told.map(({ id }) => id)) },
      order: { place: 'ASC' },
    });
    const byJob = new Map<string, PictureRunEntity[]>();
    for (const run of runs) byJob.set(run.jobId, [...(byJob.get(run.jobId) ?? []), run]);
    return found.map((job) => this.card(job, byJob.get(job.id) ?? []));
  }

  async open(id: string): Promise<JobCard> {
    const job = await this.find(id);
    return this.card(job, await this.runs.find({ where: { jobId: id }, order: { place: 'ASC' } }));
  }

  async work(id: string): Promise<string> {
    const found = await this.jobs.findOne({ where: { id }, select: { id: true, work: true } });
    if (found === null) throw noJob(id);
    return found.work;
  }

  async remove(id: string): Promise<void> {
    await this.find(id);
    await this.runs.delete({ jobId: id });
    await this.jobs.delete(id);
    await this.files.drop(id);
  }

  async claim(taker: string, only: { shot?: string; job?: string }): Promise<TakenRun | null> {
    const now = Date.now();
    await this.takeBackLost(now);
    // One statement, so that no two takers get the same run.
    const [taken] = (await this.runs.query(
      `UPDATE picture_run SET state = 'taken', taker = ?, until = ?, done = 0 WHERE id = (
         SELECT run.id FROM picture_run run JOIN picture_job job ON job.id = run.job_id
         WHERE job.state = 'drawing' AND run.state = 'waiting'
           AND (? IS NULL OR job.shot_id = ?) AND (? IS NULL OR job.id = ?)
           AND (run.kind = 'draw' OR NOT EXISTS (
             SELECT 1 FROM picture_run other
             WHERE other.job_id = job.id AND other.kind = 'draw' AND other.state <> 'given'))
         ORDER BY job.created_at, run.place LIMIT 1)
       RETURNING id, job_id, kind, first, count`,
      [taker, now + this.settings.lease, ...both(only.shot), ...both(only.job)],
    )) as { id: string; job_id: string; kind: 'draw' | 'join'; first: number; count: number }[];
    if (taken === undefined) return null;
    const { id, job_id: job, kind, first, count } = taken;
    return { run: id, job, kind, first, count, lease: this.settings.lease };
  }

  async beat(id: string, taker: string, done: number): Promise<void> {
    const until = Date.now() + this.settings.lease;
    const { affected } = await this.runs.update({ id, taker, state: 'taken' }, { until, done });
    if (affected !== 1) throw lost();
  }

  async givePicture(id: string, taker: string, index: number, png: Buffer): Promise<void> {
    const run = await this.own(id, taker);
    if (run.kind !== 'draw' || index < run.first || index >= run.first + run.count)
      throw new UnprocessableEntityException(`Picture ${index} is none of this run.`);
    const problem = await problemOfPng(png, await this.find(run.jobId));
    if (problem !== null) {
      await this.waitAgain(run, problem);
      throw new UnprocessableEntityException(problem);
    }
    // It may have been lost, or its job taken back, while the picture was looked at.
    await this.own(id, taker);
    await this.files.putPicture(run.jobId, index, png);
    await this.beat(id, taker, index - run.first + 1);
  }

  async give(id: string, taker: string): Promise<void> {
    const run = await this.own(id, taker);
    const missing = Array.from({ length: run.count }, (_, i) => run.first + i).find(
      (index) => !existsSync(this.files.picture(run.jobId, index)),
    );
    if (run.kind !== 'draw' || missing !== undefined)
      throw new UnprocessableEntityException(
        `The run is not whole: ${missing === undefined ? 'its file' : `picture ${missing}`} is missing.`,
      );
    await this.runs.update({ id, taker, state: 'taken' }, { state: 'given', until: null, done: run.count });
  }

  async giveFile(id: string, taker: string, file: NodeJS.ReadableStream): Promise<void> {
    const run = await this.own(id, taker);
    if (run.kind !== 'join')
      throw new UnprocessableEntityException('This run is of pictures, not of a file.');
    const bytes = await this.files.putFile(run.jobId, file);
    if (bytes === 0) throw new UnprocessableEntityException('The file is empty.');
    const { affected } = await this.runs.update(
      { id, taker, state: 'taken' },
      { state: 'given', until: null, done: run.count },
    );
    if (affected !== 1) throw lost();
    await this.jobs.update(run.jobId, { state: 'done', bytes, doneAt: new Date().toISOString() });
    await this.files.dropPictures(run.jobId, shownOf(run.count));
  }

  async fail(id: string, taker: string, problem: string, final: boolean): Promise<void> {
    const run = await this.own(id, taker);
    if (final) await this.giveUp(run.jobId, problem);
    else await this.waitAgain(run, problem);
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

  /** Runs whose takers were not heard of in time wait for others. */
  private async takeBackLost(now: number): Promise<void> {
    const late = await this.runs.find({ where: { state: 'taken' } });
    for (const run of late)
      if (run.until !== null && run.until < now) await this.waitAgain(run, 'its taker was lost');
  }

  private async waitAgain(run: PictureRunEntity, problem: string): Promise<void> {
    const times = run.lost + 1;
    await this.runs.update(
      { id: run.id, taker: run.taker ?? undefined, state: 'taken' },
      { state: 'waiting', taker: null, until: null, done: 0, lost: times },
    );
    if (times < MOST_LOST) return;
    const what =
      run.kind === 'join' ? 'Joining them' : `Pictures ${run.first + 1} to ${run.first + run.count}`;
    await this.giveUp(run.jobId, `${what} failed ${times} times, the last time since: ${problem}`);
  }

  private async giveUp(job: string, problem: string): Promise<void> {
    await this.jobs.update(
      { id: job, state: 'drawing' },
      { state: 'failed', problem: problem.slice(0, 500) },
    );
    await this.files.drop(job);
  }

  /** A run that is this taker's. */
  private async own(id: string, taker: string): Promise<PictureRunEntity> {
    const run = await this.runs.findOneBy({ id, taker, state: 'taken' });
    if (run === null) throw lost();
    return run;
  }

  private async find(id: string): Promise<PictureJobEntity> {
    const found = await this.jobs.findOne({ where: { id }, select: CARD });
    if (found === null) throw noJob(id);
    return found;
  }

  private card(job: PictureJobEntity, runs: readonly PictureRunEntity[]): JobCard {
    const { id, shotId, name, fileName, pictures, width, height, state, problem, bytes, createdAt, doneAt } =
      job;
    const drawing = runs.filter(({ kind }) => kind === 'draw');
    const begun = drawing.filter(({ done }) => done > 0).at(-1);
    const last = begun ? begun.first + begun.done - 1 : null;
    return {
      id,
      shotId,
      name,
      fileName,
      pictures,
      drawn: state === 'done' ? pictures : drawing.reduce((sum, { done }) => sum + done, 0),
      width,
      height,
      state,
      problem,
      bytes,
      createdAt,
      doneAt,
      shown: state === 'done' ? shownOf(pictures) : state === 'drawing' ? last : null,
      runs: runs.map(({ id, kind, first, count, state, taker, done, lost }) => {
        return { id, kind, first, count, state, taker, done, lost };
      }),
    };
  }
}

/** Of so many of the newest jobs each run is told, and of those that are drawn. */
const TOLD_WHOLE = 20;

/** All but the work itself, which may be large. */
const CARD = {
  id: true,
  shotId: true,
  name: true,
  fileName: true,
  pictures: true,
  width: true,
  height: true,
  state: true,
  problem: true,
  bytes: true,
  createdAt: true,
  doneAt: true,
} as const;

/** The picture that stands for a job that is whole. */
const shownOf = (pictures: number): number => Math.floor((pictures - 1) / 2);

const both = (value: string | undefined): [string | null, string | null] => [value ?? null, value ?? null];

const lost = () => new GoneException('This run is another’s now, or its job was taken back.');

const noJob = (id: string) => new NotFoundException(`There are no pictures "${id}".`);
