import {
  PathError,
  GroundSurface,
  NO_ASSETS,
  checkWhole,
  closingsOf,
  compiledPathOf,
  evaluateShot,
  findContact,
  frameCount,
  pathFacts,
  hierarchyOfRider,
  ribbonFrames,
  sampleGauge,
  sampleParts,
  sampleRider,
  seamReport,
  shownAt,
  withRidersBehind,
  worstFirst,
  type CompiledPath,
  type EvaluatedShot,
  type Finding,
  type GroundMesh,
  type Plant,
  type NodeHierarchy,
  type Rider,
  type SceneAssets,
  type SeamGap,
  type Shot,
} from '@fleet-rail/core';
import type {
  AsideEvaluation,
  EvaluatedPath,
  EvaluatedRider,
  EvaluationUpdate,
  SentClosing,
} from './evaluation';
import { decodeDelta, type ShotDelta } from './shot-delta';

/** The most poses kept for the page; beyond it samples lie several frames apart. */
const MOST_POSES = 2_000_000;

type Curve = CompiledPath | PathError;

/** Evaluates one shot again and again; an edit re-evaluates what it touches, nothing else. */
export class Evaluator {
  private shot: Shot | null = null;
  private readonly drawn = new Map<string, Curve>();
  private readonly sampled = new Map<string, { parts: unknown[]; timing: string }>();
  private readonly found = new Map<string, readonly Finding[]>();
  private readonly labels = new Map<string, string>();
  private assets: SceneAssets = NO_ASSETS;
  private mesh: GroundMesh | null = null;

  /** Takes what the shot is played with; what follows from it is made anew with the next shot. */
  setAssets(mesh: GroundMesh | null, hierarchies: ReadonlyMap<string, NodeHierarchy>): void {
    const ground = mesh === null ? null : mesh === this.mesh ? this.assets.ground : new GroundSurface(mesh);
    this.mesh = mesh;
    this.assets = { ground, hierarchies };
  }

