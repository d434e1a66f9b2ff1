import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { Finding } from './finding.js';
import { findIdleCues } from './idle-cues.js';
import { findLooseEnds } from './loose-ends.js';
import { findNoCurve } from './no-curve.js';
import { findNotInEffect } from './not-in-effect.js';
import { findPastTheEnd } from './past-the-end.js';

const CHECKS = [findNoCurve, findPastTheEnd, findLooseEnds, findIdleCues, findNotInEffect];

/** What there is to say about a shot, errors first. */
export function checkShot(evaluated: EvaluatedShot): Finding[] {
  const findings = CHECKS.flatMap((check) => check(evaluated));
  const rank = (finding: Finding) => (finding.severity === 'error' ? 0 : 1);
  return findings.sort((a, b) => rank(a) - rank(b));
}
