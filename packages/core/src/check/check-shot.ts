import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { NO_SCENE, type CheckScene } from './check-scene.js';
import type { Finding } from './finding.js';
import { runToEnd } from '../geometry/math/run-to-end.js';
import { ShotChecker } from './shot-checker.js';

/** Findings of a shot, worst first. */
export function checkShot({ shot, assets }: EvaluatedShot, scene: CheckScene = NO_SCENE): Finding[] {
  return runToEnd(new ShotChecker().check(shot, assets, scene));
}
