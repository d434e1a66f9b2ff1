import {
  GroundSurface,
  NO_ASSETS,
  NO_SCENE,
  ShotChecker,
  closingsOf,
  evaluateShot,
  physicsFor,
  fixesOf,
  seamReport,
  type CheckScene,
  type Closing,
  type Finding,
  type GroundMesh,
  type NodeHierarchy,
  type Fix,
  type SceneAssets,
  type SeamGap,
  type Shot,
} from '@fleet-rail/core';
import { nextTask } from '../../ui/next-task';
import { decodeDelta, encodeDelta, type ShotDelta } from '../evaluation/shot-delta';

/** Milliseconds between two looks at whether there is a newer shot. */
const SLICE = 30;

/** Assets of a check: those of the evaluation, and the meshes. */
export interface CheckAssets {
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
  readonly scene: CheckScene;
}

/** Result of a check; null if a newer shot was sent meanwhile. */
export type Looked = { readonly findings: readonly Finding[]; readonly seconds: number } | null;

/** A fix as it is sent: its change of the shot with the finding. */
export interface SentFix extends Omit<Fix, 'shot'> {
  readonly delta: ShotDelta;
}

/** A closing of a seam gap, as it is sent to the page. */
export interface SentClosing extends Omit<Closing, 'shot'> {
  readonly delta: ShotDelta;
}

const checker = new ShotChecker();
let shot: Shot | null = null;
let assets: SceneAssets = NO_ASSETS;
let scene: CheckScene = NO_SCENE;
let mesh: GroundMesh | null = null;
let asked = 0;

/** Takes a changed shot up, and rigid bodies once a shot needs them. */
async function take(delta: ShotDelta): Promise<Shot> {
  const taken = (shot = decodeDelta(shot, delta));
  const physics = await physicsFor(taken);
  if (physics !== null && physics !== assets.physics) assets = { ...assets, physics };
  return taken;
}

/** Worker that checks shots. */
export const checkApi = {
  setCheckAssets(given: CheckAssets): void {
    const same = given.ground === mesh;
    const ground = given.ground === null ? null : same ? assets.ground : new GroundSurface(given.ground);
    mesh = given.ground;
    assets = { ...assets, ground, hierarchies: given.hierarchies };
    scene = given.scene;
  },

  /** Looks a changed shot over, what is chosen first, until a newer one comes. */
  async check(delta: ShotDelta, first: string | null): Promise<Looked> {
    const mine = ++asked;
    const taken = await take(delta);
    if (mine !== asked) return null;
    const steps = checker.check(taken, assets, scene, first);
    const begun = performance.now();
    for (let until = begun + SLICE; ;) {
      const step = steps.next();
      if (step.done) return { findings: step.value, seconds: (performance.now() - begun) / 1e3 };
      if (performance.now() < until) continue;
      await nextTask();
      if (mine !== asked) return null;
      until = performance.now() + SLICE;
    }
  },

  /** How a changed shot meets itself at its seam. */
  async seam(delta: ShotDelta): Promise<SeamGap[]> {
    const taken = await take(delta);
    return seamReport(evaluateShot(taken, assets), scene.models);
  },

  /** The ways to close a gap of the seam of the shot that was sent last. */
  closings(gap: SeamGap): SentClosing[] {
    const now = shot;
    if (now === null) return [];
    return closingsOf(evaluateShot(now, assets), gap).map(({ shot: closed, ...closing }) => ({
      ...closing,
      delta: encodeDelta(now, closed),
    }));
  },

  /** Fixes of a finding in the last shot that was sent. */
  fixes(finding: Finding): SentFix[] {
    const now = shot;
    if (now === null) return [];
    return fixesOf(evaluateShot(now, assets), scene, finding).map(({ shot: cured, ...fix }) => ({
      ...fix,
      delta: encodeDelta(now, cured),
    }));
  },
};
