import { ShotError, frameCount, type GroundMesh, type NodeHierarchy, type Shot } from '@fleet-rail/core';
import { proxy, wrap, type Remote } from 'comlink';
import {
  withEnds,
  withUpdate,
  type AsideEvaluation,
  type Evaluation,
  type EvaluationEnd,
  type EvaluationUpdate,
  type Focus,
} from './evaluation';
import { nextTask } from '../../ui/next-task';
import type { Answered, AskedEdit, AskedWith, EditAsker } from './asked-edits';
import { decodeDelta, encodeDelta } from './shot-delta';
import { shares } from './shares';
import type { EvaluationWorker } from './worker';

/** Least number of poses for which a second worker pays. */
const POSES_A_WORKER = 100_000;
const MOST_WORKERS = 4;
/** Milliseconds between two pictures of an evaluation that goes on. */
const REFRESH = 150;

/** Fields that determine the samples. */
const TIMING = ['first', 'frames', 'step'] as const;

/** A worker, and what it knows. */
interface Lane {
  readonly worker: Worker;
  readonly remote: Remote<EvaluationWorker>;
  sent: Shot | null;
}

/** A shot that is being evaluated. */
interface Run {
  readonly number: number;
  readonly shot: Shot;
  /** By worker what closed its share. */
  readonly ends: (EvaluationEnd | null)[];
  shown: boolean;
}

/**
 * Evaluates shots in workers, one shot at a time and in slices: the visible part comes first, and a newer shot
 * replaces an older one between two slices, so that a drag shows its present state. Large shots are shared among
 * several workers by riders that do not depend on each other.
 */
export class EvaluationClient implements EditAsker {
  private readonly lanes: Lane[] = [];
  private assets: [GroundMesh | null, ReadonlyMap<string, NodeHierarchy>] = [null, new Map()];
  private waiting: { readonly shot: Shot; readonly focus: Focus } | null = null;
  private run: Run | null = null;
  private latest: Evaluation | null = null;
  /** Whether riders may be known by samples of another range than the latest. */
  private mixed = false;
  /** By rider which worker evaluates it in the present run. */
  private owners: ReadonlyMap<string, number> = new Map();
  private shownAt = 0;
  private asked: Shot | null = null;
  private readonly unanswered = new Set<Promise<unknown>>();

  constructor(
    private readonly onEvaluation: (evaluation: Evaluation) => void,
    private readonly onFailure: (error: unknown) => void,
  ) {}

  /** @param focus what is looked at of it */
  evaluate(shot: Shot, focus: Focus): void {
    const first = this.waiting === null;
    this.waiting = { shot, focus };
    if (first) void this.begin();
  }

  /** Sets the assets of evaluations; the next one uses them. */
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

  async edited<Name extends AskedEdit>(
    shot: Shot,
    name: Name,
    ...rest: AskedWith<Name>
  ): Promise<Answered<Name>> {
    const { sent, remote } = this.lane(0);
    const answering = remote.edited(encodeDelta(sent, shot), name, rest);
    this.unanswered.add(answering);
    const answer = await answering.finally(() => this.unanswered.delete(answering));
    if ('refused' in answer) throw new ShotError(...answer.refused);
    return { ...answer.told, shot: decodeDelta(shot, answer.delta) } as Answered<Name>;
  }

  /** Ends the workers, once they have answered the edits that they were asked for. */
  close(): void {
    void Promise.allSettled(this.unanswered).then(() => {
      for (const { worker } of this.lanes) worker.terminate();
    });
  }

  private async begin(): Promise<void> {
    // The page renders first if a whole shot has to be serialised for the worker; an edit goes immediately.
    await (this.run === null ? nextTask() : Promise.resolve());
    const { waiting } = this;
    this.waiting = null;
    if (waiting === null) return;
    const { shot, focus } = waiting;
    const lanes = lanesFor(shot);
    const number = (this.run?.number ?? 0) + 1;
    const riders = shares(shot.riders, shot.cues, lanes);
    this.run = { number, shot, ends: Array.from({ length: lanes }, () => null), shown: false };
    this.owners = new Map(riders.flatMap((ids, i) => ids.map((id) => [id, i] as const)));
    // An idle worker's copy would be out of date when it is needed again.
    for (const { worker } of this.lanes.splice(lanes)) worker.terminate();
    for (let i = 0; i < lanes; i++) {
      const lane = this.lane(i);
      const delta = encodeDelta(lane.sent, shot);
      lane.sent = shot;
      lane.remote
        .begin(number, delta, focus, { leads: i === 0, riders: riders[i] })
        .catch((error: unknown) => this.fail(number, error));
    }
  }

  /**
   * Takes what a worker came to. What is left over from an older run is as true as ever, but for riders that another worker
   * has meanwhile: that one evaluates them anew.
   */
  private take(i: number, number: number, update: EvaluationUpdate): void {
    const { run, latest } = this;
    if (run === null) return;
    if (latest && TIMING.some((key) => latest[key] !== update[key])) this.mixed = true;
    const owned = (id: string) => this.owners.get(id) === i;
    const riders = update.riders.filter(({ id }) => owned(id));
    const poses = new Map([...update.now.poses].filter(([id]) => owned(id)));
    const taken = { ...update, riders, now: { ...update.now, poses } };
    this.latest = withUpdate(latest, taken, run.shot);
    if (number !== run.number) return;
    run.ends[i] = update.end;
    const ends = run.ends.filter((end) => end !== null);
    if (ends.length === run.ends.length) {
      this.latest = withEnds(this.latest, ends);
      this.mixed = false;
      this.show(run);
    } else if (!this.mixed && (!run.shown || performance.now() - this.shownAt > REFRESH)) this.show(run);
  }

  private fail(number: number, error: unknown): void {
    if (number !== this.run?.number) return;
    // The workers may not have taken the shot up: the next one is sent whole.
    for (const lane of this.lanes) lane.sent = null;
    this.onFailure(error);
  }

  private show(run: Run): void {
    run.shown = true;
    this.shownAt = performance.now();
    if (this.latest !== null) this.onEvaluation(this.latest);
  }

  private lane(i: number): Lane {
    if (this.lanes[i] === undefined) {
      const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
      this.lanes[i] = { worker, remote: wrap<EvaluationWorker>(worker), sent: null };
      void this.lanes[i].remote.listen(
        proxy((number, update, error) =>
          update === null ? this.fail(number, error) : this.take(i, number, update),
        ),
      );
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
