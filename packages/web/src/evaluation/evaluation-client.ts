import type { GroundMesh, NodeHierarchy, SeamGap, Shot } from '@fleet-rail/core';
import { wrap, type Remote } from 'comlink';
import { withUpdate, type AsideEvaluation, type Evaluation, type SentClosing } from './evaluation';
import { nextTask } from './next-task';
import { encodeDelta } from './shot-delta';
import type { EvaluationWorker } from './worker';

/**
 * Evaluates shots in a worker, one at a time: while one is under way only the newest of those that
 * come in waits, so that a drag is always shown as it is and never as it was.
 */
export class EvaluationClient {
  private readonly worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  private readonly remote: Remote<EvaluationWorker> = wrap<EvaluationWorker>(this.worker);
  private sent: Shot | null = null;
  private waiting: Shot | null = null;
  private busy = false;
  private latest: Evaluation | null = null;
  private asked: Shot | null = null;

  constructor(
    private readonly onEvaluation: (evaluation: Evaluation, shot: Shot) => void,
    private readonly onFailure: (error: unknown) => void,
  ) {}

  evaluate(shot: Shot): void {
    this.waiting = shot;
    if (!this.busy) void this.run();
  }

  /** Gives what the shot is played with; the next evaluation goes by it. */
  setAssets(ground: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    void this.remote.setAssets(ground, hierarchies);
  }

  /** Evaluates some riders of another shot; where a newer one was asked for since, the answer is null. */
  async evaluateAside(shot: Shot, riders: readonly string[]): Promise<AsideEvaluation | null> {
    this.asked = shot;
    await nextTask();
    if (this.asked !== shot) return null;
    const aside = await this.remote.evaluateAside(encodeDelta(this.sent, shot), riders);
    return this.asked === shot ? { ...aside, shot } : null;
  }

  /** How the shot that was evaluated last meets itself at its seam. */
  seam(): Promise<SeamGap[]> {
    return this.remote.seam();
  }

  closings(gap: SeamGap): Promise<SentClosing[]> {
    return this.remote.closings(gap);
  }

  close(): void {
    this.worker.terminate();
  }

  private async run(): Promise<void> {
    this.busy = true;
    while (this.waiting !== null) {
      // The page is drawn first; writing a large shot down for the worker takes a while of its own.
      await nextTask();
      const shot = this.waiting;
      this.waiting = null;
      try {
        const delta = encodeDelta(this.sent, shot);
        this.sent = shot;
        this.latest = withUpdate(this.latest, await this.remote.evaluate(delta));
        this.onEvaluation(this.latest, shot);
      } catch (error) {
        // The worker may not have taken the shot up: the next one is sent whole.
        this.sent = null;
        this.onFailure(error);
      }
    }
    this.busy = false;
  }
}
