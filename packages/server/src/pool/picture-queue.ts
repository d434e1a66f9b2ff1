import type { JobCard, ClaimedBatch } from '@fleet-rail/core/shots';

/** Order with its origin. */
export interface NewJob {
  readonly shotId: string | null;
  readonly fileName: string;
  /** The shot's name. */
  readonly name: string;
  readonly pictures: number;
  readonly width: number;
  readonly height: number;
  /** The pictures to draw, JSON of a `PictureJob`. */
  readonly work: string;
}

/**
 * Queue of pictures. A batch belongs to the renderer that claimed it as long as it sends heartbeats; a renderer that
 * returns later has lost it. The interface hides the storage, so that a queue shared by many machines can take its
 * place.
 */
export abstract class PictureQueue {
  abstract add(job: NewJob): Promise<JobCard>;
  /** The newest first. */
  abstract list(): Promise<JobCard[]>;
  abstract open(job: string): Promise<JobCard>;
  /** The pictures to draw, JSON of a `PictureJob`. */
  abstract work(job: string): Promise<string>;
  /** Takes a job back, whatever has become of it. */
  abstract remove(job: string): Promise<void>;
  /** Lets renderers have paused runs once more. */
  abstract tryAgain(job: string): Promise<JobCard>;
  /**
   * Claims the next available batch of the oldest job, lost ones last; null if there is none.
   *
   * @param only.shot the shot whose desk asks: its own jobs come first, and of other jobs those that nobody draws
   * @param only.job  this job alone
   */
  abstract claim(renderer: string, only: { shot?: string; job?: string }): Promise<ClaimedBatch | null>;
  /**
   * Records a heartbeat.
   *
   * @throws GoneException where the run is not its own any more
   * @throws UnprocessableEntityException where more is said to be done than the run has
   */
  abstract beat(run: string, renderer: string, done: number): Promise<void>;
  /**
   * Takes a drawn picture.
   *
   * @throws UnprocessableEntityException where it is none; the run then waits for another renderer
   */
  abstract givePicture(run: string, renderer: string, index: number, png: Buffer): Promise<void>;
  /**
   * Takes the joined file: the job is done.
   *
   * @throws UnprocessableEntityException where it is not what the job asked for; the run then waits for another renderer
   */
  abstract giveFile(run: string, renderer: string, file: NodeJS.ReadableStream): Promise<void>;
  /** Ends a run: its pictures are given. */
  abstract give(run: string, renderer: string): Promise<void>;
  /** A renderer cannot go on with a run: another may, unless the job itself is at fault, whose runs are all paused then. */
  abstract fail(run: string, renderer: string, problem: string, final: boolean): Promise<void>;
  /** File of a rendered picture. */
  abstract picture(job: string, index: number): Promise<string>;
  /** File of a job. */
  abstract file(job: string): Promise<{ path: string; fileName: string }>;
}
