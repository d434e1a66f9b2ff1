import { frameCount, type GroundMesh, type NodeHierarchy, type SeamGap, type Shot } from '@fleet-rail/core';
import { wrap, type Remote } from 'comlink';
import {
  withEnds,
  withUpdate,
  type AsideEvaluation,
  type Evaluation,
  type EvaluationEnd,
  type EvaluationUpdate,
  type Focus,
  type SentClosing,
} from './evaluation';
import { nextTask } from './next-task';
import { encodeDelta, type ShotDelta } from './shot-delta';
import type { EvaluationWorker } from './worker';

/** From so many poses on a second worker pays for being told of the shot. */
const POSES_A_WORKER = 100_000;
const MOST_WORKERS = 4;
/** Milliseconds between two pictures of an evaluation that goes on. */
const REFRESH = 150;

/** A worker, and what it knows. */
interface Lane {
  readonly worker: Worker;
  readonly remote: Remote<EvaluationWorker>;
  sent: Shot | null;
}

/**
 * Evaluates shots in workers, one shot at a time and in slices: what is looked at comes first, and a newer shot is taken up
 * between two slices, so that a drag is always shown as it is and never as it was. Large shots are shared among several
 * workers by riders that do not wait for each other.
 */
export class EvaluationClient {
  private readonly lanes: Lane[] = [];
  private assets: [GroundMesh | null, ReadonlyMap<string, NodeHierarchy>] = [null, new Map()];
  private waiting: { readonly shot: Shot; readonly focus: Focus } | null = null;
  private busy = false;
  private latest: Evaluation | null = null;
  /** Whether riders may be known by samples of another range than the latest. */
  private mixed = false;
  private shown = 0;
  private asked: Shot | null = null;

  constructor(
    private readonly onEvaluation: (evaluation: Evaluation) => void,
    private readonly onFailure: (error: unknown) => void,
  ) {}

  /** @param focus what is looked at of it */
  evaluate(shot: Shot, focus: Focus): void {
    this.waiting = { shot, focus };
    if (!this.busy) void this.run();
  }

  /** Gives what the shot is played with; the next evaluation goes by it. */
  setAssets(ground: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    this.assets = [ground, hierarchies];
    for (const { remote } of this.lanes) void remote.setAssets(ground, hierarchies);
  }

  /** Evaluates some riders of another shot; where a newer one was asked for since, the answer is null. */
  async evaluateAside(shot: Shot, riders: readonly string[]): Promise<AsideEvaluation | null> {
    this.asked = shot;
    await nextTask();
    if (this.asked !== shot) return null;
    const { sent, remote } = this.lane(0);
    const aside = await remote.evaluateAside(encodeDelta(sent, shot), riders);
    return this.asked === shot ? { ...aside, shot } : null;
  }

  /** How the shot that was evaluated last meets itself at its seam. */
  seam(): Promise<SeamGap[]> {
    return this.lane(0).remote.seam();
  }

  closings(gap: SeamGap): Promise<SentClosing[]> {
    return this.lane(0).remote.closings(gap);
  }

  close(): void {
    for (const { worker } of this.lanes) worker.terminate();
  }

  private async run(): Promise<void> {
    this.busy = true;
    while (this.waiting !== null) {
      // The page is drawn first; writing a large shot down for the worker takes a while of its own.
      await nextTask();
      const { shot, focus } = this.waiting;
      this.waiting = null;
      const lanes = Array.from({ length: lanesFor(shot) }, (_, i) => this.lane(i));
      try {
        const ends = await Promise.all(lanes.map((_, i) => this.drive(i, lanes.length, shot, focus)));
        if (this.latest !== null && ends.every((end) => end !== null)) {
          this.latest = withEnds(this.latest, ends);
          this.mixed = false;
          this.show();
        }
      } catch (error) {
        // The workers may not have taken the shot up: the next one is sent whole.
        for (const lane of this.lanes) lane.sent = null;
        this.onFailure(error);
      }
    }
    this.busy = false;
  }

  /** Has a worker evaluate its share; null where a newer shot came in before it was through. */
  private async drive(i: number, lanes: number, shot: Shot, focus: Focus): Promise<EvaluationEnd | null> {
    const lane = this.lane(i);
    const delta: ShotDelta = encodeDelta(lane.sent, shot);
    lane.sent = shot;
    let update = await lane.remote.begin(delta, focus, { lane: i, lanes });
    this.take(update, true);
    while (update.end === null) {
      if (this.waiting !== null) return null;
      update = await lane.remote.next();
      this.take(update, false);
    }
    return update.end;
  }

  private take(update: EvaluationUpdate, first: boolean): void {
    const { latest } = this;
    if (
      latest &&
      (latest.first !== update.first || latest.frames !== update.frames || latest.step !== update.step)
    )
      this.mixed = true;
    this.latest = withUpdate(latest, update);
    if (!this.mixed && (first || performance.now() - this.shown > REFRESH)) this.show();
  }

  private show(): void {
    this.shown = performance.now();
    if (this.latest !== null) this.onEvaluation(this.latest);
  }

  private lane(i: number): Lane {
    if (this.lanes[i] === undefined) {
      const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
      this.lanes[i] = { worker, remote: wrap<EvaluationWorker>(worker), sent: null };
      void this.lanes[i].remote.setAssets(...this.assets);
    }
    return this.lanes[i];
  }
}

function lanesFor(shot: Shot): number {
  const most = Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 1);
  const wanted = Math.floor((shot.riders.length * frameCount(shot)) / POSES_A_WORKER);
  return Math.min(most, Math.max(1, wanted));
}