  /** Takes a changed shot and gives what changed in its evaluation. */
  evaluate(delta: ShotDelta): EvaluationUpdate {
    const shot = decodeDelta(this.shot, delta);
    this.shot = shot;
    const evaluated = evaluateShot(shot, this.assets);
    const { frames, samples, step } = sampling(shot, shot.riders.length);
    const timing = `${shot.fps} ${shot.range.first} ${shot.range.last} ${shot.loop} ${step}`;
    const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
    return {
      first: shot.range.first,
      frames,
      step,
      pathIds: shot.paths.map((path) => path.id),
      riderIds: shot.riders.map((rider) => rider.id),
      paths: shot.paths.flatMap((path) => this.drawPath(path.id, compiledPathOf(path))),
      riders: shot.riders.flatMap((rider, i) => {
        const moves = this.riderChanged(shot, rider, timing, byId, evaluated.paths);
        // What is found of it names it by its badge, and says where in the document it is.
        const label = `${rider.badge} ${i} ${JSON.stringify(shot.models.map(({ id, name }) => [id, name]))}`;
        if (moves || this.labels.get(rider.id) !== label) {
          this.labels.set(rider.id, label);
          this.found.set(rider.id, findContact(evaluated, rider, i));
        }
        if (!moves) return [];
        const { first } = shot.range;
        return [
          {
            id: rider.id,
            poses: sampleRider(evaluated.poses[i], first, samples, step),
            sideways: sampled(evaluated.sideways(rider), first, samples, step),
            parts: sampleParts(evaluated.parts(rider), first, samples, step),
            gauges: evaluated.gauges(rider).map((gauge) => sampleGauge(gauge, first, samples, step)),
            timing: evaluated.timing(rider),
            plants: shownPlants(evaluated, rider),
          } satisfies EvaluatedRider,
        ];
      }),
      moments: shownMoments(evaluated),
      findings: worstFirst([
        ...checkWhole(evaluated),
        ...shot.riders.flatMap(({ id }) => this.found.get(id) ?? []),
      ]),
    };
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

  /** How the shot that was evaluated last meets itself at its seam. */
  seam(): SeamGap[] {
    return this.shot ? seamReport(evaluateShot(this.shot, this.assets)) : [];
  }

  /** The ways to close a gap of its seam. */
  closings(gap: SeamGap): SentClosing[] {
    if (this.shot === null) return [];
    return closingsOf(evaluateShot(this.shot, this.assets), gap).flatMap(({ shot, ...closing }) => {
      const rider = shot.riders.find(({ id }) => id === gap.rider);
      return rider ? [{ ...closing, rider, loop: shot.loop }] : [];
    });
  }

  private drawPath(id: string, curve: Curve): EvaluatedPath[] {
    if (this.drawn.get(id) === curve) return [];
    this.drawn.set(id, curve);
    if (curve instanceof PathError) {
      return [
        { id, length: 0, closed: false, problem: curve.message, facts: null, frames: new Float64Array(0) },
      ];
    }
    const { length, closed } = curve;
    return [{ id, length, closed, problem: null, facts: pathFacts(curve), frames: ribbonFrames(curve) }];
  }

  /** True when anything a rider's poses follow from is other than last time. */
  private riderChanged(
    { cues, retimes, ground: floor }: Shot,
    rider: Rider,
    timing: string,
    byId: ReadonlyMap<string, Rider>,
    curves: ReadonlyMap<string, Curve>,
  ): boolean {
    const parts: unknown[] = [];
    const ids = new Set<string>();
    for (const behind of withRidersBehind(byId, cues, rider)) {
      ids.add(behind.id);
      const curve = behind.hitch ? curves.get(behind.hitch.path) : undefined;
      parts.push(...shapeOf(behind), curve);
    }
    const acting = cues.filter(({ does }) => ids.has(does.rider)).map((cue) => ({ ...cue, name: '' }));
    const bending = retimes
      .filter((retime) => retime.riders.length === 0 || retime.riders.some((id) => ids.has(id)))
      .map((retime) => ({ ...retime, name: '' }));
    const { ground } = this.assets;
    const hierarchy = hierarchyOfRider(this.assets, rider);
    if (hierarchy) parts.push(hierarchy);
    if (ground) parts.push(ground);
    const place = `${timing} ${floor.model} ${JSON.stringify([acting, bending])}`;
    const before = this.sampled.get(rider.id);
    this.sampled.set(rider.id, { parts, timing: place });
    const same =
      before?.timing === place &&
      before.parts.length === parts.length &&
      parts.every((part, i) => part === before.parts[i]);
    return !same;
  }
}

/** What a rider is called and drawn in moves nothing. */
const LABELS: ReadonlySet<string> = new Set<keyof Rider>(['name', 'badge', 'color']);

/** What of a rider moves it, or what hangs on it. */
function shapeOf(rider: Rider): unknown[] {
  return Object.entries(rider).flatMap(([key, value]): unknown[] => (LABELS.has(key) ? [] : [value]));
}

/** A value at the frames that are kept. */
function sampled(
  value: (frame: number) => number,
  first: number,
  samples: number,
  step: number,
): Float64Array {
  return Float64Array.from({ length: samples }, (_, i) => value(first + i * step));
}

/** How many samples of a shot are kept, and how many frames lie from one to the next. */
function sampling(shot: Shot, riders: number): { frames: number; samples: number; step: number } {
  const frames = frameCount(shot);
  const step = Math.max(1, Math.ceil((frames * riders) / MOST_POSES));
  return { frames, step, samples: Math.floor((frames - 1) / step) + 1 };
}

/** When the cues of a shot act, in its own time. */
function shownMoments({ shot, retiming, moment }: EvaluatedShot): Map<string, number | null> {
  const { first, last } = shot.range;
  return new Map(
    shot.cues
      .filter(({ off, does }) => !off && (does.kind === 'start' || does.kind === 'stopEnd'))
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
