import { Worker } from 'node:worker_threads';
import type { FromThread, ToThread } from './thread-job.js';

/** How far the work of one job may go. */
export interface ThreadLimits {
  /** Jobs at a time: one that hangs does not hold up the next. */
  readonly threads: number;
  /** From its start until its last part is made. */
  readonly seconds: number;
  /** Of the thread's own memory. */
  readonly megabytes: number;
}

/** Why a job came to no answer. */
export class ThreadRefusal extends Error {
  override readonly name = 'ThreadRefusal';

  constructor(
    message: string,
    readonly reason: 'refused' | 'time' | 'memory' | 'cancelled' | 'stopped',
  ) {
    super(message);
  }
}

/** A job's answer as it is made; the first part is there when it begins. */
export type PartStream<Part> = AsyncGenerator<Part, void, undefined>;

interface Waiting {
  start(thread: Thread): void;
  fail(error: Error): void;
}

/** A thread, kept for the next job when it is done with one. */
class Thread {
  readonly worker: Worker;
  private asked: { answer(message: FromThread<unknown>): void; fail(error: Error): void } | null = null;
  /** Why it is of no more use. */
  private over: Error | null = null;

  constructor(script: URL, megabytes: number) {
    this.worker = new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: megabytes } });
    this.worker.on('message', (message: FromThread<unknown>) => this.asked?.answer(message));
    this.worker.on('error', (error) => this.fail(error));
    this.worker.on('exit', (code) => this.fail(new Error(`The thread ended with ${code}.`)));
  }

  /** Sends a message and waits for the answer to it. */
  ask(message: ToThread<unknown>): Promise<FromThread<unknown>> {
    return new Promise((answer, fail) => {
      if (this.over !== null) return fail(this.over);
      this.asked = { answer, fail };
      this.worker.postMessage(message);
    });
  }

  /** It answers no more; the first reason counts. */
  fail(error: Error): void {
    this.over ??= error;
    this.asked?.fail(this.over);
  }
}

/**
 * Threads that do one kind of job, kept warm between jobs. What runs too long, takes too much memory or is no longer wanted is
 * ended with its thread, whatever it is doing; another takes its place.
 */
export class WorkThreads<Job, Part> {
  private readonly idle: Thread[] = [];
  private readonly busy = new Set<Thread>();
  private readonly queue: Waiting[] = [];
  private closed = false;

  /** @param what the job is called in messages, as "Reading this model" */
  constructor(
    private readonly script: URL,
    private readonly what: string,
    private readonly limits: ThreadLimits,
  ) {}

  /**
   * The parts of a job's answer.
   *
   * @param signal ends the job when it is no longer wanted
   * @throws ThreadRefusal where there is no answer, or no more of it
   */
  async *run(job: Job, signal?: AbortSignal): PartStream<Part> {
    const thread = await this.free(signal);
    const { seconds } = this.limits;
    const end = (refusal: ThreadRefusal) => {
      thread.fail(refusal);
      void thread.worker.terminate();
    };
    const timer = setTimeout(
      () => end(new ThreadRefusal(`${this.what} took over ${seconds} s and was stopped.`, 'time')),
      seconds * 1e3,
    );
    const abort = () => end(new ThreadRefusal(`${this.what} was cancelled.`, 'cancelled'));
    signal?.addEventListener('abort', abort);
    let done = false;
    try {
      let message: ToThread<Job> = { job };
      while (!done) {
        const answer = (await thread.ask(message)) as FromThread<Part>;
        if ('part' in answer) yield answer.part;
        else done = true;
        if ('refusal' in answer) throw new ThreadRefusal(answer.refusal, 'refused');
        message = { more: true };
      }
    } catch (error) {
      throw this.refusalOf(error);
    } finally {
      clearTimeout(timer);
      signal?.removeEventListener('abort', abort);
      this.release(thread, done);
    }
  }

  /** The only part of a job's answer. */
  async answer(job: Job, signal?: AbortSignal): Promise<Part> {
    let found: Part | undefined;
    for await (const part of this.run(job, signal)) found = part;
    return found as Part;
  }

  /** Ends all threads immediately. */
  async close(): Promise<void> {
    this.closed = true;
    for (const waiting of this.queue.splice(0)) waiting.fail(this.stopped());
    for (const thread of this.busy) thread.fail(this.stopped());
    await Promise.all([...this.idle, ...this.busy].map(({ worker }) => worker.terminate()));
  }

  private free(signal?: AbortSignal): Promise<Thread> {
    if (this.closed) return Promise.reject(this.stopped());
    const cancelled = () => new ThreadRefusal(`${this.what} was cancelled.`, 'cancelled');
    if (signal?.aborted) return Promise.reject(cancelled());
    const thread = this.idle.pop() ?? (this.busy.size < this.limits.threads ? this.made() : null);
    if (thread !== null) {
      this.busy.add(thread);
      return Promise.resolve(thread);
    }
    return new Promise((resolve, reject) => {
      const waiting: Waiting = { start: resolve, fail: reject };
      this.queue.push(waiting);
      signal?.addEventListener('abort', () => {
        const at = this.queue.indexOf(waiting);
        if (at >= 0) this.queue.splice(at, 1);
        reject(cancelled());
      });
    });
  }

  private made(): Thread {
    const thread = new Thread(this.script, this.limits.megabytes);
    // Idle threads keep no process alive.
    thread.worker.unref();
    // One that ends while it waits must not be given the next job.
    const leave = () => {
      const at = this.idle.indexOf(thread);
      if (at >= 0) this.idle.splice(at, 1);
    };
    thread.worker.once('error', leave).once('exit', leave);
    return thread;
  }

  /** @param whole whether it answered to the end: else it is still at something, and of no more use */
  private release(thread: Thread, whole: boolean): void {
    this.busy.delete(thread);
    if (!whole) void thread.worker.terminate();
    if (this.closed) return;
    const next = this.queue.shift();
    const free = whole ? thread : next ? this.made() : null;
    if (free === null) return;
    if (next) {
      this.busy.add(free);
      next.start(free);
    } else this.idle.push(free);
  }

  private stopped(): ThreadRefusal {
    return new ThreadRefusal(`${this.what} was stopped: the server is shutting down.`, 'stopped');
  }

  private refusalOf(error: unknown): unknown {
    if ((error as NodeJS.ErrnoException).code !== 'ERR_WORKER_OUT_OF_MEMORY') return error;
    const { megabytes } = this.limits;
    return new ThreadRefusal(`${this.what} needed over ${megabytes} MB of memory and was stopped.`, 'memory');
  }
}

/** A thread runs the compiled script, also where what starts it runs from its source. */
export function threadScript(name: string): URL {
  return new URL(`../../dist/${name}.js`, import.meta.url);
}
