import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { riderSources, sameSources, type RiderSources } from '../shot/evaluate/rider-sources.js';
import type { SceneAssets } from '../shot/evaluate/scene-assets.js';
import { seamPartner } from '../shot/loop/partners.js';
import type { Solid } from './solid.js';
import { findNear, findUnseen } from './camera-findings.js';
import { checkRider } from './check-rider.js';
import type { CheckScene } from './check-scene.js';
import { worded, worstFirst, type Finding, type RawFinding } from './finding.js';
import { findIdleCues } from './idle-cues.js';
import { findMissingGround, findMissingDressing } from './missing-model.js';
import { findNoCurve } from './no-curve.js';
import { findOverlap } from './overlap.js';
import { RiderLook } from './rider-look.js';
import { staticSetOf } from './static-set.js';
import { findThroughSet } from './through-set.js';

/** Results of a rider from the last check. */
interface Known {
  readonly sources: RiderSources;
  readonly poses: Float64Array | null;
  readonly findings: readonly RawFinding[];
}

/**
 * Checks a shot again after each edit. Results are reused: findings of a rider depend on the sources of its poses,
 * findings of two on both.
 */
export class ShotChecker {
  private riders = new Map<string, Known>();
  /** By two riders what was found of them. */
  private pairs = new Map<string, readonly RawFinding[]>();
  /** Riders that were not yet held against all others since they changed: a look may be given up before that. */
  private readonly unpaired = new Set<string>();
  /** Whether anything changed, or went, that cameras were not yet asked about. */
  private unseen = true;

  /**
   * Checks a shot, a part of it a step, edited riders first.
   *
   * @param first the rider to begin with
   * @returns what there is to say, worst first
   */
  *check(
    shot: Shot,
    assets: SceneAssets,
    scene: CheckScene,
    first: string | null = null,
  ): Generator<void, Finding[], undefined> {
    const evaluated = evaluateShot(shot, assets);
    for (const steps = evaluated.settle(); !steps.next().done;) yield;
    const set = staticSetOf(evaluated, scene);
    const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
    const settings = JSON.stringify([shot.checks.limits, shot.ground]);
    const sourcesOf = (rider: Rider) => {
      const own = riderSources(shot, rider, byId, evaluated.paths, evaluated.assets, settings);
      const partner = shot.loop ? seamPartner(shot, rider).rider : rider;
      const model = scene.models.get(rider.model ?? '');
      const missing = scene.missing.has(rider.model ?? '');
      return {
        ...own,
        parts: [...own.parts, model, missing, set, partner === rider ? null : partner.attachment],
      };
    };
    const looks: RiderLook[] = [];
    const changed = new Set<string>();
    const fresh = new Map<string, RiderSources>();
    for (const [index, rider] of shot.riders.entries()) {
      const sources = sourcesOf(rider);
      const known = this.riders.get(rider.id);
      const same = sameSources(known?.sources, sources);
      if (!same) changed.add(rider.id);
      fresh.set(rider.id, sources);
      looks.push(new RiderLook(evaluated, rider, index, scene, same ? (known?.poses ?? null) : null));
    }
    this.forget(byId, changed);
    for (const id of changed) this.unpaired.add(id);
    yield;
    const order = [...looks].sort((a, b) => Number(b.rider.id === first) - Number(a.rider.id === first));
    for (const look of order) {
      const { id } = look.rider;
      if (!changed.has(id)) continue;
      const findings = yield* checkRider(look);
      findings.push(...findThroughSet(look, set));
      yield;
      const sources = fresh.get(id) as RiderSources;
      this.riders.set(id, { sources, poses: look.poses, findings });
    }
    const pairs = yield* this.checkPairs(looks);
    const unseen: RawFinding[] = [];
    for (const look of looks.filter(({ rider }) => rider.camera !== null)) {
      unseen.push(...this.seen(look, looks, set));
      yield;
    }
    this.unpaired.clear();
    this.unseen = false;
    const raw = [
      ...findMissingGround(shot, scene),
      ...findMissingDressing(shot, scene),
      ...findNoCurve(evaluated),
      ...findIdleCues(evaluated),
      ...looks.flatMap(({ rider }) => this.riders.get(rider.id)?.findings ?? []),
      ...pairs,
      ...unseen,
    ];
    return worstFirst(worded(raw, shot));
  }

  private *checkPairs(looks: readonly RiderLook[]): Generator<void, RawFinding[], undefined> {
    const findings: RawFinding[] = [];
    for (let i = 0; i < looks.length; i++) {
      for (let j = i + 1; j < looks.length; j++) {
        const [a, b] = [looks[i], looks[j]];
        const key = `${a.rider.id} ${b.rider.id}`;
        if (this.unpaired.has(a.rider.id) || this.unpaired.has(b.rider.id)) {
          const own = [...findOverlap(a, b), ...findNear(a, b), ...findNear(b, a)];
          if (own.length > 0) this.pairs.set(key, own);
          else this.pairs.delete(key);
        }
        findings.push(...(this.pairs.get(key) ?? []));
      }
      yield;
    }
    return findings;
  }

  /** Findings of hidden targets; any rider that moved may hide one. */
  private seen(camera: RiderLook, looks: readonly RiderLook[], set: Solid | null): readonly RawFinding[] {
    const key = `${camera.rider.id} `;
    const known = this.unseen ? undefined : this.pairs.get(key);
    const found = known ?? findUnseen(camera, looks, set);
    this.pairs.set(key, found);
    return found;
  }

  /** Lets go of what is no longer true, or no longer there. */
  private forget(byId: ReadonlyMap<string, Rider>, changed: ReadonlySet<string>): void {
    if (changed.size > 0) this.unseen = true;
    for (const id of this.riders.keys()) {
      if (!byId.has(id)) this.unseen = true;
      if (!byId.has(id) || changed.has(id)) this.riders.delete(id);
    }
    for (const key of this.pairs.keys()) {
      const ids = key.trim().split(' ');
      if (ids.some((id) => !byId.has(id) || changed.has(id))) this.pairs.delete(key);
    }
  }
}
