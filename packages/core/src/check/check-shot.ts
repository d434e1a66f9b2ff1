import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { findContact } from './contact-findings.js';
import type { Finding } from './finding.js';
import { findIdleCues } from './idle-cues.js';
import { findLooseEnds } from './loose-ends.js';
import { findNoCurve } from './no-curve.js';
import { findPastTheEnd } from './past-the-end.js';

const CHECKS = [findNoCurve, findPastTheEnd, findLooseEnds, findIdleCues];

/** What there is to say about a shot, errors first. */
export function checkShot(evaluated: EvaluatedShot): Finding[] {
  const { riders } = evaluated.shot;
  return worstFirst([
    ...checkWhole(evaluated),
    ...riders.flatMap((rider, i) => findContact(evaluated, rider, i)),
  ]);
}

/** The same without what is asked for by rider, {@link findContact}. */
export function checkWhole(evaluated: EvaluatedShot): Finding[] {
  return CHECKS.flatMap((check) => check(evaluated));
}

export function worstFirst(findings: readonly Finding[]): Finding[] {
  const rank = (finding: Finding) => (finding.severity === 'error' ? 0 : 1);
  return [...findings].sort((a, b) => rank(a) - rank(b));
}
