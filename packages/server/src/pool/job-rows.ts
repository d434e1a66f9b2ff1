import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { JobCard, BatchCard } from '@fleet-rail/core/shots';
import type { Repository } from 'typeorm';
import { PictureJobEntity } from './picture-job.entity.js';

/** A job as its row has it, with its runs as JSON. */
type JobRow = Omit<JobCard, 'drawn' | 'shown' | 'runs' | 'problem' | 'state'> & {
  readonly state: 'drawing' | 'done';
  readonly runs: string;
};

/** Jobs that the list has at most. */
const MOST_JOBS = 200;
/** So many of the newest jobs come with their runs, and so do all that are being drawn. */
const WITH_RUNS = 20;

/** All but the work itself, which may be large. */
const FIELDS = 'id, shot_id, name, file_name, pictures, width, height, state, bytes, created_at, done_at';
const COLUMNS = `job.id, job.shot_id AS shotId, job.name, job.file_name AS fileName, job.pictures, job.width, job.height,
  job.state, job.bytes, job.created_at AS createdAt, job.done_at AS doneAt`;
const RUNS = `(SELECT json_group_array(json_object('id', id, 'kind', kind, 'first', first, 'count', count, 'state', state,
  'renderer', taker, 'done', done, 'lost', lost, 'problem', problem))
  FROM (SELECT * FROM picture_run WHERE job_id = job.id ORDER BY place))`;

/** Reads jobs with their runs as cards, each in one query. */
@Injectable()
export class JobRows {
  constructor(@InjectRepository(PictureJobEntity) private readonly jobs: Repository<PictureJobEntity>) {}

  /** The newest first. */
  async newest(): Promise<JobCard[]> {
    const rows = (await this.jobs.query(
      `SELECT ${COLUMNS}, CASE WHEN job.state = 'drawing' OR job.place <= ${WITH_RUNS} THEN ${RUNS} ELSE '[]' END AS runs
       FROM (SELECT ${FIELDS}, row_number() OVER (ORDER BY created_at DESC) AS place FROM picture_job
             WHERE state <> 'adding' ORDER BY created_at DESC LIMIT ${MOST_JOBS}) job
       ORDER BY job.place`,
    )) as JobRow[];
    return rows.map(cardOf);
  }

  async one(id: string): Promise<JobCard | null> {
    const [row] = (await this.jobs.query(
      `SELECT ${COLUMNS}, ${RUNS} AS runs FROM picture_job job WHERE job.id = ? AND job.state <> 'adding'`,
      [id],
    )) as JobRow[];
    return row === undefined ? null : cardOf(row);
  }
}

function cardOf(row: JobRow): JobCard {
  const runs = JSON.parse(row.runs) as BatchCard[];
  const { pictures } = row;
  const drawing = runs.filter(({ kind }) => kind === 'draw');
  const begun = drawing.filter(({ done }) => done > 0).at(-1);
  const paused = runs.find(({ state }) => state === 'paused');
  const isBusy = drawing.some(({ state }) => state === 'waiting' || state === 'taken');
  const isDone = row.state === 'done';
  return {
    ...row,
    state: paused !== undefined && !isBusy ? 'paused' : row.state,
    problem: paused?.problem ?? null,
    drawn: isDone ? pictures : drawing.reduce((sum, { done }) => sum + done, 0),
    shown: isDone ? shownOf(pictures) : begun ? begun.first + begun.done - 1 : null,
    runs,
  };
}

/** Picture that represents a finished job. */
export const shownOf = (pictures: number): number => Math.floor((pictures - 1) / 2);
