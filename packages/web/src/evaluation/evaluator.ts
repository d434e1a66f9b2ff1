import {
  PathError,
  checkShot,
  compiledPathOf,
  evaluateShot,
  frameCount,
  pathFacts,
  ribbonFrames,
  samplePart,
  sampleRider,
  withRidersBehind,
  type CompiledPath,
  type Rider,
  type Shot,
} from '@fleet-rail/core';
import type { EvaluatedPath, EvaluatedRider, EvaluationUpdate } from './evaluation';
import { decodeDelta, type ShotDelta } from './shot-delta';

/** The most poses kept for the page; beyond it samples lie several frames apart. */
const MOST_POSES = 2_000_000;

type Curve = CompiledPath | PathError;

/** Evaluates one shot again and again; an edit re-evaluates what it touches, nothing else. */
export class Evaluator {
  private shot: Shot | null = null;
  private readonly drawn = new Map<string, Curve>();
  private readonly sampled = new Map<string, { parts: object[]; timing: string }>();

  /** Takes a changed shot and gives what changed in its evaluation. */
  evaluate(delta: ShotDelta): EvaluationUpdate {
    const shot = decodeDelta(this.shot, delta);
    this.shot = shot;
    const evaluated = evaluateShot(shot);
    const frames = frameCount(shot);
    const step = Math.max(1, Math.ceil((frames * shot.riders.length) / MOST_POSES));
    const samples = Math.floor((frames - 1) / step) + 1;
    const timing = `${shot.fps} ${shot.range.first} ${shot.range.last} ${shot.loop} ${step} ${JSON.stringify([shot.cues, shot.retimes])}`;
    const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
    return {
      first: shot.range.first,
      frames,
      step,
      pathIds: shot.paths.map((path) => path.id),
      riderIds: shot.riders.map((rider) => rider.id),
      paths: shot.paths.flatMap((path) => this.drawPath(path.id, compiledPathOf(path))),
      riders: shot.riders.flatMap((rider, i) => {
        if (!this.riderChanged(shot, rider, timing, byId, evaluated.paths)) return [];
        const poses = sampleRider(evaluated.poses[i], shot.range.first, samples, step);
        const parts = evaluated.parts[i].map((part) => samplePart(part, shot.range.first, samples, step));
        return [{ id: rider.id, poses, parts } satisfies EvaluatedRider];
      }),
      findings: checkShot(evaluated),
    };
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

  /** True when anything a rider's poses follow from is another object than last time. */
  private riderChanged(
    { cues }: Shot,
    rider: Rider,
    timing: string,
    byId: ReadonlyMap<string, Rider>,
    curves: ReadonlyMap<string, Curve>,
  ): boolean {
    const parts: object[] = [];
    for (const behind of withRidersBehind(byId, cues, rider)) {
      const curve = behind.hitch ? curves.get(behind.hitch.path) : undefined;
      parts.push(behind, ...(curve ? [curve] : []));
    }
    const before = this.sampled.get(rider.id);
    this.sampled.set(rider.id, { parts, timing });
    const same =
      before?.timing === timing &&
      before.parts.length === parts.length &&
      parts.every((part, i) => part === before.parts[i]);
    return !same;
  }
}
