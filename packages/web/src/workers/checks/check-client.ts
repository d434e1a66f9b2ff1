import type { Closing, Finding, SeamGap, Shot } from '@fleet-rail/core';
import { wrap, type Remote } from 'comlink';
import { decodeDelta, encodeDelta, type ShotDelta } from '../evaluation/shot-delta';
import type { EvaluationWorker } from '../evaluation/worker';
import type { CheckAssets } from './check-api';

/** A shot with its findings. */
export interface Checked {
  readonly shot: Shot;
  readonly findings: readonly Finding[];
  /** How long that took. */
  readonly seconds: number;
}

/** A fix of a finding, for the shot it was found in. */
export interface OfferedFix {
  readonly label: string;
  readonly detail: string;
  /** The shot as it would be. */
  readonly shot: Shot;
}

/** Checks shots in its own worker, one after the other; a newer one ends the check before it. */
export class CheckClient {
  private readonly worker = new Worker(new URL('../evaluation/worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly remote: Remote<EvaluationWorker> = wrap<EvaluationWorker>(this.worker);
  private sent: Shot | null = null;

  constructor(
    private readonly onChecked: (checked: Checked) => void,
    private readonly onFailure: (error: unknown) => void,
  ) {}

  /** Sets the assets of checks; the next check uses them. */
  setAssets(assets: CheckAssets): void {
    void this.remote.setCheckAssets(assets);
  }

  /** @param first the rider that is looked at first */
  check(shot: Shot, first: string | null): void {
    this.send(shot, (delta) => this.remote.check(delta, first)).then(
      (looked) => looked && this.onChecked({ shot, ...looked }),
      this.onFailure,
    );
  }

  /** How a shot meets itself at its seam. */
  seam(shot: Shot): Promise<SeamGap[]> {
    return this.send(shot, (delta) => this.remote.seam(delta));
  }

  /** The ways to close a gap, as {@link fixes}. */
  async closings(gap: SeamGap, shot: Shot): Promise<Closing[]> {
    if (this.sent !== shot) return [];
    const found = await this.remote.closings(gap);
    return found.map(({ delta, ...closing }) => ({ ...closing, shot: decodeDelta(shot, delta) }));
  }

  /** Fixes of a finding in the last shot that was sent; none if the finding is of another. */
  async fixes(finding: Finding, shot: Shot): Promise<OfferedFix[]> {
    if (this.sent !== shot) return [];
    const found = await this.remote.fixes(finding);
    return found.map(({ label, detail, delta }) => ({ label, detail, shot: decodeDelta(shot, delta) }));
  }

  private async send<T>(shot: Shot, ask: (delta: ShotDelta) => Promise<T>): Promise<T> {
    const delta = encodeDelta(this.sent, shot);
    this.sent = shot;
    try {
      return await ask(delta);
    } catch (error) {
      // The worker may not have taken the shot up: the next one is sent whole.
      this.sent = null;
      throw error;
    }
  }

  close(): void {
    this.worker.terminate();
  }
}
