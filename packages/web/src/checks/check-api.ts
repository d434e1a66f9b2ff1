import {
  GroundSurface,
  NO_ASSETS,
  NO_SCENE,
  ShotChecker,
  evaluateShot,
  physicsFor,
  remediesOf,
  type CheckScene,
  type Finding,
  type GroundMesh,
  type NodeHierarchy,
  type Remedy,
  type SceneAssets,
  type Shot,
} from '@fleet-rail/core';
import { nextTask } from '../evaluation/next-task';
import { decodeDelta, encodeDelta, type ShotDelta } from '../evaluation/shot-delta';

/** Milliseconds between two looks at whether there is a newer shot. */
const SLICE = 30;

/** What a shot is held against: what it is played with, and what that is made of. */
export interface CheckAssets {
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
  readonly scene: CheckScene;
}

/** What a look came to; null where a newer shot was sent meanwhile. */
export type Looked = { readonly findings: readonly Finding[]; readonly seconds: number } | null;

/** A way out as it is sent: what it changes of the shot that it was found in. */
export interface SentRemedy extends Omit<Remedy, 'shot'> {
  readonly delta: ShotDelta;
}

const checker = new ShotChecker();
let shot: Shot | null = null;
let assets: SceneAssets = NO_ASSETS;
let scene: CheckScene = NO_SCENE;
let mesh: GroundMesh | null = null;
let asked = 0;

/** What a worker does that looks shots over. */
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
    const taken = (shot = decodeDelta(shot, delta));
    const physics = await physicsFor(taken);
    if (mine !== asked) return null;
    if (physics) assets = { ...assets, physics };
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

  /** The ways out of what was found in the shot that was sent last. */
  remedies(finding: Finding): SentRemedy[] {
    const now = shot;
    if (now === null) return [];
    return remediesOf(evaluateShot(now, assets), scene, finding).map(({ shot: cured, ...remedy }) => ({
      ...remedy,
      delta: encodeDelta(now, cured),
    }));
  },
};
