import type { PictureJob, ClaimedBatch, RendererSelf } from '@fleet-rail/core';
import { Refusal, request, sentenceOf } from '../../api/request';
import type { Evaluation } from '../evaluation/evaluation';
import { ModelFiles } from '../scene-assets/model-files';
import { makeFile } from './film';
import { evaluateJob, PainterLost, ShotPainter } from './shot-painter';

/** Identity of a renderer, and its shot. */
export interface RendererFor extends RendererSelf {
  /** The shot whose desk it is: its jobs come first. */
  readonly shot?: string;
}

/** State of a renderer, for a page to show. */
export interface RendererState {
  readonly doing: 'waits' | 'opens' | 'draws' | 'joins' | 'lost the server';
  /** Of the run it has. */
  readonly done: number;
  readonly of: number;
}

/** The run is another's by now. */
const GONE = 410;
const BROKEN = 422;
/** Milliseconds between two questions whether something waits. */
const ASK = 1_500;

/** Takes one run after the other, draws it and gives it back, until it is ended. */
export class PictureRenderer {
  private readonly files = new ModelFiles();
  private opened: { readonly job: string; readonly work: PictureJob; painter: ShotPainter | null } | null =
    null;

  constructor(
    private readonly self: RendererFor,
    private readonly tell: (state: RendererState) => void,
    private readonly signal: AbortSignal,
  ) {}

  async work(): Promise<void> {
    while (!this.signal.aborted) {
      try {
        const run = await request<ClaimedBatch | undefined>('POST', '/api/pool/claim', this.self);
        if (run) await this.take(run);
        else {
          this.tell({ doing: 'waits', done: 0, of: 0 });
          await this.pause();
        }
      } catch {
        this.tell({ doing: 'lost the server', done: 0, of: 0 });
        await this.pause();
      }
    }
    this.close();
  }

  /** Draws or joins; errors are reported to the pool. */
  private async take(run: ClaimedBatch): Promise<void> {
    const control = new AbortController();
    const end = () => control.abort();
    this.signal.addEventListener('abort', end);
    let done = 0;
    // Heard of three times within a lease, so that one lost beat is no lost run.
    const beats = setInterval(() => {
      void this.send(run, 'beat', { done }).catch((error: unknown) => {
        if (isGone(error)) control.abort();
      });
    }, run.lease / 3);
    const told = (doing: RendererState['doing']) => (now: number, of: number) => {
      // A film that goes round several times joins each of its pictures as often.
      done = of > run.count ? Math.floor((now * run.count) / of) : now;
      this.tell({ doing, done: now, of });
    };
    try {
      const work = await this.open(run.job, told('opens'));
      if (run.kind === 'draw') await this.draw(run, work, control.signal, told('draws'));
      else await this.join(run, work, control.signal, told('joins'));
    } catch (error) {
      if (!control.signal.aborted && !isGone(error)) await this.tellFailure(run, error);
    } finally {
      clearInterval(beats);
      this.signal.removeEventListener('abort', end);
    }
  }

  private async draw(
    { run, first, count }: ClaimedBatch,
    work: PictureJob,
    signal: AbortSignal,
    told: (done: number, of: number) => void,
  ): Promise<void> {
    const painter = await this.painter(work, signal);
    for (let i = 0; i < count; i++) {
      signal.throwIfAborted();
      const canvas = painter.draw(work.pictures[first + i]);
      const png = await canvas.convertToBlob({ type: 'image/png' });
      await this.put(`${run}/pictures/${first + i}`, png, 'image/png');
      told(i + 1, count);
    }
    await this.post(run, 'given', {});
  }

  private async join(
    { run, job }: ClaimedBatch,
    work: PictureJob,
    signal: AbortSignal,
    told: (done: number, of: number) => void,
  ): Promise<void> {
    const file = await makeFile({
      job: work,
      picture: async (index) => (await fetchedPicture(job, index)).blob(),
      evaluation: () => this.evaluation(work, signal),
      told,
      signal,
    });
    await this.put(`${run}/file`, file, 'application/octet-stream');
  }

  /** Job, kept for its next batch. */
  private async open(job: string, told: (done: number, of: number) => void): Promise<PictureJob> {
    if (this.opened?.job === job) return this.opened.work;
    told(0, 0);
    this.close();
    const work = await request<PictureJob>('GET', `/api/pool/jobs/${job}/work`);
    this.opened = { job, work, painter: null };
    return work;
  }

  private async painter(work: PictureJob, signal: AbortSignal): Promise<ShotPainter> {
    if (this.opened?.painter) return this.opened.painter;
    const evaluated = await evaluateJob(work, this.files, signal);
    const problems: string[] = [];
    const painter = await ShotPainter.open(work, evaluated, (problem) => problems.push(problem));
    // The desk shows a stand-in; a film of it would be useless.
    if (problems.length > 0) throw new Error(problems.join(' '));
    if (this.opened) this.opened.painter = painter;
    return painter;
  }

  private async evaluation(work: PictureJob, signal: AbortSignal): Promise<Evaluation> {
    return this.opened?.painter?.evaluation ?? (await evaluateJob(work, this.files, signal)).evaluation;
  }

  private close(): void {
    this.opened?.painter?.dispose();
    this.opened = null;
  }

  private send(run: ClaimedBatch, what: string, body: object): Promise<void> {
    return this.post(run.run, what, body);
  }

  private post(run: string, what: string, body: object): Promise<void> {
    return request('POST', `/api/pool/batches/${run}/${what}`, { renderer: this.self.id, ...body });
  }

  private async put(path: string, content: Blob, type: string): Promise<void> {
    const answer = await fetch(`/api/pool/batches/${path}?renderer=${this.self.id}`, {
      method: 'PUT',
      body: content,
      headers: { 'Content-Type': type },
    });
    if (answer.ok) return;
    const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
    throw new Refusal(message ?? `The server answered ${answer.status}.`, answer.status);
  }

  /** A refusal in this program's words is the job's fault; the server's refusal of a picture is this renderer's. */
  private async tellFailure(run: ClaimedBatch, error: unknown): Promise<void> {
    if (error instanceof Refusal && error.status === BROKEN) return;
    if (error instanceof PainterLost) this.close();
    // A failed transfer, or an error here, is not the job's fault: it is tried again.
    const passing = [Refusal, TypeError, PainterLost].some((kind) => error instanceof kind);
    const body = { problem: sentenceOf(error).slice(0, 2000) || 'It failed.', final: !passing };
    await this.send(run, 'failed', body).catch(() => undefined);
  }

  private pause(): Promise<void> {
    return new Promise((resolve) => {
      const over = () => {
        clearTimeout(wait);
        resolve();
      };
      const wait = setTimeout(() => {
        this.signal.removeEventListener('abort', over);
        resolve();
      }, ASK);
      this.signal.addEventListener('abort', over, { once: true });
    });
  }
}

const isGone = (error: unknown): boolean => error instanceof Refusal && error.status === GONE;

async function fetchedPicture(job: string, index: number): Promise<Response> {
  const answer = await fetch(`/api/pool/jobs/${job}/pictures/${index}`);
  if (!answer.ok)
    throw new Refusal(`Picture ${index} could not be fetched (${answer.status}).`, answer.status);
  return answer;
}
