import {
  PathError,
  GroundSurface,
  NO_ASSETS,
  POSE,
  ShotError,
  compiledPathOf,
  evaluateShot,
  frameCount,
  needsPhysics,
  pathFacts,
  ribbonFrames,
  riderSources,
  sameSources,
  sampleGauge,
  sampleParts,
  sampleRider,
  shownAt,
  withRidersBehind,
  type CompiledPath,
  type CueAction,
  type EvaluatedShot,
  type GroundMesh,
  type Plant,
  type NodeHierarchy,
  type Physics,
  type Rider,
  type RiderSources,
  type SceneAssets,
  type SampledGauge,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';
import type {
  AsideEvaluation,
  EvaluatedPath,
  EvaluatedRider,
  EvaluationEnd,
  EvaluationUpdate,
  Focus,
  SentAnswer,
  Share,
} from './evaluation';
import { doAskedEdit, type AskedEdit, type AskedWith } from './asked-edits';
import { decodeDelta, encodeDelta, type ShotDelta } from './shot-delta';

/** The most poses kept for the page; beyond it samples lie several frames apart. */
const MOST_POSES = 2_000_000;

type Curve = CompiledPath | PathError;

/** All riders by one evaluator. */
const WHOLE: Share = { leads: true, riders: null };

/** Results since the last answer. */
interface Fresh {
  readonly paths: EvaluatedPath[];
  readonly riders: EvaluatedRider[];
  readonly poses: Map<string, Float64Array>;
  settling: number | null;
}

/** An evaluation under way. */
interface Work {
  readonly shot: Shot;
  readonly focus: Focus;
  readonly steps: Generator<void, EvaluationEnd, undefined>;
}

/**
 * Evaluates one shot after each edit; only what the edit touches is evaluated again. It works in slices: first the
 * visible part, then all else, until a newer shot begins. Finished parts are kept.
 */
export class Evaluator {
  private shot: Shot | null = null;
  private work: Work | null = null;
  private fresh: Fresh = nothing();
  private readonly drawn = new Map<string, Curve>();
  private readonly sampled = new Map<string, RiderSources>();
  private assets: SceneAssets = NO_ASSETS;
  private mesh: GroundMesh | null = null;

  /** Takes what the shot is played with; what follows from it is made anew with the next shot. */
  setAssets(mesh: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    const ground = mesh === null ? null : mesh === this.mesh ? this.assets.ground : new GroundSurface(mesh);
    this.mesh = mesh;
    this.assets = { ...this.assets, ground, hierarchies };
  }

  /** Takes rigid bodies, once a shot needs them. */
  setPhysics(physics: Physics | null): void {
    if (physics !== null) this.assets = { ...this.assets, physics };
  }

  /** The shot that was taken last; null before the first. */
  get taken(): Shot | null {
    return this.shot;
  }

  /** Takes a changed shot; one that is under way is given up. */
  begin(delta: ShotDelta, focus: Focus, share = WHOLE): void {
    const shot = decodeDelta(this.shot, delta);
    this.shot = shot;
    this.work = { shot, focus, steps: this.steps(shot, focus, share) };
  }

  /** Whether a shot that was begun is not yet through. */
  get busy(): boolean {
    return this.work !== null;
  }

  /**
   * Goes on with the shot that was begun.
   *
   * @param budget milliseconds after which it pauses
   */
  next(budget: number): EvaluationUpdate {
    const { work } = this;
    if (work === null) throw new Error('No shot is being evaluated.');
    const { shot, focus } = work;
    const { frames, step } = sampling(shot, shot.riders.length);
    this.fresh = nothing();
    const until = performance.now() + budget;
    let came: IteratorResult<void, EvaluationEnd>;
    try {
      do came = work.steps.next();
      while (!came.done && performance.now() < until);
    } catch (error) {
      // Results that were not sent count for nothing.
      this.forget();
      throw error;
    }
    // Its compiled motion is released.
    if (came.done) this.work = null;
    return {
      first: shot.range.first,
      frames,
      step,
      paths: this.fresh.paths,
      riders: this.fresh.riders,
      now: { frame: focus.frame, poses: this.fresh.poses },
      settling: this.fresh.settling,
      end: came.done ? came.value : null,
    };
  }

  private forget(): void {
    this.work = null;
    for (const kept of [this.drawn, this.sampled]) kept.clear();
  }

  private *steps(shot: Shot, focus: Focus, share: Share): Generator<void, EvaluationEnd, undefined> {
    const evaluated = evaluateShot(shot, this.assets);
    const { samples, step } = sampling(shot, shot.riders.length);
    const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
    const mine = this.ridersOf(shot, share);
    if (share.leads) this.drawPaths(shot);
    yield;
    const moved: { rider: Rider; index: number; from: RiderSources }[] = [];
    for (const [index, rider] of shot.riders.entries()) {
      if (!mine.has(rider.id)) continue;
      const from = riderSources(shot, rider, byId, evaluated.paths, evaluated.assets, `${step}`);
      if (!sameSources(this.sampled.get(rider.id), from)) moved.push({ rider, index, from });
    }
    moved.sort((a, b) => Number(b.rider.id === focus.rider) - Number(a.rider.id === focus.rider));
    // Riders that wait for forces are shown as they were, or not yet, until they are computed.
    const waits = new Set(
      needsPhysics(shot) ? moved.filter(({ rider }) => waitsForForces(byId, shot, rider)) : [],
    );
    for (const one of moved) {
      if (waits.has(one)) continue;
      const { rider, index } = one;
      const now = new Float64Array(POSE.size);
      evaluated.poses[index](focus.frame, now, 0);
      this.fresh.poses.set(rider.id, now);
      yield;
    }
    for (const one of waits) moved.push(...moved.splice(moved.indexOf(one), 1));
    let settled = waits.size === 0;
    for (const one of moved) {
      if (waits.has(one) && !settled) {
        for (const part of evaluated.settle()) {
          this.fresh.settling = part;
          yield;
        }
        settled = true;
      }
      const { rider, index, from } = one;
      const out = yield* sampleWhole(evaluated, rider, index, samples, step);
      this.fresh.riders.push(out);
      this.sampled.set(rider.id, from);
      yield;
    }
    return { moments: share.leads ? shownMoments(evaluated) : new Map() };
  }

  /** The riders that are evaluated here; what is known of others may be out of date when they come back. */
  private ridersOf({ riders }: Shot, share: Share): ReadonlySet<string> {
    const mine = new Set(share.riders ?? riders.map(({ id }) => id));
    for (const id of this.sampled.keys()) if (!mine.has(id)) this.sampled.delete(id);
    return mine;
  }

  /** Poses of some riders of a shot that differs from the one that was evaluated last. */
  evaluateAside(delta: ShotDelta, riders: readonly string[]): Omit<AsideEvaluation, 'shot'> {
    const shot = decodeDelta(this.shot, delta);
    const { poses } = evaluateShot(shot, this.assets);
    const { first } = shot.range;
    const { samples, step } = sampling(shot, riders.length);
    const index = new Map(shot.riders.map(({ id }, i) => [id, i]));
    return {
      first,
      step,
      poses: new Map(
        riders.flatMap((id) => {
          const i = index.get(id);
          return i === undefined ? [] : [[id, sampleRider(poses[i], first, samples, step)] as const];
        }),
      ),
    };
  }

  /** Does an edit to any shot. */
  edited(shot: Shot, name: AskedEdit, rest: readonly unknown[]): SentAnswer {
    try {
      const { shot: after, ...told } = doAskedEdit(shot, this.assets, name, rest as AskedWith<AskedEdit>);
      return { delta: encodeDelta(shot, after), told };
    } catch (error) {
      if (!(error instanceof ShotError)) throw error;
      const { path, found, expected } = error;
      return { refused: [path, found, expected] };
    }
  }

  private drawPaths({ paths }: Shot): void {
    const ids = new Set(paths.map(({ id }) => id));
    for (const id of this.drawn.keys()) if (!ids.has(id)) this.drawn.delete(id);
    for (const path of paths) this.drawPath(path.id, compiledPathOf(path));
  }

  private drawPath(id: string, curve: Curve): void {
    if (this.drawn.get(id) === curve) return;
    this.drawn.set(id, curve);
    const { length, closed, problem, facts, frames } =
      curve instanceof PathError
        ? { length: 0, closed: false, problem: curve.message, facts: null, frames: new Float64Array(0) }
        : { ...sizeOf(curve), problem: null, facts: pathFacts(curve), frames: ribbonFrames(curve) };
    this.fresh.paths.push({ id, length, closed, problem, facts, frames });
  }
}

const nothing = (): Fresh => ({ paths: [], riders: [], poses: new Map(), settling: null });

/** Whether a rider is dynamic, or depends on one that is. */
function waitsForForces(byId: ReadonlyMap<string, Rider>, { cues }: Shot, rider: Rider): boolean {
  return withRidersBehind(byId, cues, rider).some((behind) => needsPhysics({ riders: [behind] }));
}

/** A rider over the whole range, some frames at a time. */
function* sampleWhole(
  evaluated: EvaluatedShot,
  rider: Rider,
  index: number,
  samples: number,
  step: number,
): Generator<void, EvaluatedRider, undefined> {
  const { first } = evaluated.shot.range;
  const pose = evaluated.poses[index];
  const parts = evaluated.parts(rider);
  const push = evaluated.sideways(rider);
  const poses = yield* inSlices(samples, POSE.size, (from, count, before) =>
    sampleRider(pose, first + from * step, count, step, before),
  );
  const sideways = yield* inSlices(samples, 1, (from, count) =>
    Float64Array.from({ length: count }, (_, i) => push(first + (from + i) * step)),
  );
  const values = yield* inSlices(
    samples,
    parts.size,
    (from, count, before) => sampleParts(parts, first + from * step, count, step, before).values,
  );
  const led = evaluated.away(rider);
  const away = yield* inSlices(samples, led === null ? 0 : 3, (from, count) => {
    const steps = new Float64Array(3 * count);
    const now: Vec3 = [0, 0, 0];
    for (let i = 0; i < count; i++) {
      led?.(first + (from + i) * step, now);
      steps.set(now, 3 * i);
    }
    return steps;
  });
  const seen = evaluated.shows(rider);
  const shown = seen && Uint8Array.from({ length: samples }, (_, i) => (seen(first + i * step) ? 1 : 0));
  const gauges: SampledGauge[] = [];
  for (const gauge of evaluated.gauges(rider)) {
    gauges.push(sampleGauge(gauge, first, samples, step));
    yield;
  }
  return {
    id: rider.id,
    poses,
    sideways,
    away,
    shown,
    parts: { nodes: parts.nodes, joints: parts.joints, size: parts.size, values },
    gauges,
    spray: evaluated.spray(rider),
    timing: evaluated.timing(rider),
    plants: shownPlants(evaluated, rider),
  };
}

/** So many samples are taken without a look at the clock. */
const SLICE = 64;

/** Samples of `size` numbers, taken a slice at a time; each slice is given that before it. */
function* inSlices(
  samples: number,
  size: number,
  sample: (from: number, count: number, before: Float64Array | undefined) => Float64Array,
): Generator<void, Float64Array, undefined> {
  const all = new Float64Array(size === 0 ? 0 : samples * size);
  let before: Float64Array | undefined;
  for (let from = 0; from < samples && size > 0; from += SLICE) {
    before = sample(from, Math.min(SLICE, samples - from), before);
    all.set(before, from * size);
    yield;
  }
  return all;
}

const sizeOf = ({ length, closed }: CompiledPath) => ({ length, closed });

/** How many samples of a shot are kept, and how many frames lie from one to the next. */
function sampling(shot: Shot, riders: number): { frames: number; samples: number; step: number } {
  const frames = frameCount(shot);
  const step = Math.max(1, Math.ceil((frames * riders) / MOST_POSES));
  return { frames, step, samples: Math.floor((frames - 1) / step) + 1 };
}

/** Action of a cue that happens at a moment. */
const WAITS: ReadonlySet<CueAction['kind']> = new Set<CueAction['kind']>([
  'start',
  'stopEnd',
  'play',
  'path',
  'camera',
]);

/** When the cues of a shot act, in its own time. */
function shownMoments({ shot, retiming, moment }: EvaluatedShot): Map<string, number | null> {
  const { first, last } = shot.range;
  return new Map(
    shot.cues
      .filter((cue) => !cue.off && [cue.action, ...cue.moreActions].some(({ kind }) => WAITS.has(kind)))
      .map((cue) => {
        const frame = moment(cue);
        const seen = frame === null || retiming === null ? frame : shownAt(retiming, frame, first, last + 1);
        return [cue.id, seen];
      }),
  );
}

/** Plants in the time of the shot; what is not shown of them is left out. */
function shownPlants({ shot, retiming, contact }: EvaluatedShot, rider: Rider): Plant[] {
  const plants = contact(rider).walk?.plants() ?? [];
  if (retiming === null) return [...plants];
  const { first, last } = shot.range;
  return plants.flatMap((plant) => {
    const [from, to] = [plant.from, plant.to].map((frame) => shownAt(retiming, frame, first, last + 1));
    return from === null && to === null ? [] : [{ ...plant, from: from ?? first, to: to ?? last }];
  });
}
