import { physicsFor, type GroundMesh, type NodeHierarchy } from '@fleet-rail/core';
import { expose, transfer } from 'comlink';
import { checkApi } from '../checks/check-api';
import type { EvaluationUpdate, Focus, Share } from './evaluation';
import type { AskedEdit } from './asked-edits';
import { Evaluator } from './evaluator';
import { nextTask } from '../../ui/next-task';
import { decodeDelta, type ShotDelta } from './shot-delta';

/** Milliseconds until the visible part is sent, and between two checks for a newer shot. */
const FIRST = 16;
const SLICE = 30;

/** Takes what came out of a run, or why nothing will. */
export type Listener = (run: number, update: EvaluationUpdate | null, error: unknown) => void;

const evaluator = new Evaluator();
let listener: Listener = () => undefined;
let run = 0;
let going = false;

/** Evaluates slice after slice; messages are handled between two. */
async function goOn(): Promise<void> {
  going = true;
  let told = 0;
  while (evaluator.busy) {
    await nextTask();
    const now = run;
    try {
      // The first shot with forces waits for what they take.
      evaluator.setPhysics(await physicsFor(evaluator.taken ?? { riders: [] }));
      const update = evaluator.next(told === now ? SLICE : FIRST);
      told = now;
      listener(now, sent(update), null);
    } catch (error) {
      listener(now, null, error);
    }
  }
  going = false;
}

function sent(update: EvaluationUpdate): EvaluationUpdate {
  const arrays = [
    ...update.paths.map(({ frames }) => frames),
    ...update.riders.flatMap(({ poses, sideways, away, parts, gauges }) => [
      poses,
      sideways,
      away,
      parts.values,
      ...gauges.map(({ values }) => values),
    ]),
  ];
  return transfer(
    update,
    arrays.map((array) => array.buffer as ArrayBuffer),
  );
}

const api = {
  listen(other: Listener): void {
    listener = other;
  },
  setAssets(ground: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    evaluator.setAssets(ground, hierarchies);
  },
  /** Takes a changed shot; results are sent as they come. */
  begin(number: number, delta: ShotDelta, focus: Focus, share: Share): void {
    evaluator.begin(delta, focus, share);
    run = number;
    if (!going) void goOn();
  },
  evaluateAside(delta: ShotDelta, riders: readonly string[]) {
    const aside = evaluator.evaluateAside(delta, riders);
    return transfer(
      aside,
      [...aside.poses.values()].map((array) => array.buffer as ArrayBuffer),
    );
  },
  async edited(delta: ShotDelta, name: AskedEdit, rest: readonly unknown[]) {
    // A newer shot may be taken while bodies are loaded.
    const shot = decodeDelta(evaluator.taken, delta);
    evaluator.setPhysics(await physicsFor(shot));
    return evaluator.edited(shot, name, rest);
  },
  // One file for both, so that a page that opens a desk loads it once; the worker that looks shots over is another one.
  ...checkApi,
};

export type EvaluationWorker = typeof api;

expose(api);
